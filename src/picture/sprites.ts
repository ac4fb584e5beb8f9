/**
 * Lamps painted once for each shade, so that a frame only copies pictures: without a GPU a
 * copied picture costs a fifth of the paths and gradients it is made of.
 */
import { KINDS } from "@/core/fixture/type";
import type { Lamp } from "./plan";
import { sign } from "./signs";

const MOST = 1600;
const lampSprites = new Map<number, ImageBitmap>();
const glowSprites = new Map<number, ImageBitmap>();
const GLOW_SIZE = 48;
/** Steps of brightness that a lamp is painted in. */
const LEVELS = 12;
const GLOW: Partial<Record<Lamp["kind"], number>> = { par: 44, conventional: 46, strobe: 56, server: 60, hazer: 72 };

/** Colours are kept to 4 bits a channel: 4,096 shades are enough for a glow. */
const shade = (r: number, g: number, b: number): number => ((r >> 4) << 8) | ((g >> 4) << 4) | (b >> 4);
const part = (key: number, at: number): number => ((key >> at) & 15) * 17;
const css = (key: number, alpha: number, lift = 0): string =>
  `rgba(${[8, 4, 0].map((at) => part(key, at) + (255 - part(key, at)) * lift).join(",")},${alpha})`;

function cached(
  kept: Map<number, ImageBitmap>,
  key: number,
  width: number,
  height: number,
  paint: (c: OffscreenCanvasRenderingContext2D) => void,
): ImageBitmap {
  const known = kept.get(key);
  if (known) return known;
  if (kept.size >= MOST) {
    for (const old of kept.values()) old.close();
    kept.clear();
  }
  const canvas = new OffscreenCanvas(width, height);
  paint(canvas.getContext("2d")!);
  const made = canvas.transferToImageBitmap();
  kept.set(key, made);
  return made;
}

/** Forgets all pictures: the colours of the room have changed. */
export function clearSprites(): void {
  for (const kept of [lampSprites, glowSprites]) {
    for (const old of kept.values()) old.close();
    kept.clear();
  }
}

/** A lamp's sign with its glow, `size` being half the sign; the picture is square with the lamp in its middle. */
export function lampSprite(
  kind: Lamp["kind"],
  size: number,
  r: number,
  g: number,
  b: number,
  level: number,
  body: string,
  edge: string,
): ImageBitmap {
  const tone = shade(r, g, b);
  const step = level <= 0.004 ? 0 : 1 + Math.round(Math.min(1, level) * (LEVELS - 1));
  // Where signs are small they stand close: their glow is as small, or it would be one haze.
  const half = Math.ceil(Math.max(((GLOW[kind] ?? 36) / 2) * Math.min(1, size / 8), size * 1.6 + 2));
  const key = ((KINDS.indexOf(kind) * 16 + step) * 4096 + (step === 0 ? 0 : tone)) * 32 + Math.round(size * 2);
  return cached(lampSprites, key, half * 2, half * 2, (c) => {
    const lit = step === 0 ? 0 : (step - 1) / (LEVELS - 1);
    if (step > 0) {
      const fill = c.createRadialGradient(half, half, 0, half, half, half);
      const strength = kind === "hazer" ? 0.12 * lit : 0.2 + 0.8 * lit;
      fill.addColorStop(0, css(tone, 0.95 * strength));
      fill.addColorStop(0.3, css(tone, 0.45 * strength));
      fill.addColorStop(1, css(tone, 0));
      c.fillStyle = fill;
      c.fillRect(0, 0, half * 2, half * 2);
    }
    sign(c, kind, half, half, size);
    c.fillStyle = body;
    c.fill();
    if (step > 0) {
      c.fillStyle = css(tone, 0.25 + 0.75 * lit);
      c.fill();
    }
    c.strokeStyle = step > 0 ? css(tone, 1, 0.5) : edge;
    c.stroke();
  });
}

/** A round glow. */
export function glowOf(r: number, g: number, b: number): ImageBitmap {
  const tone = shade(r, g, b);
  return cached(glowSprites, tone, GLOW_SIZE, GLOW_SIZE, (c) => {
    const half = GLOW_SIZE / 2;
    const fill = c.createRadialGradient(half, half, 0, half, half, half);
    fill.addColorStop(0, css(tone, 0.95));
    fill.addColorStop(0.25, css(tone, 0.45));
    fill.addColorStop(1, css(tone, 0));
    c.fillStyle = fill;
    c.fillRect(0, 0, GLOW_SIZE, GLOW_SIZE);
  });
}
