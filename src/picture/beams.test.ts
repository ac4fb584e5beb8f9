/** Catches beams that leave the picture's memory or do not fade where they end. */
import { addBeam, addGlow, clearBeams, createBeamField, developBeams, type Beam } from "./beams";

const beam = (over: Partial<Beam> = {}): Beam => ({
  x: 20,
  y: 50,
  tx: 80,
  ty: 50,
  pool: 10,
  r: 1,
  g: 0.5,
  b: 0,
  ...over,
});
const at = (field: ReturnType<typeof createBeamField>, x: number, y: number) => [
  ...field.light.subarray((y * field.width + x) * 3, (y * field.width + x) * 3 + 3),
];
const red = (field: ReturnType<typeof createBeamField>, x: number, y: number) => at(field, x, y)[0]!;

test("a beam opens from its lamp to its pool, weaker on the way and dark at its edges", () => {
  const field = createBeamField(120, 100);
  addBeam(field, beam());
  expect(red(field, 22, 49)).toBeGreaterThan(red(field, 60, 49));
  expect(red(field, 60, 49)).toBeGreaterThan(red(field, 84, 49));
  expect(red(field, 60, 49)).toBeGreaterThan(red(field, 60, 54));
  expect(red(field, 30, 56)).toBe(0);
  expect(red(field, 78, 57)).toBeGreaterThan(0);
  expect(red(field, 10, 50)).toBe(0);
  expect(red(field, 92, 50)).toBe(0);
  const [r, g, b] = at(field, 50, 50);
  expect(g).toBeCloseTo(r! / 2);
  expect(b).toBe(0);
});

test("the same beam in any direction gives about the same light", () => {
  const sum = (angle: number) => {
    const field = createBeamField(200, 200);
    addBeam(field, beam({ x: 100, y: 100, tx: 100 + 60 * Math.cos(angle), ty: 100 + 60 * Math.sin(angle) }));
    return field.light.reduce((a, v) => a + v, 0);
  };
  for (let angle = 0.3; angle < 7; angle += 0.7) expect(sum(angle) / sum(0)).toBeCloseTo(1, 1);
});

test("a lamp over its own pool lights the floor all around it", () => {
  const field = createBeamField(120, 100);
  addBeam(field, beam({ x: 60, tx: 60, pool: 20 }));
  for (const [x, y] of [
    [45, 50],
    [75, 50],
    [60, 36],
    [60, 64],
  ] as const)
    expect(red(field, x, y)).toBeGreaterThan(0.1);
});

test("beams that leave the picture, and NaN, hurt nothing; beams add up; clearing leaves the dark", () => {
  const field = createBeamField(60, 40);
  addBeam(field, beam({ x: -500, y: -300, tx: 900, ty: 700, pool: 300 }));
  addBeam(field, beam({ x: Number.NaN }));
  const once = red(field, 30, 20);
  addBeam(field, beam({ x: -500, y: -300, tx: 900, ty: 700, pool: 300 }));
  expect(once).toBeGreaterThan(0);
  expect(red(field, 30, 20)).toBeCloseTo(2 * once);
  const words = new Int32Array(60 * 40);
  const pixels = new Uint8Array(words.buffer);
  developBeams(field, words);
  expect(pixels[(20 * 60 + 30) * 4]).toBeGreaterThan(0);
  expect(pixels[(20 * 60 + 30) * 4 + 3]).toBe(255);
  clearBeams(field);
  expect(field.light.every((v) => v === 0)).toBe(true);
  developBeams(field, words);
  expect(pixels.every((v) => v === 0)).toBe(true);
});

test("a glow is brightest in its middle, dark beyond its reach, and stays in the picture", () => {
  const field = createBeamField(40, 30);
  addGlow(field, { x: 20, y: 15, around: 5, r: 1, g: 0.5, b: 0 });
  expect(red(field, 20, 15)).toBeGreaterThan(red(field, 23, 15));
  expect(red(field, 23, 15)).toBeGreaterThan(0);
  expect(red(field, 26, 15)).toBe(0);
  expect(at(field, 20, 15)[1]).toBeCloseTo(red(field, 20, 15) / 2);
  const rim = [
    [-3, 4],
    [39, 29],
    [60, 15],
    [20, -20],
    [0, 0],
  ] as const;
  for (const [x, y] of rim) addGlow(field, { x, y, around: 5, r: 1, g: 1, b: 1 });
  expect(red(field, 0, 0)).toBeGreaterThan(0);
  const words = new Int32Array(40 * 30);
  developBeams(field, words);
  expect(words[15 * 40 + 20]! & 255).toBeGreaterThan(100);
  clearBeams(field);
  expect(field.light.every((v) => v === 0)).toBe(true);
});
