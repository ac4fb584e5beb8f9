/** What only scripts and show tests say. */
import type { Command, Reading } from "../command";

const chapter = "Scripts";
const act =
  (kind: string): Command["read"] =>
  (args): Reading => ({ intents: [], events: [], script: { kind, args } });
const row = (kind: string, syntax: string, about: string, example: string): Command => ({
  chapter,
  syntax,
  about,
  example,
  read: act(kind),
});

export const SCRIPTS: Command[] = [
  row("wait", "wait <time:seconds>", "moves the clock; everything due up to and including then happens", "wait 2.5"),
  row(
    "expectSelection",
    "expect selection (none | <chosen:items>)",
    "what is selected, in order",
    "expect selection none",
  ),
  row("expectListCue", "expect list <list> cue <cueNumber:cue>", "where a list stands", "expect list 1 cue 3"),
  row("expectReleased", "expect list <list> released", "a list that is released", "expect list 1 released"),
  row("expectDmx", "expect dmx <address> <bytes>", "bytes from that slot on", "expect dmx 1:1 255 0 128"),
  row(
    "expectFixtureAt",
    "expect fixture <number:fixture> at <address>",
    "a fixture's address",
    "expect fixture 3 at 1:29",
  ),
  row(
    "expectUnpatched",
    "expect fixture <number:fixture> unpatched",
    "a fixture without address",
    "expect fixture 3 unpatched",
  ),
  row("expectCount", "expect fixtures <number:whole>", "how many fixtures there are", "expect fixtures 12"),
  row(
    "expectEntry",
    "expect [list <list>] cue <cueNumber:cue> <sel> <attr> (stored <stored:number> | tracked <tracked:number> | released | unset)",
    "how a parameter stands in a cue",
    "expect cue 2 1 dimmer stored 40",
  ),
  row(
    "expectFrom",
    "expect <sel> <attr> from (default | programmer | list <list> [cue <cueNumber:cue>])",
    "where a stage value comes from",
    "expect 1 dimmer from list 1 cue 2",
  ),
  row(
    "expectValue",
    "expect <sel> <attr> <numbers> [within <tolerance:number>]",
    "stage values, one for all or one each in order",
    "expect 1 thru 3 dimmer 0 50 100",
  ),
  row(
    "expectRipple",
    "expect ripple <line>",
    "the cues whose look a line would change, without doing it: LINE => 13 14, or none",
    "expect ripple delete cue 2 track => none",
  ),
  row("refuse", "refuse <line>", "passes when the line is refused and nothing changed", "refuse 99"),
  row("open", "open <file:text>", "opens a show file", 'open "show.comet.zip"'),
  row("save", "save <file:text>", "writes a show file", 'save "show.comet.zip"'),
  row(
    "importCsv",
    "import csv <file:text> [add | update]",
    "brings in a patch from a table; rows that make no sense are left out",
    'import csv "rig.csv" add',
  ),
  row("exportCsv", "export csv <file:text>", "writes the patch as a table", 'export csv "patch.csv"'),
  row("print", "print <sel> <attrs>", "a JSON line with the stage values", "print 1 thru 3 dimmer pan"),
];
