/** GDTF's ways of writing numbers (DIN SPEC 15800): DMX values, colours, matrices. */
import { convertXyzToHex } from "./colour";

/** A DMX value "128/1" in so many bytes: its bytes are repeated, or shifted where it ends in s. Undefined where it is none. */
export function dmxValue(text: string, bytes: number): number | undefined {
  const match = /^(\d{1,10})(?:\/([1-4])(s?))?$/.exec(text.trim());
  if (!match) return undefined;
  const own = match[2] ? Number(match[2]) : bytes;
  const value = Number(match[1]);
  if (value >= 256 ** own) return undefined;
  if (own === bytes) return value;
  if (own > bytes) return Math.floor(value / 256 ** (own - bytes));
  if (match[3]) return value * 256 ** (bytes - own);
  const digits = Array.from({ length: own }, (_, k) => Math.floor(value / 256 ** (own - 1 - k)) % 256);
  return Array.from({ length: bytes }, (_, k) => digits[k % own]!).reduce((sum, byte) => sum * 256 + byte, 0);
}

/** A colour "x,y,Y". */
export function colourOf(text: string): { xy: [number, number]; Y: number } | undefined {
  const parts = text.split(/[\s,;]+/).map(Number);
  const [x, y, Y] = parts;
  if (parts.length < 3 || parts.some((v) => !Number.isFinite(v)) || !(y! > 0.0001) || x! < 0 || x! > 1 || y! > 1)
    return undefined;
  return { xy: [x!, y!], Y: Y! };
}

/** A colour as a screen shows it at its brightest, #rrggbb. */
export const hexOfColour = ({ xy, Y }: { xy: [number, number]; Y: number }): string => convertXyzToHex(xy, Y);

/** A matrix "{a,b,c,d}{...}" of four rows (GDTF) or "{a,b,c}..." of four columns (MVR), as rows of numbers; undefined where it is none. */
export function matrixOf(text: string): number[][] | undefined {
  const rows = [...text.matchAll(/\{([^{}]*)\}/g)].map((m) => m[1]!.split(",").map(Number));
  return rows.length === 4 && rows.every((r) => r.length >= 3 && r.every(Number.isFinite)) ? rows : undefined;
}
