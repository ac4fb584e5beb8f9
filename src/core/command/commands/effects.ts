/** Effects and waves, in the command language. */
import {
  deleteEffect,
  dropVoice,
  muteVoices,
  recordEffect,
  setEffect,
  setVoice,
  updateEffect,
} from "../../effect/intents";
import { deleteWave, recordWave } from "../../effect/waveIntents";
import { PLAIN_PHASING } from "../../effect/words";
import { select } from "../../select/intents";
import { hasStops, type Driving, type EffectRecord, type Voice } from "../../show/effectSchema";
import { fail } from "../../show/refusal";
import { NO_SPREAD } from "../../show/spreadSchema";
import { effectNumbered, wavesByNumber } from "../../show/world";
import { builtIntents, newBuilding } from "../building";
import { command, intents, itemsOf, type Command } from "../command";
import type { ReadContext } from "../context";
import {
  effectCalled,
  endOf,
  holdEffect,
  PHASING_SYNTAX,
  phasingOf,
  rangeAmong,
  shapeOf,
  stopsOf,
  stopsOfWhat,
  type PhasingTyped,
} from "../voices";

const chapter = "Keeping";

const effectOf = (number: number, { world }: ReadContext): EffectRecord =>
  effectNumbered(world.show, number) ??
  fail(`there is no effect ${number}`, "Record it first, or choose one from the shelf");

/** The voice at a place from 1; undefined for a new one. */
function placeOf(
  effect: EffectRecord,
  { place }: { place?: number | undefined },
): EffectRecord["voices"][number] | undefined {
  if (place === undefined) return undefined;
  return (
    effect.voices[place - 1] ??
    fail(
      `effect ${effect.number} has no voice ${place}`,
      `It has ${effect.voices.length === 1 ? "one" : `1 to ${effect.voices.length}`}`,
    )
  );
}

/** What the ends full and out mean for an effect: the fixtures it is cast on, or else all. */
const among = (effect: EffectRecord, { world: { show } }: ReadContext, attribute: string): [number, number] =>
  rangeAmong(
    { items: effect.cast ?? Object.keys(show.fixtures), context: { world: { show } } as ReadContext },
    attribute,
  );

const putVoice = (
  effect: EffectRecord,
  at: EffectRecord["voices"][number] | undefined,
  made: Driving,
  args: PhasingTyped,
) => {
  const spread = at?.voice.spread ?? NO_SPREAD;
  const voice = { ...PLAIN_PHASING, spread, ...phasingOf(args), ...made };
  return intents(setVoice.of({ effect: effect.id, ...(at ? { key: at.key } : {}), voice }));
};

/** A voice with the settings that were typed; undefined where none of them is its own. */
interface Changed {
  low?: Parameters<typeof endOf>[1] | undefined;
  high?: Parameters<typeof endOf>[1] | undefined;
  centre?: number | undefined;
  size?: number | undefined;
}

function changedRange(
  effect: EffectRecord,
  voice: Extract<Voice, { range: unknown }>,
  { low, high, centre, size }: Changed,
  context: ReadContext,
): Extract<Voice, { range: unknown }>["range"] {
  const { range } = voice;
  const { show } = context.world;
  if (centre !== undefined || size !== undefined) {
    const was = "size" in range ? range : { centre: 0, size: 10 };
    return { centre: centre ?? was.centre, size: size ?? was.size };
  }
  if (low === undefined && high === undefined) return range;
  const ends = among(effect, context, voice.attribute);
  const was = "low" in range ? range : { low: ends[0], high: ends[1] };
  return {
    low: low === undefined ? was.low : endOf(show, low, ends),
    high: high === undefined ? was.high : endOf(show, high, ends),
  };
}

