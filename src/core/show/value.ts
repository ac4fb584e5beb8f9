/** What can be held or stored for a parameter. */
import { z } from "../units/zod";
import { IdSchema } from "./ids";

const finite = z.number().finite();

/** A number is in the attribute's own unit. The other forms resolve to one for each fixture. */
export const ValueSchema = z.union([
  finite,
  z.object({ palette: IdSchema }),
  z.object({ aim: z.tuple([finite, finite, finite]) }),
  z.object({ colour: z.object({ x: finite, y: finite, Y: finite }) }),
  z.object({ release: z.literal(true) }),
]);
export type Value = z.infer<typeof ValueSchema>;

export const RELEASE: Value = { release: true };
export const isRelease = (value: Value): boolean => typeof value === "object" && "release" in value;

const time = finite.min(0).max(86_400);
export const TimingSchema = z.object({ delay: time.optional(), fade: time.optional() });
export type Timing = z.infer<typeof TimingSchema>;

/** A held or stored value of one parameter. `attribute` tells which of the attributes on its channel. */
export const EntrySchema = z.object({
  attribute: z.string().min(1).max(60),
  value: ValueSchema,
  time: TimingSchema.optional(),
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
