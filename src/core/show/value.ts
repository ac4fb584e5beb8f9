/** What can be held or stored for a parameter. */
import { z } from "../units/zod";
import { IdSchema } from "./ids";

const finite = z.number().finite();

/** Metres: no room is larger. */
const metres = finite.min(-100_000).max(100_000);
/** A point in the room, and whether it is taken the other way round. */
const AimSchema = z.object({ aim: z.tuple([metres, metres, metres]), flip: z.literal(true).optional() });
export type AimPoint = z.infer<typeof AimSchema>;

/** A palette: what it says for the parameter, now and whenever it is changed. */
const LinkSchema = z.object({ palette: IdSchema });
export type Link = z.infer<typeof LinkSchema>;

/** A number is in the attribute's own unit. A point, and a palette, resolve to one for each fixture. */
export const ValueSchema = z.union([finite, AimSchema, LinkSchema, z.object({ release: z.literal(true) })]);
export type Value = z.infer<typeof ValueSchema>;

export const RELEASE: Value = { release: true };
/** Whether a value is a release. */
export const isRelease = (value: Value): boolean => typeof value === "object" && "release" in value;
/** Whether a value is what a palette says. */
export const isLink = (value: Value): value is Link => typeof value === "object" && "palette" in value;
/** Whether a value is a point in the room. */
export const isAim = (value: Value): value is AimPoint => typeof value === "object" && "aim" in value;

const time = finite.min(0).max(86_400);
export const TimingSchema = z.object({ delay: time.optional(), fade: time.optional() });
export type Timing = z.infer<typeof TimingSchema>;

const percent = finite.min(0).max(100);
export const WAVES = ["sine", "triangle", "rampup", "rampdown", "square", "pulse"] as const;
/** A wave on one attribute, from low to high, for one item of those it runs over. */
const WaveSchema = z.object({
  wave: z.enum(WAVES),
  low: ValueSchema,
  high: ValueSchema,
  bpm: finite.min(0).max(6000),
  across: finite.min(0).max(36_000),
  start: finite.min(0).max(360),
  width: percent.min(1),
  direction: z.enum(["forward", "backward", "bounce"]),
  /** The item's cyclic place. */
  place: finite.min(0).lt(1),
});
export type Wave = z.infer<typeof WaveSchema>;
/** An effect that starts, or the stop of one. */
export const EffectSchema = z.union([WaveSchema, z.object({ stop: z.literal(true) })]);
export type Effect = z.infer<typeof EffectSchema>;
/** Whether an effect is the stop of one. */
export const isStop = (effect: Effect): effect is { stop: true } => "stop" in effect;

/**
 * What is held or stored for one parameter: a value, an effect or both, which track each on its own, and
 * timing for them. `attribute` tells which of the attributes on its channel.
 */
export const EntrySchema = z
  .object({
    attribute: z.string().min(1).max(60),
    value: ValueSchema.optional(),
    effect: EffectSchema.optional(),
    time: TimingSchema.optional(),
  })
  .refine(({ value, effect }) => value !== undefined || effect !== undefined, {
    message: "it says neither a value nor an effect",
  })
  .refine(
    ({ attribute, value }) =>
      value === undefined || typeof value === "number" || !isAim(value) || attribute === "Pan" || attribute === "Tilt",
    { path: ["value"], message: "only pan and tilt can be aimed at a point" },
  );
export type Entry = z.infer<typeof EntrySchema>;

/** The columns of what a cue says of a parameter that track, each on its own. */
export const COLUMNS = ["value", "effect"] as const;
export type ColumnName = (typeof COLUMNS)[number];

/** Whether an entry ends what tracks in a column: a release, or a stop. */
export const ends = ({ value, effect }: Entry, column: ColumnName): boolean =>
  column === "value" ? value !== undefined && isRelease(value) : effect !== undefined && isStop(effect);

/** An entry stored where there is one: an effect alone leaves the value that is there. */
export const storedOver = (old: Entry | undefined, made: Entry): Entry =>
  made.value === undefined && old?.value !== undefined && old.attribute === made.attribute
    ? { ...made, value: old.value }
    : made;

const LINK = /^[a-z]\d{1,15}$/;

/** Whether a value is plainly an entry with a number or a palette: the quick way for the thousands of a drag. */
export function isPlainEntry(value: unknown): boolean {
  if (typeof value !== "object" || value === null) return false;
  const { attribute, value: of, effect, time: own } = value as Partial<Entry>;
  const known =
    typeof of === "number"
      ? Number.isFinite(of)
      : typeof of === "object" && "palette" in of && typeof of.palette === "string" && LINK.test(of.palette);
  return (
    own === undefined &&
    effect === undefined &&
    known &&
    typeof attribute === "string" &&
    attribute.length > 0 &&
    attribute.length <= 60
  );
}

/** The same link or release, or numbers within 0.01 (SEMANTICS 9). */
export function sameValue(a: Entry, b: Entry): boolean {
  if (a.attribute !== b.attribute) return false;
  if (typeof a.value === "number" || typeof b.value === "number") {
    return typeof a.value === "number" && typeof b.value === "number" && Math.abs(a.value - b.value) <= 0.01;
  }
  return JSON.stringify(a.value) === JSON.stringify(b.value);
}
