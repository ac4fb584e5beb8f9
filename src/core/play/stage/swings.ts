/** The arrays of swinging parameters: those of which nothing moves but one effect that is all there. */
import { between, standBetween } from "../../effect/stops";
import { drawnAt, noiseAt, smooth, waveAt, within } from "../../effect/wave";
import type { Playing } from "./playing";
import { grown } from "./grown";

/** Parameters whose effects run alike: of one list, from one start, by one shape. */
export interface Swing {
  list: number;
  from: number;
  cycles: number;
  speed: number;
  /** What they have in common; where stops, of how many. */
  like: Playing;
  count: number;
  /** The cycles last shown, in an array so that a tick boxes no number. */
  last: Float64Array;
  param: Int32Array;
  /** Byte offset of a plain channel; -1: more is to be done; -2: nothing goes out. */
  to: Int32Array;
  offset: Float64Array;
  seed: Uint32Array;
  low: Float64Array;
  span: Float64Array;
  min: Float64Array;
  max: Float64Array;
  /** What the level and masters leave. */
  level: Float64Array;
  scale: Float64Array;
  height: Float64Array;
  /** Of stops: their values, so many for each. */
  values: Float64Array;
}

export interface Swings {
  groups: Swing[];
  index: Map<string, number>;
  /** For each parameter its group + 1, and its place there. */
  group: Int32Array;
  place: Int32Array;
}

/** @param n how many parameters there are. */
export const createSwings = (n: number): Swings => ({
  groups: [],
  index: new Map(),
  group: new Int32Array(n),
  place: new Int32Array(n),
});

const FIELDS = {
  param: Int32Array,
  to: Int32Array,
  offset: Float64Array,
  seed: Uint32Array,
  low: Float64Array,
  span: Float64Array,
  min: Float64Array,
  max: Float64Array,
  level: Float64Array,
  scale: Float64Array,
  height: Float64Array,
} as const;
const fields = Object.keys(FIELDS) as (keyof typeof FIELDS)[];

const shapes = new WeakMap<object, number>();
let shapesKnown = 0;
const shapeNumber = (of: object): number => {
  let known = shapes.get(of);
  if (known === undefined) shapes.set(of, (known = ++shapesKnown));
  return known;
};

/** The group of effects that run alike, made where there is none. */
export function swingOf(swings: Swings, list: number, from: number, cycles: number, like: Playing): number {
  const { speed, shape, bounce, share, drawn, stops } = like;
  const curve = stops ? `${stops.holds.join(" ")} ${stops.codes.join(" ")}` : drawn ? shapeNumber(drawn.points) : "";
  const key = `${list} ${from} ${cycles} ${speed} ${shape} ${bounce} ${share} ${curve}`;
  const known = swings.index.get(key);
  if (known !== undefined) return known;
  if (swings.index.size > 64 && swings.groups.every((g) => g.count === 0)) {
    swings.index.clear();
    swings.groups.length = 0;
  }
  const made = { list, from, cycles, speed, like, count: 0, last: Float64Array.of(NaN) } as Swing;
  for (const name of fields) made[name] = new FIELDS[name](64) as never;
  made.values = new Float64Array(64 * (stops?.values.length ?? 0));
  swings.groups.push(made);
  swings.index.set(key, swings.groups.length - 1);
  return swings.groups.length - 1;
}

/** Makes room for one more. */
export function growSwing(g: Swing): void {
  for (const name of fields) g[name] = grown(g[name]) as never;
  if (g.values.length > 0) g.values = grown(g.values);
}

/** Takes a parameter out of its group. */
export function endSwing(swings: Swings, param: number): void {
  const g = swings.groups[swings.group[param]! - 1]!;
  const hole = swings.place[param]!;
  const last = --g.count;
  swings.group[param] = 0;
  if (hole === last) return;
  for (const name of fields) g[name][hole] = g[name][last]!;
  const n = g.like.stops?.values.length ?? 0;
  g.values.copyWithin(hole * n, last * n, (last + 1) * n);
  swings.place[g.param[hole]!] = hole;
}

/** Whether any swings. */
export const swingsMove = ({ groups }: Swings): boolean => groups.some((g) => g.count > 0);

/** Works out the waves of a group after the cycles it is to show: each item's height, 0..1; of stops the value itself. */
export function fillHeights(g: Swing): void {
  const { count, offset, height, like } = g;
  const cycles = g.last[0]!;
  const { bounce, share } = like;
  const whole = !bounce && share >= 1;
  switch (like.shape) {
    case "sine":
      if (!whole) break;
      for (let i = 0; i < count; i++) {
        const x = cycles + offset[i]!;
        height[i] = 0.5 - 0.5 * Math.cos(2 * Math.PI * (x - Math.floor(x)));
      }
      return;
    case "rampup":
      if (!whole) break;
      for (let i = 0; i < count; i++) {
        const x = cycles + offset[i]!;
        height[i] = x - Math.floor(x);
      }
      return;
    case "triangle":
      if (!whole) break;
      for (let i = 0; i < count; i++) {
        const x = cycles + offset[i]!;
        const u = x - Math.floor(x);
        height[i] = u < 0.5 ? 2 * u : 2 - 2 * u;
      }
      return;
    case "random":
      for (let i = 0; i < count; i++) {
        const x = cycles + offset[i]!;
        height[i] = noiseAt(g.seed[i]!, Math.floor(x), within(x, false, share));
      }
      return;
    case "drawn":
      for (let i = 0; i < count; i++) height[i] = drawnAt(like.drawn!, within(cycles + offset[i]!, bounce, share));
      return;
    case "stops":
      return fillStops(g);
  }
  const { shape } = like;
  for (let i = 0; i < count; i++) height[i] = waveAt(shape, within(cycles + offset[i]!, bounce, share));
}

function fillStops({ count, offset, height, like, values, last }: Swing): void {
  const cycles = last[0]!;
  const { holds, codes } = like.stops!;
  const n = holds.length;
  const { bounce, share } = like;
  const whole = !bounce && share >= 1;
  for (let i = 0; i < count; i++) {
    const x = cycles + offset[i]!;
    const u = whole ? x - Math.floor(x) : within(x, bounce, share);
    if (u >= 1 || bounce) {
      standBetween(holds, codes, u, bounce);
      const { from, to, p } = between;
      height[i] = values[i * n + from]! + (values[i * n + to]! - values[i * n + from]!) * p;
      continue;
    }
    // As in `standBetween`, written out: this is what a tick of many stops costs.
    const y = u * n;
    const k = Math.min(y | 0, n - 1);
    const a = values[i * n + k]!;
    const hold = holds[k]!;
    const past = y - k - hold;
    if (past < 0 || hold >= 1) {
      height[i] = a;
      continue;
    }
    const straight = past / (1 - hold);
    const p = codes[k] === 1 ? straight : codes[k] === 0 ? 1 : smooth(straight);
    height[i] = a + (values[i * n + (k + 1 < n ? k + 1 : 0)]! - a) * p;
  }
}
