/** The arrays of stacked parameters. */
import { grown } from "./grown";

/** The timing of what stands still. */
export const STILL = 0;

export interface Timing {
  list: number;
  at: number;
  delay: number;
  fade: number;
  end: number;
  share: number;
}

/** Stacks of one depth: `depth` layers for each parameter, lowest first. */
export interface Bucket {
  depth: number;
  /**
   * Every layer in it gives a value that stands still, its level counted in, and mixes in from nothing to
   * whole; masters leave all of it, so that values before them (`copyRaw`) are those after.
   */
  mixesIn: boolean;
  count: number;
  /** Whether `source` of the topmost that counts is told of every parameter: so once all have begun. */
  told: boolean;
  /** How the bytes of all of them are made where all are plain channels alike; undefined until looked at. */
  alike: { base: number; scale: number } | false | undefined;
  param: Int32Array;
  base: Float64Array;
  baseSource: Int32Array;
  /** What masters leave. */
  scale: Float64Array;
  from: Float64Array;
  by: Float64Array;
  level: Float64Array;
  weightFrom: Float64Array;
  weightBy: Float64Array;
  own: Int32Array;
  weight: Int32Array;
  source: Int32Array;
}

export interface Stacks {
  timings: Timing[];
  index: Map<string, number>;
  /** The timing found last. */
  last: number;
  buckets: Bucket[];
  /** For each parameter its bucket's index + 1 and its place there. */
  bucket: Uint8Array;
  place: Int32Array;
}

const PER_PARAM = { param: Int32Array, base: Float64Array, baseSource: Int32Array, scale: Float64Array } as const;
const PER_LAYER = {
  from: Float64Array,
  by: Float64Array,
  level: Float64Array,
  weightFrom: Float64Array,
  weightBy: Float64Array,
  own: Int32Array,
  weight: Int32Array,
  source: Int32Array,
} as const;
const ofParam = Object.keys(PER_PARAM) as (keyof typeof PER_PARAM)[];
const ofLayer = Object.keys(PER_LAYER) as (keyof typeof PER_LAYER)[];

const stillTiming = (): Timing => ({ list: 0, at: 0, delay: 0, fade: 0, end: Infinity, share: 0 });

/** An empty store of stacks: parameters on which several things move at once. @param params how many parameters there are. */
export function createStacks(params: number): Stacks {
  return {
    timings: [stillTiming()],
    index: new Map(),
    last: -1,
    buckets: [],
    bucket: new Uint8Array(params),
    place: new Int32Array(params),
  };
}

/** Whether any stack still moves. */
export function stacksMove({ buckets }: Stacks): boolean {
  // Asked in every tick: without a closure nothing is allocated.
  for (let i = 0; i < buckets.length; i++) if (buckets[i]!.count > 0) return true;
  return false;
}

/** The place of the bucket of stacks of that many layers, made where there is none. */
export function bucketOf(stacks: Stacks, depth: number, mixesIn: boolean): number {
  const found = stacks.buckets.findIndex((b) => b.depth === depth && b.mixesIn === mixesIn);
  if (found >= 0) return found;
  const made = { depth, mixesIn, count: 0, told: false, alike: undefined } as Bucket;
  for (const name of ofParam) made[name] = new PER_PARAM[name](64) as never;
  for (const name of ofLayer) made[name] = new PER_LAYER[name](64 * depth) as never;
  return stacks.buckets.push(made) - 1;
}

/** Makes room for one stack more. */
export function growBucket(b: Bucket): void {
  for (const name of [...ofParam, ...ofLayer]) b[name] = grown(b[name]) as never;
}

/** The place of a timing of moves that run alike: list, start, delay, fade and end, in the list's seconds. */
export function timingOf(stacks: Stacks, list: number, at: number, delay: number, fade: number, end: number): number {
  const recent = stacks.timings[stacks.last];
  if (
    recent &&
    stacks.last !== STILL &&
    recent.list === list &&
    recent.at === at &&
    recent.delay === delay &&
    recent.fade === fade
  )
    return stacks.last;
  const key = `${list} ${at} ${delay} ${fade}`;
  const known = stacks.index.get(key);
  if (known !== undefined) return (stacks.last = known);
  const made = stacks.timings.push({ list, at, delay, fade, end, share: -1 }) - 1;
  stacks.index.set(key, made);
  return (stacks.last = made);
}

/** Takes a parameter out of its stack. */
export function endStack(stacks: Stacks, param: number): void {
  const b = stacks.buckets[stacks.bucket[param]! - 1]!;
  const hole = stacks.place[param]!;
  const last = --b.count;
  stacks.bucket[param] = 0;
  b.told = false;
  b.alike = undefined;
  if (hole === last) return;
  for (const name of ofParam) b[name][hole] = b[name][last]!;
  for (const name of ofLayer) b[name].copyWithin(hole * b.depth, last * b.depth, (last + 1) * b.depth);
  stacks.place[b.param[hole]!] = hole;
}
