/** Catches a spread that leaves out an item, a place, or its own symmetry. */
import fc from "fast-check";
import { alongStops, closedPlace, cyclicPlace, placesOf } from "./spread";

const spread = fc.record({
  mirror: fc.integer({ min: 1, max: 6 }),
  bunch: fc.integer({ min: 1, max: 6 }),
  repeat: fc.integer({ min: 0, max: 6 }),
});

test("every step is reached and none is outside", () => {
  fc.assert(
    fc.property(fc.integer({ min: 1, max: 60 }), spread, (n, s) => {
      const { step, count } = placesOf(n, s);
      expect(new Set(step).size).toBe(count);
      expect(Math.max(...step)).toBe(count - 1);
      expect(Math.min(...step)).toBe(0);
    }),
  );
});

test("an even mirror of two reads the same from both ends", () => {
  fc.assert(
    fc.property(fc.integer({ min: 1, max: 30 }), fc.integer({ min: 1, max: 4 }), (half, bunch) => {
      const { step } = placesOf(half * 2, { mirror: 2, bunch, repeat: 0 });
      expect([...step].reverse()).toEqual(step);
    }),
  );
});

test("closed places hit both ends, cyclic ones double no point", () => {
  const { step, count } = placesOf(5, { mirror: 1, bunch: 1, repeat: 0 });
  expect(step.map((g) => closedPlace(g, count))).toEqual([0, 0.25, 0.5, 0.75, 1]);
  expect(step.map((g) => cyclicPlace(g, count))).toEqual([0, 0.2, 0.4, 0.6, 0.8]);
  expect(closedPlace(0, 1)).toBe(0);
});

test("items at an equal place share a step", () => {
  expect(placesOf(4, { mirror: 1, bunch: 1, repeat: 0 }, [0, 1, 1, 0])).toEqual({ step: [0, 1, 1, 0], count: 2 });
});

test("stops are piecewise linear", () => {
  expect([0, 0.25, 0.5, 1].map((t) => alongStops([0, 100, 0], t))).toEqual([0, 50, 100, 0]);
});
