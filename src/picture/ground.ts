/**
 * The room with the light that falls into it, put together pixel by pixel: without a GPU a canvas takes several
 * times as long to lay pictures over each other.
 */
import type { BeamField } from "./beams";
import { plainLoops, quickLoops, quickMemory, RB, type Between, type Lain, type Loops } from "./groundLoops";

/** Pixels, a word each: red in the lowest byte, then green, blue and alpha. */
export interface Layer {
  width: number;
  height: number;
  words: Int32Array;
}

/** A layer with the room that is under the light, and the light. Its words, and all else, lie in one memory. */
export interface Ground extends Layer, Lain {
  rows: Between;
  loops: Loops;
  memory: WebAssembly.Memory | undefined;
}

function between(coarse: number, fine: number, per: number): Between {
  const [near, part] = [new Int32Array(fine), new Int32Array(fine)];
  for (let k = 0; k < fine; k++) {
    const at = Math.min(Math.max((k + 0.5) / per - 0.5, 0), coarse - 1);
    near[k] = Math.floor(at);
    part[k] = Math.round((at - near[k]!) * 256);
  }
  return { near, part };
}

/** Loops over four pixels at a time read and write so many more. */
const MORE = 4;

/**
 * A ground of so many pixels under a field of light.
 * @param per pixels for one of the field. @param before one that is not used any more: its memory is.
 * @param quick whether its loops may run four pixels at a time, where the machine can.
 */
export function createGround(
  { width, height }: Pick<Layer, "width" | "height">,
  field: Pick<BeamField, "width" | "height">,
  per: number,
  before?: Ground,
  quick = true,
): Ground {
  const columns = between(field.width, width, per);
  const counts = {
    words: width * height,
    under: width * height,
    light: field.width * field.height,
    row: field.width + 1,
    near: width,
    parts: 2 * width,
  };
  let size = 0;
  const starts = Object.values(counts).map((count) => {
    const start = size;
    size += Math.ceil((count + 2 * MORE) / MORE) * MORE * 4;
    return start;
  });
  const memory = quick ? quickMemory(size, before?.memory) : undefined;
  const buffer = memory?.buffer ?? new ArrayBuffer(size);
  const [words, under, light, row, near, parts] = Object.values(counts).map(
    (count, k) => new Int32Array(buffer, starts[k], count),
  ) as [Int32Array, Int32Array, Int32Array, Int32Array, Int32Array, Int32Array];
  // Loops read beyond the last column, where memory of another ground may say anything.
  new Int32Array(buffer, near.byteOffset, width + MORE).fill(0);
  // Four times how far each pixel is on the way, 16 bits each, for its four channels.
  const channels = new Uint16Array(buffer, parts.byteOffset, 4 * width);
  for (let x = 0; x < width; x++) {
    near[x] = columns.near[x]! * 4;
    channels.fill(columns.part[x]!, 4 * x, 4 * x + 4);
  }
  const ground = { width, height, memory, words, under, light, row, columns, rows: between(field.height, height, per) };
  return { ...ground, loops: memory ? quickLoops(memory, { ...ground, near, parts }) : plainLoops(ground) };
}

/**
 * Writes what is under light with it, smoothly where the layer is finer; no part of a pixel goes beyond 255.
 * @param field which of its places are lit.
 */
export function layLight(
  { width, height, words, under, row, columns, rows, loops }: Ground,
  field: Pick<BeamField, "width" | "height" | "lo" | "hi">,
): void {
  const { lo, hi } = field;
  const copy = (from: number, to: number) => from < to && words.set(under.subarray(from, to), from);
  /** Up to where all is written. */
  let done = 0;
  for (let y = 0; y < height; y++) {
    const above = rows.near[y]!;
    const below = Math.min(above + 1, field.height - 1);
    const most = Math.max(hi[above]!, hi[below]!);
    if (most < 0) continue;
    const first = Math.max(0, Math.min(lo[above]!, lo[below]!) - 1);
    const end = Math.min(field.width - 1, most + 1);
    loops.mix(first, above * field.width + first, below * field.width + first, end + 1 - first, rows.part[y]!);
    row[end + 1] = row[end]!;
    const [from, to] = [firstAt(columns.near, first), firstAt(columns.near, end + 1)];
    copy(done, y * width + from);
    loops.lay(y * width + from, from, to - from);
    done = y * width + to;
  }
  copy(done, width * height);
}

/** The first place of a finer row that lies at or after a place of the coarser one. */
function firstAt(near: Int32Array, place: number): number {
  let [low, high] = [0, near.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if (near[middle]! < place) low = middle + 1;
    else high = middle;
  }
  return low;
}

/** Lays a colour over a pixel. @param rgb its colour, in the order of a word. @param alpha 0..255. */
export function layOver(words: Int32Array, at: number, rgb: number, alpha: number): void {
  const part = alpha + (alpha >> 7);
  const rest = 256 - part;
  const was = words[at]!;
  const rb = ((Math.imul(was & RB, rest) + Math.imul(rgb & RB, part)) >>> 8) & RB;
  const g = ((Math.imul(was & GREEN, rest) + Math.imul(rgb & GREEN, part)) >>> 8) & GREEN;
  words[at] = OPAQUE | rb | g;
}
const GREEN = 0xff00;
const OPAQUE = 255 << 24;
