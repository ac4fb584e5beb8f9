/** The arrays of gliding parameters. */
import type { Bytes } from "./output";

export interface Glide {
  list: number;
  at: number;
  delay: number;
  fade: number;
  /** What the bytes of plain 8-bit channels are: base + value x scale. */
  base: number;
  scale: number;
  /** Whether values before and after masters are the same. */
  same: boolean;
  count: number;
  /** The share last worked out, in an array so that a tick boxes no number. */
  last: Float64Array;
  param: Int32Array;
  /** Byte offset of a plain channel; -1: more is to be done; -2: nothing goes out. */
  offset: Int32Array;
  /** Where each comes from once it has begun to move, and whether that is told yet. */
  source: Int32Array;
  told: boolean;
  /** Where its parameters and bytes lie in a row, that stretch of each; undefined until looked at. */
  straight: { value: Float64Array; bytes: Bytes } | false | undefined;
  /** Values at progress 0 and their difference to progress 1: after masters, and before. */
  from: Float64Array;
  by: Float64Array;
  rawFrom: Float64Array;
  rawBy: Float64Array;
}

export interface Glides {
  groups: Glide[];
  /** Groups by what they have in common. */
  index: Map<string, number>;
  /** The group found last. */
  last: number;
  /** For each parameter its group's index + 1 and its place in it. */
  group: Int32Array;
  place: Int32Array;
}

/** An empty store of glides. @param params how many parameters there are. */
export const createGlides = (params: number): Glides => ({
  groups: [],
  index: new Map(),
  last: -1,
  group: new Int32Array(params),
  place: new Int32Array(params),
});

/** Takes a parameter out of its group. */
export function endGlide(glides: Glides, param: number): void {
  const index = glides.group[param]! - 1;
  if (index < 0) return;
  const g = glides.groups[index]!;
  const hole = glides.place[param]!;
  const end = --g.count;
  glides.group[param] = 0;
  g.straight = undefined;
  if (hole === end) return;
  const moved = g.param[end]!;
  g.param[hole] = moved;
  g.source[hole] = g.source[end]!;
  g.offset[hole] = g.offset[end]!;
  g.from[hole] = g.from[end]!;
  g.by[hole] = g.by[end]!;
  g.rawFrom[hole] = g.rawFrom[end]!;
  g.rawBy[hole] = g.rawBy[end]!;
  glides.place[moved] = hole;
}
