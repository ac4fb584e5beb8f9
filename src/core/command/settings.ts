/** The settings of a holding line: "at 50", "pan at -20 to 20 delay 0 to 3", "colour at #2ad1c9". */
import type { Target } from "../show/model";
import { fail } from "../show/refusal";
import { RELEASE } from "../show/value";
import { aim, cueTime, hold, ownTime, palette, targetsOfWhat, type Building } from "./building";
import { copyFrom, home, locate } from "./buildingAll";
import { chroma, colour, filter, kelvin } from "./buildingColour";
import { EFFECT_SETTINGS } from "./effectSettings";
import { setting, type Setting } from "./setting";
import { paletteCalled } from "./voices";

export type { Setting } from "./setting";
import { whatText, type What } from "./what";

/** All that WHAT means on the items; ends with `fail` where none of them has it. */
function those(b: Building, what: What): Target[] {
  const found = b.items.flatMap((item) => targetsOfWhat(b, item, what));
  return found.length > 0
    ? found
    : fail(`none of the selected fixtures has ${whatText(what)}`, "Select fixtures that have it");
}

export const SETTINGS: Setting[] = [
  ...EFFECT_SETTINGS,
  setting({
    syntax: "at <amounts:values>",
    about: "intensity, spread over the selection",
    example: "1 thru 9 at 20 to 80",
    apply: (args, b) => hold(b, "Dimmer", args.amounts, false),
  }),
  setting({
    syntax: "by <amounts:values>",
    about: "more or less intensity; stops at the ends",
    example: "1 thru 9 by -10",
    apply: (args, b) => hold(b, "Dimmer", args.amounts, true),
  }),
  setting({
    syntax: "<attr> at <amounts:values>",
    about: "an attribute, in its own unit",
    example: "1 thru 12 pan at -20 to 20 tilt at 30",
    apply: (args, b) => hold(b, args.attr, args.amounts, false),
  }),
  setting({
    syntax: "<attr> by <amounts:values>",
    about: "more or less of an attribute",
    example: "1 thru 12 zoom by 5",
    apply: (args, b) => hold(b, args.attr, args.amounts, true),
  }),
  setting({
    syntax: "colour at <hexes:colours>",
    about: "a colour, by the type's own primaries; several spread",
    example: "21 thru 36 colour at #2ad1c9 to #ff8800",
    apply: (args, b) => colour(b, args.hexes),
  }),
  setting({
    syntax: "colour at xy <x:number> <y:number>",
    about: "a chromaticity (CIE 1931), as bright as each type can give it; the nearest where it cannot",
    example: "21 thru 36 colour at xy 0.31 0.33",
    apply: (args, b) => chroma(b, [args.x, args.y]),
  }),
  setting({
    syntax: "colour at <whites:kelvins>",
    about: "white of a colour temperature, all emitters joining; several spread",
    example: "41 thru 64 colour at 2700K to 6500K",
    apply: (args, b) => kelvin(b, args.whites),
  }),
  setting({
    syntax: "colour filter <label:text>",
    about: "a filter colour of the list",
    example: '1 thru 12 colour filter "Bottle glass"',
    apply: (args, b) => filter(b, args.label),
  }),
  setting({
    syntax: "aim at <x:metres> <y:metres> <z:metres> [flip]",
    about:
      "a point in the room: each mover solves its own pan and tilt, and follows where it hangs; flip takes the other way round",
    example: "1 thru 12 aim at 0 2 0",
    apply: (args, b) =>
      aim(b, {
        aim: [args.x, args.y, args.z],
        ...(args.flip === true ? { flip: true } : {}),
      }),
  }),
  setting({
    syntax: "palette <ref:paletteRef>",
    about: "the palette's values for each of them, now and whenever it changes",
    example: "21 thru 24 palette 1",
    apply: (args, b) => palette(b, paletteCalled(b.context.world.show, args.ref)),
  }),
  setting({
    syntax: "[<what>] delay <delays:times> [fade <fades:times>]",
    about: "own timing of WHAT, else of the setting before",
    example: "1 thru 9 at full delay 0 to 3 fade 2",
    apply: (args, b) => ownTime(b, args.what ?? b.lastWhat, args.delays, args.fades),
  }),
  setting({
    syntax: "[<what>] fade <fades:times>",
    about: "own fade time",
    example: "1 thru 9 at full fade 4",
    apply: (args, b) => ownTime(b, args.what ?? b.lastWhat, undefined, args.fades),
  }),
  setting({
    syntax: "<what> cue time",
    about: "take own timing away",
    example: "intensity cue time",
    apply: (args, b) => cueTime(b, args.what),
  }),
  setting({
    syntax: "<what> release",
    about: "hold a release: shows what lies below, and stores a release",
    example: "1 thru 9 colour release",
    apply(args, b) {
      for (const t of those(b, args.what)) b.values[t.key] = { attribute: t.attribute, value: RELEASE };
      b.lastWhat = args.what;
      b.says.push(`${whatText(args.what)} released`);
    },
  }),
  setting({
    syntax: "<what> drop",
    about: "clear it from the programmer",
    example: "1 thru 9 colour drop",
    apply(args, b) {
      for (const t of those(b, args.what)) b.drops.push(t.key);
      b.says.push(`clears ${whatText(args.what)}`);
    },
  }),
  setting({
    syntax: "<what> keep (out | in)",
    about: "held, but left out of what is recorded; or taken back in",
    example: "1 thru 9 intensity at 20 intensity keep out",
    apply(args, b) {
      const keys = b.items
        .flatMap((item) => targetsOfWhat(b, item, args.what))
        .map((t) => t.key)
        .filter((key) => b.values[key] ?? b.context.world.hands.held[key]);
      if (keys.length === 0) fail(`no ${whatText(args.what)} is held for the selected fixtures`, "Set a value first");
      b.kept.push({ keys, out: args.out === true });
      b.says.push(`${whatText(args.what)} ${args.out ? "kept out of recording" : "back in recording"}`);
    },
  }),
  setting({
    syntax: "over <time:seconds>",
    about: "what the line holds takes so long to get there",
    example: "1 thru 9 at full over 4",
    apply(args, b) {
      if (Object.keys(b.values).length === 0)
        fail("nothing in this line takes its time", "Say what, such as: at full over 4");
      b.over = args.time;
    },
  }),
  setting({
    syntax: "copy from <fixture>",
    about: "hold what another fixture shows: all the two have in common, by attribute",
    example: "8 thru 9 copy from 7",
    apply: ({ fixture }, b) => copyFrom(b, fixture),
  }),
  setting({
    syntax: "home",
    about: "hold every parameter at its default",
    example: "1 thru 12 home",
    apply: (_, b) => home(b),
  }),
  setting({
    syntax: "locate",
    about: "hold full, open, white, centred",
    example: "1 thru 12 locate",
    apply: (_, b) => locate(b),
  }),
];
