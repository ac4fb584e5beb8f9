/** Catches a mover aimed past its point, or by another of its ways than the words choose. */
import fc from "fast-check";
import { aimAt, angleBetween, beamOf, type Vector } from "./room";

const coordinate = fc.double({ min: -12, max: 12, noNaN: true });
const angle = fc.double({ min: -180, max: 180, noNaN: true });
const hung = fc.record({
  place: fc.record({ x: coordinate, y: coordinate, z: coordinate }),
  turn: fc.record({ x: angle, y: angle, z: angle }),
});
const point = fc.tuple(coordinate, coordinate, coordinate);
const PAN = [-270, 270] as const;
const TILT = [-135, 135] as const;
const level = { place: { x: 0, y: 0, z: 6 }, turn: { x: 0, y: 0, z: 0 } };
const standing = { place: { x: 0, y: 0, z: 0 }, turn: { x: 180, y: 0, z: 0 } };
const far = (a: Vector, b: { x: number; y: number; z: number }) => Math.hypot(a[0] - b.x, a[1] - b.y, a[2] - b.z);

test("hung head down: straight down at 0, to the audience with tilt, anticlockwise from above with pan", () => {
  const beam = (h: typeof level, pan: number, tilt: number) =>
    beamOf(h, pan, tilt).map((v) => Math.round(v * 1e9) / 1e9 + 0);
  expect(beam(level, 0, 0)).toEqual([0, 0, -1]);
  expect(beam(level, 0, 90)).toEqual([0, -1, 0]);
  expect(beam(level, 90, 90)).toEqual([1, 0, 0]);
  expect(beam(standing, 0, 0)).toEqual([0, 0, 1]);
  expect(beam({ ...level, turn: { x: 0, y: 0, z: 90 } }, 0, 90)).toEqual([1, 0, 0]);
});

test("in reach, the beam passes within a centimetre of the point, and of all ways it takes the one the words choose", () => {
  fc.assert(
    fc.property(hung, point, fc.boolean(), (h, p, flip) => {
      fc.pre(far(p, h.place) > 0.05);
      const { pan, tilt, off } = aimAt(h, p, PAN, TILT, flip);
      expect(pan).toBeGreaterThanOrEqual(-270);
      expect(pan).toBeLessThanOrEqual(270);
      expect(Math.abs(tilt)).toBeLessThanOrEqual(135);
      const away: Vector = [p[0] - h.place.x, p[1] - h.place.y, p[2] - h.place.z];
      const angle = angleBetween(beamOf(h, pan, tilt), away);
      expect(Math.abs(angle - off)).toBeLessThan(1e-5);
      if (off > 0) return;
      expect(Math.sin((angle * Math.PI) / 180) * far(p, h.place)).toBeLessThan(0.01);
      // Against looking at every way there is.
      const ways = [-720, -360, 0, 360, 720].flatMap((turn): [number, number][] => [
        [pan + turn, tilt],
        [pan + 180 + turn, -tilt],
      ]);
      const able = ways.filter(([a, b]) => Math.abs(a) <= 270 && Math.abs(b) <= 135);
      const least = Math.min(...able.map(([a]) => Math.abs(a)));
      if (!flip) {
        expect(Math.abs(pan)).toBeLessThan(least + 1e-4);
        if (able.some(([a, b]) => Math.abs(Math.abs(a) - least) < 1e-9 && b > 1e-9)) expect(tilt).toBeGreaterThan(0);
      } else {
        const plain = aimAt(h, p, PAN, TILT);
        const others = able.filter(([, b]) => Math.sign(b) === -Math.sign(plain.tilt));
        if (others.length > 0 && Math.abs(plain.tilt) > 1e-6) {
          expect(Math.sign(tilt)).toBe(-Math.sign(plain.tilt));
          expect(Math.abs(pan)).toBeLessThan(Math.min(...others.map(([a]) => Math.abs(a))) + 1e-4);
        }
      }
    }),
  );
});

test("out of reach, nothing in reach is nearer", () => {
  const ranges = fc
    .tuple(fc.double({ min: -200, max: 200, noNaN: true }), fc.double({ min: 1, max: 300, noNaN: true }))
    .map(([low, size]) => [low, low + size] as const);
  fc.assert(
    fc.property(
      hung,
      point,
      ranges,
      ranges,
      fc.double({ min: 0, max: 1, noNaN: true }),
      fc.double({ min: 0, max: 1, noNaN: true }),
      (h, p, pans, tilts, a, b) => {
        fc.pre(far(p, h.place) > 0.05);
        const { pan, tilt, off } = aimAt(h, p, pans, tilts);
        expect(
          pan >= pans[0] - 1e-9 && pan <= pans[1] + 1e-9 && tilt >= tilts[0] - 1e-9 && tilt <= tilts[1] + 1e-9,
        ).toBe(true);
        const away: Vector = [p[0] - h.place.x, p[1] - h.place.y, p[2] - h.place.z];
        const any = beamOf(h, pans[0] + (pans[1] - pans[0]) * a, tilts[0] + (tilts[1] - tilts[0]) * b);
        expect(off).toBeLessThanOrEqual(angleBetween(any, away) + 1e-5);
      },
    ),
  );
});

test("straight below pan is 0; equal pans take tilt above 0; flip the other way round with the positive pan", () => {
  expect(aimAt(level, [0, 0, 0], PAN, TILT)).toEqual({ pan: 0, tilt: 0, off: 0 });
  const beside = aimAt(level, [6, 0, 0], PAN, TILT);
  expect([beside.pan, beside.tilt].map((v) => Math.round(v * 1e6) / 1e6)).toEqual([90, 45]);
  const upstage = aimAt(level, [0, 6, 0], PAN, TILT);
  expect([upstage.pan, upstage.tilt].map((v) => Math.round(v * 1e6) / 1e6 + 0)).toEqual([0, -45]);
  const flipped = aimAt(level, [0, 6, 0], PAN, TILT, true);
  expect([flipped.pan, flipped.tilt].map((v) => Math.round(v * 1e6) / 1e6)).toEqual([180, 45]);
  const front = aimAt(level, [0, -6, 0], PAN, TILT, true);
  expect([front.pan, front.tilt].map((v) => Math.round(v * 1e6) / 1e6)).toEqual([180, -45]);
});
