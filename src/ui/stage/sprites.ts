/** Glows and beams painted once for each colour, so that a frame only copies pictures. */
type Painted = OffscreenCanvas;

const MOST = 600;
const glows = new Map<number, Painted>();
const beams = new Map<number, Painted>();
export const GLOW = 64;
export const BEAM = { length: 128, width: 64 };

/** Colours are kept to 5 bits a channel: 32,768 shades, far more than an eye tells apart in a glow. */
const shade = (r: number, g: number, b: number): number => ((r >> 3) << 10) | ((g >> 3) << 5) | (b >> 3);
const css = (key: number, alpha: number): string => `rgba(${((key >> 10) & 31) * 8.2},${((key >> 5) & 31) * 8.2},${(key & 31) * 8.2},${alpha})`;

function cached(kept: Map<number, Painted>, key: number, paint: () => Painted): Painted {
  const known = kept.get(key);
  if (known) return known;
  if (kept.size >= MOST) kept.clear();
  const made = paint();
  kept.set(key, made);
  return made;
}

/** A round glow, GLOW pixels across. */
export function glowOf(r: number, g: number, b: number): Painted {
  const key = shade(r, g, b);
  return cached(glows, key, () => {
    const canvas = new OffscreenCanvas(GLOW, GLOW);
    const c = canvas.getContext("2d")!;
    const fill = c.createRadialGradient(GLOW / 2, GLOW / 2, 0, GLOW / 2, GLOW / 2, GLOW / 2);
    fill.addColorStop(0, css(key, 0.95));
    fill.addColorStop(0.25, css(key, 0.45));
    fill.addColorStop(1, css(key, 0));
    c.fillStyle = fill;
    c.fillRect(0, 0, GLOW, GLOW);
    return canvas;
  });
}

/** A beam from the left edge's middle, opening to the right. */
export function beamOf(r: number, g: number, b: number): Painted {
  const key = shade(r, g, b);
  return cached(beams, key, () => {
    const { length, width } = BEAM;
    const canvas = new OffscreenCanvas(length, width);
    const c = canvas.getContext("2d")!;
    const fill = c.createLinearGradient(0, 0, length, 0);
    fill.addColorStop(0, css(key, 0.85));
    fill.addColorStop(0.5, css(key, 0.42));
    fill.addColorStop(0.92, css(key, 0.22));
    fill.addColorStop(1, css(key, 0));
    c.fillStyle = fill;
    c.beginPath();
    c.moveTo(0, width / 2 - 1.5);
    c.lineTo(length - width * 0.18, 0);
    c.quadraticCurveTo(length, width / 2, length - width * 0.18, width);
    c.lineTo(0, width / 2 + 1.5);
    c.fill();
    return canvas;
  });
}
