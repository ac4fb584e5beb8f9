/**
 * Beams summed as light into a small buffer of our own: without a GPU, adding numbers in flat arrays
 * costs a tenth of laying pictures over each other, and bright crossings can be rolled off softly.
 */

export interface BeamField {
  width: number;
  height: number;
  /** Red, green, blue for each pixel, 1 = a whole beam at its lamp. */
  light: Float32Array;
  /** For each row, whether and where any beam fell. */
  lo: Int32Array;
  hi: Int32Array;
}

export const createBeamField = (width: number, height: number): BeamField => ({
  width,
  height,
  light: new Float32Array(width * height * 3),
  lo: new Int32Array(height).fill(width),
  hi: new Int32Array(height).fill(-1),
});

/** A beam seen from above: from the lamp at (x, y) to the middle of its pool at (tx, ty), all in pixels of the field. */
export interface Beam {
  x: number;
  y: number;
  tx: number;
  ty: number;
  /** Half the width of the pool. */
  pool: number;
  /** Light 0..1 in each colour. */
  r: number;
  g: number;
  b: number;
}

const CORNERS = 10;
const cornerX = new Float64Array(CORNERS);
const cornerY = new Float64Array(CORNERS);
const MOST_ROWS = 4096;
const spanLo = new Float64Array(MOST_ROWS);
const spanHi = new Float64Array(MOST_ROWS);
/** Cosines and sines around the pool's far half. */
const AROUND = Array.from({ length: CORNERS - 2 }, (_, i) => {
  const a = -Math.PI / 2 + (i * Math.PI) / (CORNERS - 3);
  return [Math.cos(a), Math.sin(a)] as const;
});

/** Empties the field; only rows that were lit are gone over. */
export function clearBeams(field: BeamField): void {
  const { width, height, light, lo, hi } = field;
  for (let y = 0; y < height; y++) {
    if (hi[y]! < lo[y]!) continue;
    light.fill(0, (y * width + lo[y]!) * 3, (y * width + hi[y]! + 1) * 3);
    lo[y] = width;
    hi[y] = -1;
  }
}

/**
 * Adds a beam: a cone that opens from the lamp to its pool and grows weaker on the way, brightest in its
 * middle and dark at its edges, so that crossing beams read as light.
 */
export function addBeam(field: BeamField, beam: Beam): void {
  const { width, light, lo, hi } = field;
  const { x, y, pool, r, g, b } = beam;
  const length = Math.sqrt((beam.tx - x) ** 2 + (beam.ty - y) ** 2);
  const dx = length > 1e-6 ? (beam.tx - x) / length : 1;
  const dy = length > 1e-6 ? (beam.ty - y) / length : 0;
  // A lamp that hangs over its own pool lights the floor around it.
  const near = Math.max(0.8, pool - length);
  spans(field, beam, dx, dy, near);
  const { top, bottom } = rows;
  const opens = (pool - near) / Math.max(length, 1e-6);
  const reach = 1 / (length + pool);
  for (let row = top; row <= bottom; row++) {
    const from = Math.max(0, Math.ceil(spanLo[row]! - 0.5));
    const to = Math.min(width - 1, Math.floor(spanHi[row]! - 0.5));
    if (to < from) continue;
    if (from < lo[row]!) lo[row] = from;
    if (to > hi[row]!) hi[row] = to;
    const down = row + 0.5 - y;
    let along = (from + 0.5 - x) * dx + down * dy;
    let across = down * dx - (from + 0.5 - x) * dy;
    let at = (row * width + from) * 3;
    for (let px = from; px <= to; px++) {
      const past = along < 0 ? along : along > length ? along - length : 0;
      const half = along < 0 ? near : past > 0 ? pool : near + opens * along;
      const edge = 1 - (across * across + past * past) / (half * half);
      if (edge > 0) {
        const gone = along > 0 ? along * reach : 0;
        const share = edge * (0.9 - gone * (1.1 - 0.45 * gone));
        light[at] = light[at]! + r * share;
        light[at + 1] = light[at + 1]! + g * share;
        light[at + 2] = light[at + 2]! + b * share;
      }
      along += dx;
      across -= dy;
      at += 3;
    }
  }
}

/** A round glow, brightest in its middle and dark from `around` on; pixels of the field, light 0..1. */
export interface Glow {
  x: number;
  y: number;
  around: number;
  r: number;
  g: number;
  b: number;
}

