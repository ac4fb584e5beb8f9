/**
 * The shared frame: what the engine publishes for every tick, read by the stage, meters and numbers on
 * animation frames. Two halves; the header says which is whole. Its layout belongs to one generation
 * of the rig.
 */
import type { Layout } from "./layout";

/** Values of `source` below 0; from 0 up it is the slot of a list. */
export const SOURCE_DEFAULT = -1;
export const SOURCE_PROGRAMMER = -2;

/** Numbers kept for each list slot: progress 0..1, seconds gone, seconds in all. */
export const LANE_FIELDS = 3;
const HEADER = 16;

export interface Half {
  /** Where timecode is, frames. */
  clock: Float64Array;
  /** After masters, and before. */
  value: Float64Array;
  raw: Float64Array;
  lanes: Float64Array;
  source: Int32Array;
  cue: Int32Array;
  fn: Uint8Array;
  bytes: Uint8Array;
}

export interface Frame {
  buffer: ArrayBufferLike;
  /** [which half is whole, count of published frames]. */
  header: Int32Array;
  halves: [Half, Half];
  /** The halves as plain words. */
  words: [Int32Array, Int32Array];
}

const align = (n: number): number => Math.ceil(n / 8) * 8;

function sizeOf({ size: n, universes, slots }: Pick<Layout, "size" | "universes" | "slots">): number {
  return align(8 + n * 8 * 2 + slots * LANE_FIELDS * 8 + n * 4 * 2 + n + universes.length * 512);
}

export const frameBytes = (layout: Layout): number => HEADER + 2 * sizeOf(layout);

/** Views on the memory of a frame. @param buffer `frameBytes(layout)` bytes. */
export function openFrame(layout: Layout, buffer: ArrayBufferLike): Frame {
  const size = sizeOf(layout);
  const n = layout.size;
  const half = (start: number): Half => {
    let at = start;
    const take = <T>(
      make: (buffer: ArrayBufferLike, at: number, length: number) => T,
      length: number,
      bytes: number,
    ): T => {
      const view = make(buffer, at, length);
      at += length * bytes;
      return view;
    };
    return {
      clock: take((b, o, l) => new Float64Array(b, o, l), 1, 8),
      value: take((b, o, l) => new Float64Array(b, o, l), n, 8),
      raw: take((b, o, l) => new Float64Array(b, o, l), n, 8),
      lanes: take((b, o, l) => new Float64Array(b, o, l), layout.slots * LANE_FIELDS, 8),
      source: take((b, o, l) => new Int32Array(b, o, l), n, 4),
      cue: take((b, o, l) => new Int32Array(b, o, l), n, 4),
      fn: take((b, o, l) => new Uint8Array(b, o, l), n, 1),
      bytes: take((b, o, l) => new Uint8Array(b, o, l), layout.universes.length * 512, 1),
    };
  };
  const words = (start: number) => new Int32Array(buffer, start, size / 4);
  return {
    buffer,
    header: new Int32Array(buffer, 0, 2),
    halves: [half(HEADER), half(HEADER + size)],
    words: [words(HEADER), words(HEADER + size)],
  };
}

/** The half that is whole now. */
export const wholeHalf = (frame: Frame): Half => frame.halves[Atomics.load(frame.header, 0) === 0 ? 0 : 1];
export const frameCount = (frame: Frame): number => Atomics.load(frame.header, 1);

/** Fills the other half and makes it the whole one, unless it says what the last one said. Returns whether it was new. */
export function publish(frame: Frame, fill: (half: Half) => void): boolean {
  const last = Atomics.load(frame.header, 0) === 0 ? 0 : 1;
  const next = 1 - last;
  fill(frame.halves[next]!);
  if (frameCount(frame) > 0 && isSame(frame.words[last], frame.words[next]!)) return false;
  Atomics.store(frame.header, 0, next);
  Atomics.add(frame.header, 1, 1);
  return true;
}

function isSame(a: Int32Array, b: Int32Array): boolean {
  for (let k = 0; k < a.length; k++) if (a[k] !== b[k]) return false;
  return true;
}
