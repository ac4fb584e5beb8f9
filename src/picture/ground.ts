/**
 * The room with the light that falls into it, put together pixel by pixel: without a GPU a canvas takes several
 * times as long to lay pictures over each other.
 */
import type { BeamField } from "./beams";

/** Pixels, a word each: red in the lowest byte, then green, blue and alpha. */
export interface Layer {
  width: number;
  height: number;
  words: Int32Array;
}

/** For each place of a finer row the place of a coarser one before it, and how far it is on the way to the next: 0 to 256. */
interface Between {
  near: Int32Array;
  part: Int32Array;
}

/** The light of a field on its way to a layer that is finer. */
export interface Spreading {
  columns: Between;
  rows: Between;
  /** Of a row of light between two of the field's: red and blue in one word, green, and one more than there are. */
  rb: Int32Array;
  green: Int32Array;
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

/** @param per pixels of the layer for one of the field. */
export const createSpreading = (
  field: Pick<BeamField, "width" | "height">,
  layer: Pick<Layer, "width" | "height">,
  per: number,
): Spreading => ({
  columns: between(field.width, layer.width, per),
  rows: between(field.height, layer.height, per),
  rb: new Int32Array(field.width + 1),
  green: new Int32Array(field.width + 1),
});

const RB = 0xff00ff;
const CARRY = 0x1000100;
const GREEN = 0xff00;
const GREEN_CARRY = 0x10000;

/** What lies between two words of red and blue. @param part 0..256 of the second. */
const mixRb = (a: number, b: number, part: number): number =>
  ((Math.imul(a, 256 - part) + Math.imul(b, part)) >>> 8) & RB;

/**
 * Writes what is under light with it, smoothly where the layer is finer; no part of a pixel goes beyond 255.
 * @param under as many pixels as the layer has. @param light developed, as many as the field has.
 */
export function layLight(
  { width, height, words }: Layer,
  under: Int32Array,
  field: Pick<BeamField, "width" | "height" | "lo" | "hi">,
  light: Int32Array,
  { columns, rows, rb, green }: Spreading,
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
    const down = rows.part[y]!;
    for (let x = first; x <= end; x++) {
      const a = light[above * field.width + x]!;
      const b = light[below * field.width + x]!;
      rb[x] = mixRb(a & RB, b & RB, down);
      green[x] = (((a >>> 8) & 255) * (256 - down) + ((b >>> 8) & 255) * down) >>> 8;
    }
    rb[end + 1] = rb[end]!;
    green[end + 1] = green[end]!;
    const [from, to] = [firstAt(columns.near, first), firstAt(columns.near, end + 1)];
    copy(done, y * width + from);
    layRow(words, under, y * width, columns, rb, green, from, to);
    done = y * width + to;
  }
  copy(done, width * height);
}

/**
 * Writes a row of pixels with a row of light. Red and blue are reckoned in one word: what runs for each pixel of the
 * plan is kept as short as can be.
 * @param start of the row. @param from first pixel of it. @param to the one after the last.
 */
function layRow(
  words: Int32Array,
  under: Int32Array,
  start: number,
  { near, part }: Between,
  rb: Int32Array,
  green: Int32Array,
  from: number,
  to: number,
): void {
  let x = from;
  while (x < to) {
    const k = near[x]!;
    const dRb = (rb[k + 1]! - rb[k]!) | 0;
    const dG = (green[k + 1]! - green[k]!) | 0;
    const dark = (rb[k]! | green[k]! | dRb | dG) === 0;
    const atRb = rb[k]! << 8;
    const atG = green[k]! << 8;
    for (; x < to && near[x] === k; x++) {
      const was = under[start + x]!;
      if (dark) {
        words[start + x] = was;
        continue;
      }
      const both = ((was & RB) + (((atRb + Math.imul(dRb, part[x]!)) >>> 8) & RB)) | 0;
      const middle = ((was & GREEN) + ((atG + Math.imul(dG, part[x]!)) & GREEN)) | 0;
      const over = both & CARRY;
      const overG = middle & GREEN_CARRY;
      words[start + x] = OPAQUE | ((both | (over - (over >>> 8))) & RB) | ((middle | (overG - (overG >>> 8))) & GREEN);
    }
  }
}
const OPAQUE = 255 << 24;

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
  const was = words[at]!;
  const g = (((was >>> 8) & 255) * (256 - part) + ((rgb >>> 8) & 255) * part) >>> 8;
  words[at] = OPAQUE | (g << 8) | mixRb(was & RB, rgb & RB, part);
}
