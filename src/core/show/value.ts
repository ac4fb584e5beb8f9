/** What can be held or stored for a parameter. */
import { z } from "../units/zod";

const finite = z.number().finite();

/** Metres: no room is larger. */
const metres = finite.min(-100_000).max(100_000);
/** A point in the room, and whether it is taken the other way round. */
const AimSchema = z.object({ aim: z.tuple([metres, metres, metres]), flip: z.literal(true).optional() });
export type AimPoint = z.infer<typeof AimSchema>;

/** A number is in the attribute's own unit. A point resolves to one for each fixture. */
export const ValueSchema = z.union([finite, AimSchema, z.object({ release: z.literal(true) })]);
export type Value = z.infer<typeof ValueSchema>;

export const RELEASE: Value = { release: true };
export const isRelease = (value: Value): boolean => typeof value === "object" && "release" in value;
export const isAim = (value: Value): value is AimPoint => typeof value === "object" && "aim" in value;

const time = finite.min(0).max(86_400);
export const TimingSchema = z.object({ delay: time.optional(), fade: time.optional() });
export type Timing = z.infer<typeof TimingSchema>;

/** A held or stored value of one parameter. `attribute` tells which of the attributes on its channel. */
export const EntrySchema = z
  .object({
    attribute: z.string().min(1).max(60),
    value: ValueSchema,
    time: TimingSchema.optional(),
  })
  .refine(({ attribute, value }) => !isAim(value) || attribute === "Pan" || attribute === "Tilt", {
    path: ["value"],
    message: "only pan and tilt can be aimed at a point",
  });
export type Entry = z.infer<typeof EntrySchema>;

/** Whether a value is plainly an entry with a number: the quick way for the thousands of a drag. */
export function isPlainEntry(value: unknown): boolean {
  if (typeof value !== "object" || value === null) return false;
  const { attribute, value: number, time: own } = value as Partial<Entry>;
  return (
    own === undefined &&
    typeof number === "number" &&
    Number.isFinite(number) &&
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
