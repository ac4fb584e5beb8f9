/** Spread: the place of each of n ordered items (SEMANTICS 2). */
import type { Spread } from "../show/hands";

export interface Places {
  /** The step g of each item. */
  step: readonly number[];
  /** How many steps there are: G. */
  count: number;
}

/** The step of each of so many places, and how many steps there are. @param size how many places, from 0. */
export function stepsOf(
  size: number,
  spread: Pick<Spread, "mirror" | "bunch" | "repeat">,
): { step: (k: number) => number; count: number } {
  const segments = Math.min(spread.mirror, Math.max(size, 1));
  const base = Math.floor(size / segments);
  const longer = size % segments;
  const longest = base + (longer > 0 ? 1 : 0);
  const count = Math.ceil(longest / spread.bunch);
  const steps = spread.repeat > 0 ? Math.min(count, spread.repeat) : count;
  const step = (k: number): number => {
    const inLonger = k < longer * (base + 1);
    const segment = inLonger ? Math.floor(k / (base + 1)) : longer + Math.floor((k - longer * (base + 1)) / base);
    const length = segment < longer ? base + 1 : base;
    const start = segment < longer ? segment * (base + 1) : longer * (base + 1) + (segment - longer) * base;
    const place = segment % 2 === 1 ? length - 1 - (k - start) : k - start;
    const made = Math.floor(place / spread.bunch);
    return spread.repeat > 0 ? made % spread.repeat : made;
  };
  return { step, count: steps };
}

/** How many different places there are among classes. */
export const sizeOf = (classes: readonly number[]): number => classes.reduce((max, c) => Math.max(max, c + 1), 0);

/**
 * Steps of n items.
 * @param classes for each item the index of the place it shares (0..), by default its own index; from `placesBy`.
 */
export function placesOf(
  n: number,
  spread: Pick<Spread, "mirror" | "bunch" | "repeat">,
  classes?: readonly number[],
): Places {
  const { step, count } = stepsOf(classes ? sizeOf(classes) : n, spread);
  return { step: Array.from({ length: n }, (_, k) => step(classes ? classes[k]! : k)), count };
}

/** Closed place t = g / (G - 1), 0 when there is one step: both ends are hit. */
export const closedPlace = (step: number, count: number): number => (count > 1 ? step / (count - 1) : 0);

/** Cyclic place c = g / G: the ring has no doubled point. */
export const cyclicPlace = (step: number, count: number): number => (count > 0 ? step / count : 0);

/** `a to b to c` at closed place t: piecewise linear over equal parts. */
export function alongStops(stops: readonly number[], t: number): number {
  if (stops.length === 1) return stops[0]!;
  const scaled = t * (stops.length - 1);
  const part = Math.min(Math.floor(scaled), stops.length - 2);
  return stops[part]! + (stops[part + 1]! - stops[part]!) * (scaled - part);
}
