/** Held values that take time to come or to go: `over S` (SEMANTICS 5). */
import type { StageTime } from "../../units/units";

export const HERE = 0;
export const COMES = 1;
export const GOES = 2;

/** For each parameter whether its held value comes, goes or is simply there. */
export interface Reach {
  way: Uint8Array;
  /** What it comes from: value and function. */
  from: Float64Array;
  fromFn: Uint8Array;
  /** Stage time it began at, and how long it takes, seconds. */
  at: Float64Array;
  seconds: Float64Array;
}

/** Everything simply there. @param params how many parameters there are. */
export const createReach = (params: number): Reach => ({
  way: new Uint8Array(params),
  from: new Float64Array(params),
  fromFn: new Uint8Array(params),
  at: new Float64Array(params),
  seconds: new Float64Array(params),
});

/** Begins a way of a parameter's held value, from what it shows now. */
export function beginReach(
  reach: Reach,
  param: number,
  way: typeof COMES | typeof GOES,
  now: { value: number; fn: number; time: StageTime },
  seconds: number,
): void {
  reach.way[param] = way;
  reach.from[param] = now.value;
  reach.fromFn[param] = now.fn;
  reach.at[param] = now.time;
  reach.seconds[param] = seconds;
}

/** How far a way is, 0..1. */
export function reached({ at, seconds }: Reach, param: number, now: number): number {
  const length = seconds[param]!;
  return length <= 0 ? 1 : Math.min(1, Math.max(0, (now - at[param]!) / length));
}
