/**
 * The signs of a crowd, written pixel by pixel: with thousands of lamps a call of the canvas for each costs several
 * times what its few pixels do. Their glow is light in the field of the beams.
 */
import { addGlow, type BeamField, type Glow } from "./beams";
import { layOver, type Layer } from "./ground";
import type { Lights } from "./lights";
import type { Palette } from "./draw";
import { signSize } from "./labels";
import type { Lamp, View } from "./plan";
import { sign } from "./signs";

/** More lamps than this are painted as a crowd. */
export const CROWD = 300;

/** The pixels of a sign, from the upper left corner of its square. */
export interface Mask {
  size: number;
  x: Uint8Array;
  y: Uint8Array;
  /** How much of each it covers (in the highest byte), and how far it is its edge's colour: 0 to SHADES - 1. */
  cover: Int32Array;
  /** How much wider than others its lamp glows. */
  wide: number;
  /** Where its pixels lie in the layer it was written to last. */
  places?: { width: number; at: Int32Array };
}
/** Colours between a sign's body and its edge. */
const SHADES = 4;

const ramp = new Int32Array(SHADES);

/** Writes the colours of a sign from its body's to its edge's, whole parts 0..255. */
export function shadesOf(r0: number, g0: number, b0: number, r1: number, g1: number, b1: number): Int32Array {
  for (let k = 0; k < SHADES; k++) {
    const t = k / (SHADES - 1);
    ramp[k] = ((b0 + (b1 - b0) * t) << 16) | ((g0 + (g1 - g0) * t) << 8) | (r0 + (r1 - r0) * t);
  }
  return ramp;
}

/** Writes a sign with its upper left corner at (x, y); what it only touches shows through. */
export function putSign(layer: Layer, mask: Mask, x: number, y: number, shades: Int32Array): void {
  const { width, height, words } = layer;
  const { size, cover } = mask;
  const corner = y * width + x;
  if (x < 0 || y < 0 || x + size > width || y + size > height) return putCut(layer, mask, x, y, shades);
  const places = placesIn(mask, width);
  const count = cover.length;
  for (let k = 0; k < count; k++) put(words, corner + places[k]!, cover[k]!, shades);
}

/** The same at the rim of the layer, pixel for pixel where it has one. */
function putCut({ width, height, words }: Layer, mask: Mask, x: number, y: number, shades: Int32Array): void {
  mask.cover.forEach((cover, k) => {
    const [right, down] = [x + mask.x[k]!, y + mask.y[k]!];
    if (right >= 0 && right < width && down >= 0 && down < height) put(words, down * width + right, cover, shades);
  });
}

function put(words: Int32Array, at: number, cover: number, shades: Int32Array): void {
  const alpha = cover >>> 24;
  const shade = shades[cover & 255]!;
  if (alpha === 255) words[at] = OPAQUE | shade;
  else layOver(words, at, shade, alpha);
}

/** Where the pixels of a mask lie from its corner in a layer so wide. */
function placesIn(mask: Mask, width: number): Int32Array {
  if (mask.places?.width !== width)
    mask.places = { width, at: Int32Array.from(mask.x, (right, k) => mask.y[k]! * width + right) };
  return mask.places.at;
}
const OPAQUE = 255 << 24;

const WIDE: Partial<Record<Lamp["kind"], number>> = { strobe: 1.5, server: 1.6, hazer: 2 };
let masks = new Map<Lamp["kind"], Mask>();
let masksHalf = 0;

/** The mask of a kind's sign. @param half half its size in pixels of the layer. */
function maskOf(kind: Lamp["kind"], half: number): Mask {
  if (half !== masksHalf) masks = new Map();
  masksHalf = half;
  let mask = masks.get(kind);
  if (!mask) masks.set(kind, (mask = makeMask(kind, half)));
  return mask;
}

