/** Effects among the settings of a holding line. */
import { attributeInfo, withUnit } from "../fixture/attribute";
import { setting, type Setting } from "./setting";
import {
  effectCalled,
  endOf,
  holdEffect,
  holdVoice,
  PHASING_SYNTAX,
  phasingOf,
  rangeAmong,
  shapeOf,
  stopsOf,
  stopsOfWhat,
  stopWhat,
  takesSecond,
  waveSays,
  type EndTyped,
} from "./voices";
import type { WaveName } from "../show/effectSchema";
import type { Building } from "./building";
import { whatText } from "./what";

const endSays = (end: EndTyped, attribute: string): string =>
  typeof end === "number" ? withUnit(end, attribute) : typeof end === "string" ? end : `palette ${end.palette}`;

const waveOf = (b: Building, ref: WaveName | { own: string }, attribute: string, second: boolean) =>
  shapeOf(b.context.world.show, ref, second || (typeof ref === "object" && takesSecond(b, ref.own, attribute)));

export const EFFECT_SETTINGS: Setting[] = [
  setting({
    syntax: `<attr> wave <shape:waveRef> [second] low <low:end> high <high:end> ${PHASING_SYNTAX}`,
    about:
      "a wave between two values or palettes, spread over the selection: bpm cycles a minute, across degrees from first to last",
    example: "1 thru 9 dimmer wave sine low 0 high 100 bpm 30",
    apply(args, b) {
      const { show } = b.context.world;
      const range = rangeAmong(b, args.attr);
      const wave = waveOf(b, args.shape, args.attr, args.second === true);
      const [low, high] = [endOf(show, args.low, range), endOf(show, args.high, range)];
      holdVoice(
        b,
        { attribute: args.attr, wave, range: { low, high } },
        phasingOf(args),
        waveSays(
          show,
          wave,
          attributeInfo(args.attr).label.toLowerCase(),
          `from ${endSays(args.low, args.attr)} to ${endSays(args.high, args.attr)}`,
        ),
      );
    },
  }),
  setting({
    syntax: `<attr> wave <shape:waveRef> [second] relative [centre <centre:number>] size <size:number> ${PHASING_SYNTAX}`,
    about: "a wave around what lies underneath: as much below it as above",
    example: "1 thru 12 pan wave sine relative size 10",
    apply(args, b) {
      const { show } = b.context.world;
      const wave = waveOf(b, args.shape, args.attr, args.second === true);
      holdVoice(
        b,
        { attribute: args.attr, wave, range: { centre: args.centre ?? 0, size: args.size } },
        phasingOf(args),
        waveSays(
          show,
          wave,
          attributeInfo(args.attr).label.toLowerCase(),
          `${withUnit(args.size, args.attr)} around what lies underneath`,
        ),
      );
    },
  }),
  setting({
    syntax: `<what> stops <stops:stops> ${PHASING_SYNTAX}`,
    about:
      "a walk through palettes, colours or values: hold is the share of its part each is kept before it goes over into the next (snap, linear, smooth)",
    example: "21 thru 36 colour stops palette 41 hold 50 smooth palette 45 bpm 20",
    apply(args, b) {
      const { show } = b.context.world;
      const { what } = args;
      const stops = stopsOf(show, args.stops, "attribute" in what ? rangeAmong(b, what.attribute) : [0, 100]);
      holdVoice(
        b,
        { of: stopsOfWhat(what, stops), stops },
        phasingOf(args),
        `${whatText(what)} through ${stops.length} stops`,
      );
    },
  }),
  setting({
    syntax: "effect <ref:effectRef>",
    about: "an effect of the show, now and whenever it is changed",
    example: "21 thru 24 effect 3",
    apply: (args, b) => holdEffect(b, effectCalled(b.context.world.show, args.ref), b.items),
  }),
  setting({
    syntax: "<what> stop",
    about: "the end of effects: hides those of lists, and stores a stop",
    example: "1 thru 9 pan stop",
    apply: (args, b) => stopWhat(b, args.what),
  }),
];
