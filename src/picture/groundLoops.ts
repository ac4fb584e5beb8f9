/** What runs for each pixel of the plan: plainly, or four pixels at a time where the machine can (ground.wat). Both give the very same. */
import { GROUND_WASM } from "./groundWasm";

/** Where light lies between the places of its field: for each finer place the one before it, and how far it is on the way to the next: 0 to 256. */
export interface Between {
  near: Int32Array;
  part: Int32Array;
}

/** What light is laid from and to, all in one memory. */
export interface Lain {
  /** Pixels, a word each: the room, and the room with its light. */
  under: Int32Array;
  words: Int32Array;
  /** The field's light, developed: as many as the field has. */
  light: Int32Array;
  /** A row of light between two of the field's. */
  row: Int32Array;
  columns: Between;
}

export interface Loops {
  /** Writes what lies between two rows of light. @param to place in the row. @param a,b places in the light. @param part 0..256 of the second. */
  mix(to: number, a: number, b: number, count: number, part: number): void;
  /** Adds the row of light to what is under it; up to three pixels more may be written. @param at place of the first pixel. @param from its column. */
  lay(at: number, from: number, count: number): void;
}

export const RB = 0xff00ff;
const CARRY = 0x1000100;
const GREEN = 0xff00;
const GREEN_CARRY = 0x10000;
const OPAQUE = 255 << 24;

/** What lies between two words of red and blue. @param part 0..256 of the second. */
export const mixRb = (a: number, b: number, part: number): number =>
  ((Math.imul(a, 256 - part) + Math.imul(b, part)) >>> 8) & RB;

/** Red and blue are reckoned in one word: what runs for each pixel is kept as short as can be. */
export function plainLoops({ words, under, light, row, columns }: Lain): Loops {
  const { near, part } = columns;
  return {
    mix(to, a, b, count, down) {
      for (let k = 0; k < count; k++) {
        const [one, other] = [light[a + k]!, light[b + k]!];
        const green = (((one >>> 8) & 255) * (256 - down) + ((other >>> 8) & 255) * down) >>> 8;
        row[to + k] = mixRb(one & RB, other & RB, down) | (green << 8);
      }
    },
    lay(at, from, count) {
      let x = from;
      const to = from + count;
      while (x < to) {
        const k = near[x]!;
        const [one, other] = [row[k]!, row[k + 1]!];
        const atRb = (one & RB) << 8;
        const atG = (one & GREEN) << 8;
        const dRb = ((other & RB) - (one & RB)) | 0;
        const dG = ((other & GREEN) - (one & GREEN)) | 0;
        for (; x < to && near[x] === k; x++, at++) {
          const was = under[at]!;
          const both = ((was & RB) + (((atRb + Math.imul(dRb, part[x]!)) >>> 8) & RB)) | 0;
          const middle = ((was & GREEN) + (((atG + Math.imul(dG, part[x]!)) >>> 8) & GREEN)) | 0;
          const over = both & CARRY;
          const overG = middle & GREEN_CARRY;
          words[at] = OPAQUE | ((both | (over - (over >>> 8))) & RB) | ((middle | (overG - (overG >>> 8))) & GREEN);
        }
      }
    },
  };
}

let compiled: WebAssembly.Module | null | undefined;

/** The quick loops; null where this machine or its browser cannot run them. */
function quickModule(): WebAssembly.Module | null {
  if (compiled !== undefined) return compiled;
  try {
    compiled = new WebAssembly.Module(Uint8Array.from(atob(GROUND_WASM), (c) => c.charCodeAt(0)));
  } catch {
    compiled = null;
  }
  return compiled;
}

const PAGE = 65_536;

/**
 * Memory for quick loops, so many bytes at least; undefined where there is none to be had.
 * @param before what is done with: it is used again, as each takes a large part of what can be addressed.
 */
export function quickMemory(bytes: number, before?: WebAssembly.Memory): WebAssembly.Memory | undefined {
  const pages = Math.ceil(bytes / PAGE);
  try {
    if (!quickModule()) return undefined;
    const memory = before ?? new WebAssembly.Memory({ initial: pages });
    const more = pages - memory.buffer.byteLength / PAGE;
    if (more > 0) memory.grow(more);
    return memory;
  } catch {
    return undefined;
  }
}

/** @param near where the light of each column lies in the row, in bytes. @param parts for each channel of each column how far it is on the way to the next. */
export function quickLoops(
  memory: WebAssembly.Memory,
  { words, under, light, row, near, parts }: Lain & { near: Int32Array; parts: Int32Array },
): Loops {
  const { mixRow, layRow } = new WebAssembly.Instance(quickModule()!, { ground: { memory } }).exports as Record<
    "mixRow" | "layRow",
    (...addresses: number[]) => void
  >;
  const at = (array: Int32Array, place: number) => array.byteOffset + 4 * place;
  return {
    mix: (to, a, b, count, part) => mixRow(at(row, to), at(light, a), at(light, b), count, part),
    lay: (place, from, count) =>
      layRow(at(words, place), at(under, place), count, at(near, from), at(parts, 2 * from), at(row, 0)),
  };
}
