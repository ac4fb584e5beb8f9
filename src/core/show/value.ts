/** What can be held or stored for a parameter. */
import { namesIn } from "../units/names";
import { z } from "../units/zod";
import { isTypeId, TypeIdSchema } from "../fixture/type";
import { EffectSchema, isStop, STOP, type Effect } from "./effectSchema";
import { isParamKey, ParamKeySchema, type ParamKey } from "./ids";
import { LinkSchema, type Link } from "./link";

export type { Link } from "./link";
export { isStop, STOP, type Effect } from "./effectSchema";

const finite = z.number().finite();

/** Metres: no room is larger. */
const metres = finite.min(-100_000).max(100_000);
/** A point in the room, and whether it is taken the other way round. */
const AimSchema = z.object({ aim: z.tuple([metres, metres, metres]), flip: z.literal(true).optional() });
export type AimPoint = z.infer<typeof AimSchema>;

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

const PLACE = /^\d{1,3}\.\S{1,60}$/;
/** What stood in an entry's place before its fixture became another type: of which type, where ("0.Pan"), and what. */
const WasSchema = z.object({
  of: TypeIdSchema,
  place: z.string().regex(PLACE).optional(),
  attribute: z.string().min(1).max(60).optional(),
  value: ValueSchema.optional(),
  effect: EffectSchema.optional(),
});
/** Marks of a swap of types: in whose terms a silent entry is; and of one made from others, what it was. */
export const SWAPPED = { of: TypeIdSchema.optional(), was: WasSchema.optional() };

const time = finite.min(0).max(86_400);
export const TimingSchema = z.object({ delay: time.optional(), fade: time.optional() });
export type Timing = z.infer<typeof TimingSchema>;

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
    ...SWAPPED,
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

/**
 * An entry stored where there is one: an effect alone leaves the value that is there; a value alone leaves an
 * effect that moves around it, and ends any other.
 * @param around whether an effect moves around what lies underneath.
 */
export function storedOver(old: Entry | undefined, made: Entry, around: (effect: Effect) => boolean): Entry {
  if (!old || old.attribute !== made.attribute) return made;
  if (made.value === undefined && old.value !== undefined) return { ...made, value: old.value };
  if (made.effect === undefined && old.effect !== undefined)
    return { ...made, effect: around(old.effect) ? old.effect : STOP };
  return made;
}

/** An entry held where there is one: as it is stored, but what a value ends is let go of. */
export function heldOver(old: Entry | undefined, made: Entry, around: (effect: Effect) => boolean): Entry {
  const { effect, ...rest } = storedOver(old, made, around);
  return effect === undefined || (isStop(effect) && made.effect === undefined && old?.effect !== effect)
    ? rest
    : { ...rest, effect };
}

const LINK = /^[a-z]\d{1,15}$/;

const isPlainValue = (of: unknown): boolean =>
  typeof of === "number"
    ? Number.isFinite(of)
    : typeof of === "object" &&
      of !== null &&
      "palette" in of &&
      typeof of.palette === "string" &&
      LINK.test(of.palette);
const isPlainName = (name: unknown): boolean => typeof name === "string" && name.length > 0 && name.length <= 60;

/** Whether the mark of a swap of types is plainly one, of a number or a palette. */
function isPlainWas(was: unknown): boolean {
  if (typeof was !== "object" || was === null) return false;
  for (const name in was)
    if (name !== "of" && name !== "place" && name !== "attribute" && name !== "value") return false;
  const { of, place, attribute, value } = was as Partial<NonNullable<Entry["was"]>>;
  return (
    isTypeId(of) &&
    (place === undefined || (typeof place === "string" && PLACE.test(place))) &&
    (attribute === undefined || isPlainName(attribute)) &&
    (value === undefined || isPlainValue(value))
  );
}

/** Whether a value is plainly an entry with a number or a palette, swapped or not, and nothing else: the quick way for thousands of them. */
export function isPlainEntry(value: unknown): value is Entry {
  if (typeof value !== "object" || value === null) return false;
  for (const name in value)
    if (name !== "attribute" && name !== "value" && name !== "of" && name !== "was") return false;
  const { attribute, value: says, of, was } = value as Partial<Entry>;
  return (
    isPlainValue(says) &&
    isPlainName(attribute) &&
    (of === undefined || isTypeId(of)) &&
    (was === undefined || isPlainWas(was))
  );
}

/** Entries made by our own building, which nothing can change any more: what they do to the show is still asked of. */
const built = new WeakSet<object>();
export function asBuilt(entries: Record<ParamKey, Entry>): Readonly<Record<ParamKey, Entry>> {
  built.add(entries);
  return Object.freeze(entries);
}

const anyEntries = z.record(ParamKeySchema, EntrySchema);
/** Entries by their parameter; thousands of plain ones are looked at without their schema. */
export const EntriesSchema = z.unknown().transform((entries, context): Record<ParamKey, Entry> => {
  if (typeof entries === "object" && entries !== null) {
    if (built.has(entries)) return entries as Record<ParamKey, Entry>;
    let plain = true;
    for (const key of namesIn(entries))
      if (!isParamKey(key) || !isPlainEntry((entries as Record<string, unknown>)[key])) {
        plain = false;
        break;
      }
    if (plain && !Array.isArray(entries)) return entries as Record<ParamKey, Entry>;
  }
  const parsed = anyEntries.safeParse(entries);
  if (parsed.success) return parsed.data;
  for (const issue of parsed.error.issues) context.issues.push({ ...issue, input: entries } as never);
  return z.NEVER;
});

/** The same link or release, or numbers within 0.01 (SEMANTICS 9). */
export function sameValue(a: Entry, b: Entry): boolean {
  if (a.attribute !== b.attribute) return false;
  if (typeof a.value === "number" || typeof b.value === "number") {
    return typeof a.value === "number" && typeof b.value === "number" && Math.abs(a.value - b.value) <= 0.01;
  }
  return JSON.stringify(a.value) === JSON.stringify(b.value);
}
