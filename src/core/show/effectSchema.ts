/** Effects: voices, each a wave on one attribute or stops of one family, run by items along a cycle (SEMANTICS 7). */
import { z } from "../units/zod";
import { FAMILIES } from "../fixture/attribute";
import { IdSchema, ItemSchema } from "./ids";
import { LinkSchema } from "./link";
import { SpreadSchema } from "./spreadSchema";

const finite = z.number().finite();
const percent = finite.min(0).max(100);
const number = z.number().int().min(1).max(999_999);
/** No value in any unit is larger. */
const amount = finite.min(-1_000_000).max(1_000_000);

/** The waves there are; points that were drawn are waves of their own. */
export const WAVES = ["sine", "triangle", "rampup", "rampdown", "square", "pulse", "random"] as const;
export type WaveName = (typeof WAVES)[number];
/** How one value goes over into the next. */
export const CURVES = ["snap", "linear", "smooth"] as const;
export type Curve = (typeof CURVES)[number];
export const JOINS = ["stepped", "linear", "smooth"] as const;

/** Points of a wave in the order of their places: place in the cycle and height, percent each. */
const PointsSchema = z
  .array(z.tuple([percent, percent]))
  .min(1)
  .max(500);
export const DrawnSchema = z.object({ points: PointsSchema, join: z.enum(JOINS) });
export type Drawn = z.infer<typeof DrawnSchema>;

/** A wave of the show's own: one track, or two that drive two voices. */
export const OwnWaveSchema = z.object({
  id: IdSchema,
  number,
  name: z.string().min(1).max(200),
  points: PointsSchema,
  join: z.enum(JOINS),
  second: PointsSchema.optional(),
});
export type OwnWave = z.infer<typeof OwnWaveSchema>;

/** How a voice's items lie along the cycle and how it is run through. */
const PHASING = {
  bpm: finite.min(0).max(6000),
  /** Degrees over all items. */
  across: finite.min(0).max(36_000),
  /** Degrees. */
  start: finite.min(-36_000).max(36_000),
  /** The share of the cycle that it takes, percent. */
  width: percent.min(1),
  direction: z.enum(["forward", "backward", "bounce"]),
  spread: SpreadSchema,
};
export const PhasingSchema = z.object(PHASING);
export type Phasing = z.infer<typeof PhasingSchema>;

const EndSchema = z.union([amount, LinkSchema]);
/** An end of a wave: a number in the attribute's unit, or a palette. */
export type End = z.infer<typeof EndSchema>;

const WaveVoiceSchema = z.object({
  attribute: z.string().min(1).max(60),
  wave: z.union([
    z.enum(WAVES),
    z.object({ own: IdSchema, track: z.union([z.literal(1), z.literal(2)]) }),
    z.object({ drawn: DrawnSchema }),
  ]),
  /** From low to high; or around what lies underneath. */
  range: z.union([z.object({ low: EndSchema, high: EndSchema }), z.object({ centre: amount, size: amount })]),
  ...PHASING,
});
export type WaveVoice = z.infer<typeof WaveVoiceSchema>;
export type Shape = WaveVoice["wave"];

/** A stop of a family: a number (of one attribute), a palette, or a colour by the type's own primaries. */
export const StopSchema = z.object({
  value: z.union([amount, LinkSchema, z.object({ colour: z.string().regex(/^#[0-9a-f]{6}$/) })]),
  /** The share of its part spent before its curve, percent: all of it for snap, none for the others where it is not given. */
  hold: percent.optional(),
  curve: z.enum(CURVES),
});
export type Stop = z.infer<typeof StopSchema>;

const StopsVoiceSchema = z.object({
  of: z.union([z.object({ family: z.enum(FAMILIES) }), z.object({ attribute: z.string().min(1).max(60) })]),
  stops: z.array(StopSchema).min(2).max(64),
  ...PHASING,
});
export type StopsVoice = z.infer<typeof StopsVoiceSchema>;

export const VoiceSchema = z.union([WaveVoiceSchema, StopsVoiceSchema]);
export type Voice = z.infer<typeof VoiceSchema>;

/** A voice without how it runs. */
export type Driving = Omit<WaveVoice, keyof Phasing> | Omit<StopsVoice, keyof Phasing>;

/** Whether a voice runs through stops. */
export const hasStops = (voice: Voice): voice is StopsVoice => "stops" in voice;
/** Whether a voice moves around what lies underneath. */
export const isAround = (voice: Voice): boolean => !hasStops(voice) && "size" in voice.range;

/** The most voices of one effect. */
export const MOST_VOICES = 32;

export const EffectRecordSchema = z.object({
  id: IdSchema,
  number,
  name: z.string().max(200),
  colour: z
    .string()
    .regex(/^#[0-9a-f]{6}$/)
    .optional(),
  /** Percent of its voices' speed. */
  rate: finite.min(0).max(1000),
  /** Cast: the items it keeps, in their order; null where it takes the selection. */
  cast: z.array(ItemSchema).max(20_000).nullable(),
  /** By a key that is never given out twice. */
  voices: z
    .array(
      z.object({
        key: number,
        voice: VoiceSchema,
        /** Of a cast effect: those of its items that held this voice, where not all of them did. */
        items: z.array(ItemSchema).max(20_000).optional(),
        /** It is silent wherever the effect runs. */
        muted: z.literal(true).optional(),
      }),
    )
    .max(MOST_VOICES),
});
export type EffectRecord = z.infer<typeof EffectRecordSchema>;

/** An item's turn among those an effect runs over: its place, counting shared ones once, of so many. */
const TURN = { at: z.number().int().min(0).max(20_000), of: z.number().int().min(1).max(20_000) };
const PlaysSchema = z.object({ plays: VoiceSchema, ...TURN });
const FromSchema = z.object({ from: IdSchema, voice: number, ...TURN });

/** What a parameter runs: a voice of its own, or one of an effect of the show; or the stop of one. */
export const EffectSchema = z.union([PlaysSchema, FromSchema, z.object({ stop: z.literal(true) })]);
export type Effect = z.infer<typeof EffectSchema>;

export const STOP: Effect = { stop: true };
/** Whether an effect is the stop of one. */
export const isStop = (effect: Effect): effect is { stop: true } => "stop" in effect;
/** Whether an effect is of one that the show keeps. */
export const isFrom = (effect: Effect): effect is z.infer<typeof FromSchema> => "from" in effect;

/** The palettes a voice names itself. */
export function linksOfVoice(voice: Voice): string[] {
  const values: (Stop["value"] | undefined)[] = hasStops(voice)
    ? voice.stops.map((s) => s.value)
    : "low" in voice.range
      ? [voice.range.low, voice.range.high]
      : [];
  return values.flatMap((v) => (typeof v === "object" && "palette" in v ? [v.palette] : []));
}

/** The numbers that a voice of an entry's own runs between, in the unit of its attribute. */
export function numbersOf(effect: Effect | undefined): number[] {
  if (effect === undefined || isStop(effect) || isFrom(effect)) return [];
  const { plays } = effect;
  const values = hasStops(plays)
    ? plays.stops.map((s) => s.value)
    : "low" in plays.range
      ? [plays.range.low, plays.range.high]
      : [];
  return values.filter((v) => typeof v === "number");
}
