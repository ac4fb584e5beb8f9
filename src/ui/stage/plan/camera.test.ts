/** Catches a plan that slips away under the hand while it is zoomed. */
import fc from "fast-check";
import { pinched, zoomed } from "./camera";
import { toMetres } from "@/picture/plan";

const fitted = { scale: 40, ox: 400, oy: 500 };
const point = fc.record({ x: fc.integer({ min: 0, max: 800 }), y: fc.integer({ min: 0, max: 600 }) });

test("what lies under the pointer stays there, however far it is zoomed", () => {
  fc.assert(
    fc.property(point, fc.array(fc.double({ min: 0.2, max: 5, noNaN: true }), { maxLength: 8 }), (at, steps) => {
      const before = toMetres(fitted, at.x, at.y);
      const view = steps.reduce((now, by) => zoomed(now, fitted, at, by), fitted);
      const after = toMetres(view, at.x, at.y);
      expect(after.x).toBeCloseTo(before.x, 6);
      expect(after.y).toBeCloseTo(before.y, 6);
      expect(view.scale).toBeGreaterThanOrEqual(40 * 0.4 - 1e-9);
      expect(view.scale).toBeLessThanOrEqual(40 * 24 + 1e-9);
    }),
  );
});

test("two fingers take the room with them", () => {
  const [a, b] = [
    { x: 200, y: 300 },
    { x: 400, y: 300 },
  ];
  const view = pinched(
    fitted,
    fitted,
    [a, b],
    [
      { x: 150, y: 340 },
      { x: 550, y: 340 },
    ],
  );
  expect(view.scale).toBeCloseTo(80, 9);
  expect(toMetres(view, 150, 340)).toEqual(toMetres(fitted, a.x, a.y));
});
