/** Catches an offer of places along a morph that would be refused as well. */
import fc from "fast-check";
import { risingPlaces } from "./morphPlaces";

test.each([
  [
    [50, 50],
    [25, 50],
  ],
  [
    [90, 66, 100],
    [33, 66, 100],
  ],
  [
    [20, 40, 30, 100],
    [20, 25, 30, 100],
  ],
  [
    [100, 50],
    [25, 50],
  ],
])("%j", (places, rising) => expect(risingPlaces(places).map((p) => Math.round(p))).toEqual(rising));

test("they rise, whatever they were, and places that rise stay", () =>
  fc.assert(
    fc.property(fc.array(fc.integer({ min: 1, max: 100 }), { minLength: 1, maxLength: 12 }), (places) => {
      const made = risingPlaces(places);
      expect(made).toHaveLength(places.length);
      for (const [k, place] of made.entries()) {
        expect(place).toBeGreaterThan(made[k - 1] ?? 0);
        expect(place).toBeLessThanOrEqual(100 + 1e-9);
      }
      if (places.every((p, k) => k === 0 || p > places[k - 1]!))
        made.forEach((p, k) => expect(p).toBeCloseTo(places[k]!));
    }),
  ));
