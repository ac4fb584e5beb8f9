/** Branded numbers, so that seconds, slots and sequence numbers cannot be swapped by accident. */
declare const brand: unique symbol;
type Branded<B extends string> = number & { readonly [brand]: B };

/** Seconds on the stage's clock, a 64-bit float. */
export type StageTime = Branded<"stage s">;
/** Seconds on a list's own clock, which can be held and run at another rate: never to be mixed with stage time. */
export type ListTime = Branded<"list s">;
/** The number of a playing event; later events have larger ones. Never a time. */
export type Sequence = Branded<"sequence">;

/** Seconds as time of the stage. */
export const stageTime = (seconds: number): StageTime => seconds as StageTime;
/** Seconds as time of a list's own clock. */
export const listTime = (seconds: number): ListTime => seconds as ListTime;
/** A number as an event's place in the order of all events. */
export const sequence = (value: number): Sequence => value as Sequence;

/** Times closer than a microsecond are the same time (SEMANTICS 6). */
export const SAME_TIME = 1e-6;

/** Rounds half up after adding 1e-9, so that binary noise never decides (SEMANTICS 9). */
export const roundHalfUp = (value: number): number => Math.floor(value + 0.5 + 1e-9);

/** A number within a range, its ends included. */
export const clamp = (value: number, low: number, high: number): number =>
  value < low ? low : value > high ? high : value;

/** A number as a person would write it: at most `places` decimals, none that say nothing. */
export function plain(value: number, places = 2): string {
  const rounded = Number(value.toFixed(places));
  return String(Object.is(rounded, -0) ? 0 : rounded);
}