/** Adds a glow. */
export function addGlow({ width, height, light, lo, hi }: BeamField, { x, y, around, r, g, b }: Glow): void {
  const left = Math.max(0, Math.ceil(x - around - 0.5));
  const right = Math.min(width - 1, Math.floor(x + around - 0.5));
  if (right < left) return;
  const bottom = Math.min(height - 1, Math.floor(y + around - 0.5));
  for (let row = Math.max(0, Math.ceil(y - around - 0.5)); row <= bottom; row++) {
    if (left < lo[row]!) lo[row] = left;
    if (right > hi[row]!) hi[row] = right;
    const down = (row + 0.5 - y) ** 2;
    let at = (row * width + left) * 3;
    for (let px = left; px <= right; px++, at += 3) {
      const near = 1 - ((px + 0.5 - x) ** 2 + down) / (around * around);
      if (near <= 0) continue;
      const share = near * near;
      light[at] = light[at]! + r * share;
      light[at + 1] = light[at + 1]! + g * share;
      light[at + 2] = light[at + 2]! + b * share;
    }
  }
}

/** The first and last row of the beam that was looked at last. */
const rows = { top: 0, bottom: -1 };

/** Writes for each row where the cone and its pool lie. */
function spans({ height }: BeamField, { x, y, tx, ty, pool }: Beam, dx: number, dy: number, near: number): void {
  const back = near > 1 ? near : 0;
  cornerX[0] = x - dy * near - dx * back;
  cornerY[0] = y + dx * near - dy * back;
  cornerX[1] = x + dy * near - dx * back;
  cornerY[1] = y - dx * near - dy * back;
  for (let i = 0; i < AROUND.length; i++) {
    const cos = AROUND[i]![0];
    const sin = AROUND[i]![1];
    cornerX[i + 2] = tx + pool * (cos * dx - sin * dy);
    cornerY[i + 2] = ty + pool * (cos * dy + sin * dx);
  }
  let least = Infinity;
  let most = -Infinity;
  for (let i = 0; i < CORNERS; i++) {
    if (cornerY[i]! < least) least = cornerY[i]!;
    if (cornerY[i]! > most) most = cornerY[i]!;
  }
  const top = Math.max(0, Math.ceil(least - 0.5));
  const bottom = Math.min(height - 1, MOST_ROWS - 1, Math.floor(most - 0.5));
  for (let row = top; row <= bottom; row++) {
    spanLo[row] = Infinity;
    spanHi[row] = -Infinity;
  }
  for (let i = 0; i < CORNERS; i++) edgeRows(i, (i + 1) % CORNERS, top, bottom);
  rows.top = top;
  rows.bottom = bottom;
}

function edgeRows(a: number, b: number, top: number, bottom: number): void {
  const ay = cornerY[a]!;
  const by = cornerY[b]!;
  if (ay === by) return;
  const slope = (cornerX[b]! - cornerX[a]!) / (by - ay);
  const first = Math.max(top, Math.ceil(Math.min(ay, by) - 0.5));
  const last = Math.min(bottom, Math.floor(Math.max(ay, by) - 0.5));
  let at = cornerX[a]! + (first + 0.5 - ay) * slope;
  for (let row = first; row <= last; row++) {
    if (at < spanLo[row]!) spanLo[row] = at;
    if (at > spanHi[row]!) spanHi[row] = at;
    at += slope;
  }
}

/** Light to screen: the more falls on a spot, the less each further beam adds. */
const STEPS = 1024;
const MOST = 3;
const SCREEN = Uint8ClampedArray.from(
  { length: STEPS + 1 },
  (_, i) => 255 * (1 - Math.exp((-1.15 * i * MOST) / STEPS)),
);
const screen = (v: number): number => (v >= MOST ? SCREEN[STEPS]! : SCREEN[(v * (STEPS / MOST)) | 0]!);

/** Writes the field as pixels to be added to the room: opaque where light fell, 0 elsewhere. @param words width x height, red in the lowest byte. */
export function developBeams({ width, height, light, lo, hi }: BeamField, words: Int32Array): void {
  words.fill(0);
  for (let y = 0; y < height; y++) {
    let at = (y * width + lo[y]!) * 3;
    for (let i = y * width + lo[y]!; i <= y * width + hi[y]!; i++, at += 3)
      words[i] = (255 << 24) | (screen(light[at + 2]!) << 16) | (screen(light[at + 1]!) << 8) | screen(light[at]!);
  }
}
