/** What only scripts and show tests say. */
import type { ArgsOf } from "./args";

interface ScriptLine {
  syntax: string;
  about: string;
  example: string;
}

export const SCRIPT_LINES = {
  wait: {
    syntax: "wait <time:seconds>",
    about: "moves the clock; everything due up to and including then happens",
    example: "wait 2.5",
  },
  expectSelection: {
    syntax: "expect selection (none | <chosen:items>)",
    about: "what is selected, in order",
    example: "expect selection none",
  },
  expectListCue: {
    syntax: "expect list <list> cue <cueNumber:cue>",
    about: "where a list stands",
    example: "expect list 1 cue 3",
  },
  expectReleased: {
    syntax: "expect list <list> released",
    about: "a list that is released",
    example: "expect list 1 released",
  },
  expectDmx: {
    syntax: "expect dmx <address> <bytes>",
    about: "bytes from that slot on",
    example: "expect dmx 1:1 255 0 128",
  },
  expectFixtureAt: {
    syntax: "expect fixture <number:fixture> at <address>",
    about: "a fixture's address",
    example: "expect fixture 3 at 1:29",
  },
  expectUnpatched: {
    syntax: "expect fixture <number:fixture> unpatched",
    about: "a fixture without address",
    example: "expect fixture 3 unpatched",
  },
  expectCount: {
    syntax: "expect fixtures <number:whole>",
    about: "how many fixtures there are",
    example: "expect fixtures 12",
  },
  expectEntry: {
    syntax:
      "expect [list <list>] cue <cueNumber:cue> <sel> <attr> (stored <stored:number> | tracked <tracked:number> | released | unset)",
    about: "what a cue has for a parameter",
    example: "expect cue 2 1 dimmer stored 40",
  },
  expectPalette: {
    syntax: "expect palette <number:palette> <sel> <attr> <wanted:number>",
    about: "the values a palette has for fixtures",
    example: "expect palette 14 3 green 40",
  },
  expectFrom: {
    syntax: "expect <sel> <attr> from (default | programmer | list <list> [cue <cueNumber:cue>])",
    about: "where a stage value comes from",
    example: "expect 1 dimmer from list 1 cue 2",
  },
  expectValue: {
    syntax: "expect <sel> <attr> <numbers> [within <tolerance:number>]",
    about: "stage values, one for all or one each in order",
    example: "expect 1 thru 3 dimmer 0 50 100",
  },
  expectNoDrift: {
    syntax: "expect drift [list <list>] none",
    about: "a list in which nothing changes unseen or while it fades out, but what is meant",
    example: "expect drift none",
  },
  expectDrift: {
    syntax: "expect drift [list <list>] (lit | dark) cue <cueNumber:cue> <sel>",
    about: "these fixtures change in that cue while they fade out (lit), or in the dark",
    example: "expect drift dark cue 2 1",
  },
  expectLook: {
    syntax: "expect look [list <list>] cue <cueNumber:cue> (signed | changed)",
    about: "whether a cue looks as it was signed off",
    example: "expect look cue 2 changed",
  },
  expectCheck: {
    syntax: "expect check <number:whole>",
    about: "how many suspicious things are found",
    example: "expect check 3",
  },
  check: {
    syntax: "check",
    about: "prints what is suspicious; fails where there is anything",
    example: "check",
  },
  expectRipple: {
    syntax: "expect ripple <line>",
    about: "the cues whose look a line would change, without doing it: LINE => 13 14, or none",
    example: "expect ripple delete cue 2 track => none",
  },
  refuse: {
    syntax: "refuse <line>",
    about: "passes when the line is refused and nothing changed",
    example: "refuse 99",
  },
  open: { syntax: "open <file:text>", about: "opens a show file", example: 'open "show.comet.zip"' },
  save: { syntax: "save <file:text>", about: "writes a show file", example: 'save "show.comet.zip"' },
  importCsv: {
    syntax: "import csv <file:text> [add | update]",
    about: "brings in a patch from a table; rows that make no sense are left out",
    example: 'import csv "rig.csv" add',
  },
  exportCsv: {
    syntax: "export csv <file:text>",
    about: "writes the patch as a table",
    example: 'export csv "patch.csv"',
  },
  exportCues: {
    syntax: "export cues <file:text>",
    about: "writes the cue sheet of all lists as a table",
    example: 'export cues "cues.csv"',
  },
  expectTimecode: {
    syntax: "expect timecode <wanted:frames>",
    about: "where timecode stands",
    example: "expect timecode 0:00:00",
  },
  importAscii: {
    syntax: "import ascii <file:text> [add | update]",
    about: "brings channels, groups, cues of intensities and submasters in from USITT ASCII",
    example: 'import ascii "show.asc" update',
  },
  exportAscii: {
    syntax: "export ascii <file:text>",
    about: "writes patch, groups and the intensities of cues as USITT ASCII",
    example: 'export ascii "show.asc"',
  },
  bring: {
    syntax:
      "bring from <file:text> [palette <palettes:ranges>] [effect <effects:ranges>] [wave <waves:ranges>] [group <groups:ranges>] [macro <macros:ranges>] [view <views:ranges>] [page <pages:ranges>] [list <lists:ranges> [cue <firstCue:cue> [thru <lastCue:cue>]]] [by number | by type] [beside | replace]",
    about:
      "brings things over from another show with what they need; fixtures by number or type; a number that is taken goes beside, unless told to replace",
    example: 'bring from "other.comet.zip" palette 1 thru 9',
  },
  importGdtf: {
    syntax: "import gdtf <file:text>",
    about: "brings a fixture type in from a GDTF file",
    example: 'import gdtf "lamp.gdtf"',
  },
  exportGdtf: {
    syntax: "export gdtf <of:type> <file:text>",
    about: "writes a fixture type as a GDTF file",
    example: 'export gdtf petrel-spot "petrel.gdtf"',
  },
  importMvr: {
    syntax: "import mvr <file:text> [add | update]",
    about: "brings fixtures with their types, places and addresses, and scenery in from an MVR file",
    example: 'import mvr "rig.mvr" update',
  },
  exportMvr: {
    syntax: "export mvr <file:text>",
    about: "writes the rig with its types as an MVR file",
    example: 'export mvr "rig.mvr"',
  },
  print: {
    syntax: "print <sel> <attrs>",
    about: "a JSON line with the stage values",
    example: "print 1 thru 3 dimmer pan",
  },
} as const satisfies Record<string, ScriptLine>;

export type ScriptKind = keyof typeof SCRIPT_LINES;
export type ScriptArgs = { [K in ScriptKind]: ArgsOf<(typeof SCRIPT_LINES)[K]["syntax"]> };

/** What a script line asks its runner for. */
export type ScriptAct<K extends ScriptKind = ScriptKind> = { [P in K]: { kind: P; args: ScriptArgs[P] } }[K];