export const EFFECTS: Command[] = [
  command({
    chapter: "Holding values",
    syntax: "effect <ref:effectRef> [over <time:seconds>]",
    about: "an effect of the show: a cast one on the fixtures it keeps, an open one on the selection",
    example: "effect 4",
    read(args, context) {
      const id = effectCalled(context.world.show, args.ref);
      const { cast } = context.world.show.effects[id]!;
      const items = cast ?? itemsOf({}, context);
      const building = newBuilding(items, context);
      holdEffect(building, id, items);
      if (args.time !== undefined) building.over = args.time;
      return intents(...(cast ? [select.of({ items })] : []), ...builtIntents(building, cast !== null));
    },
  }),
  command({
    chapter,
    syntax: "record effect <number:effect> [<name:text>] [cast | open] [merge | overwrite]",
    about: "the effects that are held, as one: cast keeps its fixtures, open takes the selection",
    example: 'record effect 30 "Slow swell"',
    read: (args) =>
      intents(
        recordEffect.of({
          number: args.number,
          ...(args.name === undefined ? {} : { name: args.name }),
          ...(args.cast ? { cast: true } : args.open ? { cast: false } : {}),
          ...(args.overwrite ? { overwrite: true } : {}),
        }),
      ),
  }),
  command({
    chapter,
    syntax: "update effect <number:effect>",
    about: "write the voices that are held into it",
    example: "update effect 3",
    read: (args, context) => intents(updateEffect.of({ effect: effectOf(args.number, context).id })),
  }),
  command({
    chapter,
    syntax: "delete effect <number:effect>",
    about: "delete it; users keep its voices",
    example: "delete effect 3",
    read: (args, context) => intents(deleteEffect.of({ effect: effectOf(args.number, context).id })),
  }),
  command({
    chapter,
    syntax: "set effect <number:effect> name <label:text>",
    about: "name an effect",
    example: 'set effect 3 name "Undertow"',
    read: (args, context) => intents(setEffect.of({ effect: effectOf(args.number, context).id, name: args.label })),
  }),
  command({
    chapter,
    syntax: "set effect <of:effect> number <next:effect>",
    about: "another number; everything that uses it follows",
    example: "set effect 3 number 303",
    read: (args, context) => intents(setEffect.of({ effect: effectOf(args.of, context).id, number: args.next })),
  }),
  command({
    chapter,
    syntax: "set effect <number:effect> colour (<hex:colours> | off)",
    about: "the colour of its tag",
    example: "set effect 3 colour #ffb07a",
    read: (args, context) =>
      intents(setEffect.of({ effect: effectOf(args.number, context).id, colour: args.hex?.[0] ?? null })),
  }),
  command({
    chapter,
    syntax: "set effect <number:effect> rate <amount:rate>",
    about: "how fast all its voices run, percent of their own speed",
    example: "set effect 3 rate 50",
    read: (args, context) => intents(setEffect.of({ effect: effectOf(args.number, context).id, rate: args.amount })),
  }),
  command({
    chapter,
    syntax: "set effect <number:effect> cast [<sel>]",
    about: "keeps these fixtures, or those selected now, in their order",
    example: "set effect 3 cast 21 thru 36",
    read: (args, context) =>
      intents(setEffect.of({ effect: effectOf(args.number, context).id, cast: itemsOf(args, context) })),
  }),
  command({
    chapter,
    syntax: "set effect <number:effect> open",
    about: "takes the selection",
    example: "set effect 3 open",
    read: (args, context) => intents(setEffect.of({ effect: effectOf(args.number, context).id, cast: null })),
  }),
  command({
    chapter,
    syntax: `set effect <number:effect> [voice <place:whole>] [wave <shape:waveRef>] [low <low:end>] [high <high:end>] [centre <centre:number>] [size <size:number>] [stops <stops:stops>] [spread] [mirror <mirror:parts>] [bunch <bunch:parts>] [repeat <repeat:parts>] [by <by>] ${PHASING_SYNTAX}`,
    about: "settings of a voice, or of all voices that have them; whoever runs it goes on without a jump",
    example: "set effect 3 voice 1 bpm 20 across 180",
    read(args, context) {
      const { show } = context.world;
      const effect = effectOf(args.number, context);
      const one = placeOf(effect, args);
      const phasing = phasingOf(args);
      const made = (one ? [one] : effect.voices).map(({ key, voice }) => {
        const was = args.spread ? NO_SPREAD : voice.spread;
        const spread = {
          ...was,
          ...(args.mirror === undefined ? {} : { mirror: Math.max(1, args.mirror) }),
          ...(args.bunch === undefined ? {} : { bunch: Math.max(1, args.bunch) }),
          ...(args.repeat === undefined ? {} : { repeat: args.repeat }),
          ...(args.by ? { by: args.by } : {}),
        };
        const run = { ...voice, ...phasing, spread };
        if (hasStops(run)) {
          const attribute = "attribute" in run.of ? run.of.attribute : undefined;
          const stops =
            args.stops && stopsOf(show, args.stops, attribute ? among(effect, context, attribute) : [0, 100]);
          return { key, voice: stops ? { ...run, stops } : run };
        }
        const wave = args.shape === undefined ? run.wave : shapeOf(show, args.shape, false);
        return { key, voice: { ...run, wave, range: changedRange(effect, run, args, context) } };
      });
      const changed = made.filter(
        ({ key, voice }) => JSON.stringify(voice) !== JSON.stringify(effect.voices.find((v) => v.key === key)!.voice),
      );
      if (changed.length === 0 && Object.keys(args).length <= (one ? 2 : 1))
        fail("say what is to be set", "Such as: set effect 3 bpm 20");
      return intents(...changed.map(({ key, voice }) => setVoice.of({ effect: effect.id, key, voice })));
    },
  }),
  command({
    chapter,
    syntax: `set effect <number:effect> voice (new | <place:whole>) <attr> wave <shape:waveRef> [second] (low <low:end> high <high:end> | relative [centre <centre:number>] size <size:number>) ${PHASING_SYNTAX}`,
    about: "a wave in place of a voice, or one more",
    example: "set effect 3 voice new tilt wave sine relative size 10 start 90",
    read(args, context) {
      const { show } = context.world;
      const effect = effectOf(args.number, context);
      const ends = among(effect, context, args.attr);
      const range =
        args.size !== undefined
          ? { centre: args.centre ?? 0, size: args.size }
          : { low: endOf(show, args.low ?? "out", ends), high: endOf(show, args.high ?? "full", ends) };
      const wave = shapeOf(show, args.shape, args.second === true);
      return putVoice(effect, placeOf(effect, args), { attribute: args.attr, wave, range }, args);
    },
  }),
  command({
    chapter,
    syntax: `set effect <number:effect> voice (new | <place:whole>) <what> stops <stops:stops> ${PHASING_SYNTAX}`,
    about: "stops in place of a voice, or one more",
    example: "set effect 3 voice new colour stops #2ad1c9 #ff8800",
    read(args, context) {
      const effect = effectOf(args.number, context);
      const { what } = args;
      const range: [number, number] = "attribute" in what ? among(effect, context, what.attribute) : [0, 100];
      const stops = stopsOf(context.world.show, args.stops, range);
      return putVoice(effect, placeOf(effect, args), { of: stopsOfWhat(what, stops), stops }, args);
    },
  }),
  command({
    chapter,
    syntax: "set effect <number:effect> mute (off | <places:steps>)",
    about: "these voices are silent wherever it runs; off: all are heard",
    example: "set effect 4 mute 2",
    read(args, context) {
      const effect = effectOf(args.number, context);
      return intents(
        muteVoices.of({
          effect: effect.id,
          keys: (args.places ?? []).map((place) => placeOf(effect, { place })!.key),
        }),
      );
    },
  }),
  command({
    chapter,
    syntax: "set effect <number:effect> voice <place:whole> off",
    about: "takes a voice out; what ran it ends",
    example: "set effect 4 voice 2 off",
    read(args, context) {
      const effect = effectOf(args.number, context);
      return intents(dropVoice.of({ effect: effect.id, key: placeOf(effect, args)!.key }));
    },
  }),
  command({
    chapter,
    syntax: "record wave <name:text> points <points:points> [stepped | linear | smooth] [second <others:points>]",
    about:
      "a wave of the show's own: places in the cycle and heights, percent each; a second track drives the next voice",
    example: 'record wave "Limp" points 0 0, 20 100, 60 30, 100 0 smooth',
    read: (args) =>
      intents(
        recordWave.of({
          name: args.name,
          points: args.points,
          join: args.stepped ? "stepped" : args.smooth ? "smooth" : "linear",
          ...(args.others ? { second: args.others } : {}),
        }),
      ),
  }),
  command({
    chapter,
    syntax: "delete wave <name:text>",
    about: "delete it; what runs it keeps its points",
    example: 'delete wave "Heave"',
    read(args, context) {
      const found = wavesByNumber(context.world.show).find((w) => w.name.toLowerCase() === args.name.toLowerCase());
      return intents(deleteWave.of({ wave: (found ?? fail(`there is no wave "${args.name}"`)).id }));
    },
  }),
];