function makeMask(kind: Lamp["kind"], half: number): Mask {
  const size = 2 * Math.ceil(half * 1.6 + 2);
  const c = new OffscreenCanvas(size, size).getContext("2d", { willReadFrequently: true })!;
  sign(c, kind, size / 2, size / 2, half);
  c.fillStyle = "#f00";
  c.fill();
  c.strokeStyle = "#0f0";
  c.stroke();
  const { data } = c.getImageData(0, 0, size, size);
  const covered = Array.from({ length: size * size }, (_, i) => i).filter((i) => data[i * 4 + 3]! > 0);
  return {
    size,
    wide: WIDE[kind] ?? 1,
    x: Uint8Array.from(covered, (i) => i % size),
    y: Uint8Array.from(covered, (i) => Math.floor(i / size)),
    cover: Int32Array.from(covered, (i) => {
      const [body, edge, alpha] = [data[i * 4]!, data[i * 4 + 1]!, data[i * 4 + 3]!];
      return (alpha << 24) | Math.round((edge / Math.max(1, body + edge)) * (SHADES - 1));
    }),
  };
}

type Rgb = [r: number, g: number, b: number];
const partsOf = (css: string): Rgb => [1, 3, 5].map((i) => parseInt(css.slice(i, i + 2), 16)) as Rgb;

/** Whether the sign of a lamp is its own, and not that of its cells. */
const hasSign = (lamp: Lamp): boolean => lamp.kind !== "bar";

interface Place {
  view: View;
  /** Pixels of the layer for one of the plan. */
  ratio: number;
  /** Pixels of the field for one of the plan. */
  share: number;
}

/** Adds the glow of all lamps but bars. */
export function glowCrowd(field: BeamField, lamps: readonly Lamp[], lights: Lights, place: Place): void {
  const { view, ratio, share } = place;
  const size = signSize(view);
  for (let i = 0; i < lamps.length; i++) {
    const lamp = lamps[i]!;
    const level = lights.level[i]!;
    if (level <= DARK || !hasSign(lamp)) continue;
    const strength = (0.15 + 0.6 * level) / 255;
    glow.x = (view.ox + lamp.x * view.scale) * share;
    glow.y = (view.oy - lamp.y * view.scale) * share;
    glow.around = size * 2.2 * maskOf(lamp.kind, size * ratio).wide * share;
    glow.r = lights.r[i]! * strength;
    glow.g = lights.g[i]! * strength;
    glow.b = lights.b[i]! * strength;
    addGlow(field, glow);
  }
}

/** Paints the signs of all lamps but bars. */
export function putCrowd(
  layer: Layer,
  lamps: readonly Lamp[],
  lights: Lights,
  { view, ratio }: Place,
  palette: Palette,
): void {
  const size = signSize(view);
  const [body, number] = [partsOf(palette.body), partsOf(palette.number)];
  const dark = Int32Array.from(shadesOf(...body, ...number));
  for (let i = 0; i < lamps.length; i++) {
    const lamp = lamps[i]!;
    if (!hasSign(lamp)) continue;
    const x = view.ox + lamp.x * view.scale;
    const y = view.oy - lamp.y * view.scale;
    const mask = maskOf(lamp.kind, size * ratio);
    const corner = mask.size / 2;
    const level = lights.level[i]!;
    const shades = level > DARK ? litShades(body, lights.r[i]!, lights.g[i]!, lights.b[i]!, level) : dark;
    putSign(layer, mask, Math.round(x * ratio - corner), Math.round(y * ratio - corner), shades);
  }
}
/** So dim a lamp is painted as dark. */
const DARK = 0.004;

/** Kept outside so that painting allocates nothing. */
const glow: Glow = { x: 0, y: 0, around: 0, r: 0, g: 0, b: 0 };

/** A lit sign: its colour over its body, and an edge half as pale. */
function litShades(body: Rgb, r: number, g: number, b: number, level: number): Int32Array {
  const over = 0.25 + 0.75 * level;
  return shadesOf(
    (body[0] + (r - body[0]) * over) | 0,
    (body[1] + (g - body[1]) * over) | 0,
    (body[2] + (b - body[2]) * over) | 0,
    (r + 255) >> 1,
    (g + 255) >> 1,
    (b + 255) >> 1,
  );
}
