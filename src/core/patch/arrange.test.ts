/** Catches rows, arcs and circles on the plan that are not evenly laid. */
import fc from "fast-check";
import { aligned, distributed, inArc, inCircle, inGrid, inRow, type Place } from "./arrange";

const metre = fc.integer({ min: -2000, max: 2000 }).map((v) => v / 100);
const place = fc.record({ x: metre, y: metre, z: metre });
const places = fc.array(place, { minLength: 1, maxLength: 40 });
const heights = (p: readonly Place[]) => p.map((q) => q.z);
const distance = (a: { x: number; y: number }, b: { x: number; y: number }) => Math.hypot(a.x - b.x, a.y - b.y);

test("every tool keeps how many there are, their order and their heights", () => {
  fc.assert(
    fc.property(places, place, place, (now, a, b) => {
      for (const made of [inRow(now, a, b), inArc(now, a, 3, -60, 60), inCircle(now, a, 3), inGrid(now, a, 4, 1)])
        expect(heights(made)).toEqual(heights(now));
    }),
  );
});

test("a row hits both ends and is even", () => {
  const row = inRow(new Array<Place>(5).fill({ x: 9, y: 9, z: 4 }), { x: -4, y: 1 }, { x: 4, y: 3 });
  expect(row.map((p) => p.x)).toEqual([-4, -2, 0, 2, 4]);
  expect(row.map((p) => p.y)).toEqual([1, 1.5, 2, 2.5, 3]);
  expect(inRow([{ x: 0, y: 0, z: 0 }], { x: 0, y: 0 }, { x: 4, y: 0 })[0]!.x).toBe(2);
});

test("arcs and circles are as far from their middle as asked; a circle has no doubled point", () => {
  fc.assert(
    fc.property(places, place, fc.integer({ min: 1, max: 20 }), (now, middle, radius) => {
      for (const p of [...inArc(now, middle, radius, -90, 90), ...inCircle(now, middle, radius)])
        expect(distance(p, middle)).toBeCloseTo(radius, 1);
      const circle = inCircle(now, middle, radius);
      expect(new Set(circle.map((p) => `${p.x} ${p.y}`)).size).toBe(circle.length);
    }),
  );
  expect(
    inArc(new Array<Place>(3).fill({ x: 0, y: 0, z: 0 }), { x: 0, y: 0 }, 2, -90, 90).map(({ x, y }) => [x, y]),
  ).toEqual([
    [-2, 0],
    [0, 2],
    [2, 0],
  ]);
});

test("a grid fills row by row from upstage, centred", () => {
  expect(
    inGrid(new Array<Place>(5).fill({ x: 0, y: 0, z: 0 }), { x: 10, y: 0 }, 3, 2).map(({ x, y }) => [x, y]),
  ).toEqual([
    [8, 1],
    [10, 1],
    [12, 1],
    [8, -1],
    [10, -1],
  ]);
});

test("aligning takes the mean and leaves the rest; spacing keeps the outermost and the order", () => {
  fc.assert(
    fc.property(places, fc.constantFrom("x" as const, "y" as const, "z" as const), (now, axis) => {
      const line = aligned(now, axis);
      expect(new Set(line.map((p) => p[axis])).size).toBe(1);
      const spaced = distributed(now, axis);
      const values = (p: readonly Place[]) => p.map((q) => q[axis]);
      expect([Math.min(...values(spaced)), Math.max(...values(spaced))]).toEqual([
        Math.min(...values(now)),
        Math.max(...values(now)),
      ]);
      now.forEach((a, i) =>
        now.forEach(
          (b, k) => a[axis] < b[axis] && expect(spaced[i]![axis]).toBeLessThanOrEqual(spaced[k]![axis] + 0.002),
        ),
      );
      const others = (["x", "y", "z"] as const).filter((o) => o !== axis);
      spaced.forEach((p, i) => others.forEach((o) => expect(p[o]).toBe(now[i]![o])));
    }),
  );
});
