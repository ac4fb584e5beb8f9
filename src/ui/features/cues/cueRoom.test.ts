/** Catches a cue put between two others that lands beside them, or on one. */
import fc from "fast-check";
import { numberBefore, numbersBefore } from "./cueRoom";

const at = (...numbers: number[]) => numbers.map((number) => ({ number }));

test("the plainest number between two", () => {
  expect(numberBefore(at(1, 2), 1)).toBe(1.5);
  expect(numberBefore(at(1, 5), 1)).toBe(3);
  expect(numberBefore(at(1, 2), 2)).toBe(3);
  expect(numberBefore(at(1, 1.5), 1)).toBe(1.3);
  expect(numberBefore(at(2), 0)).toBe(1);
  expect(numberBefore(at(1, 1.001), 1)).toBeUndefined();
  expect(numberBefore([], 0)).toBe(1);
});

test("it lies between its neighbours, whatever they are", () => {
  const numbers = fc.uniqueArray(fc.integer({ min: 1, max: 20_000 }), { minLength: 1, maxLength: 12 });
  fc.assert(
    fc.property(numbers, fc.nat(12), (thousandths, where) => {
      const cues = at(...thousandths.sort((a, b) => a - b).map((n) => n / 1000));
      const place = where % (cues.length + 1);
      const number = numberBefore(cues, place);
      const [below, above] = [cues[place - 1]?.number ?? 0, cues[place]?.number ?? Infinity];
      if (number === undefined) return above - below < 0.0011 + 0.001;
      return number > below && number < above && Math.abs(number * 1000 - Math.round(number * 1000)) < 1e-6;
    }),
  );
});

const numbered = (...numbers: number[]) => numbers.map((number) => ({ number }));

test.each([
  [numbered(1, 2, 10), 2, 2, [], [3, 4]],
  [numbered(1, 2), 1, 3, [], [1.1, 1.2, 1.3]],
  [numbered(1, 2), 2, 2, [], [3, 4]],
  [numbered(1, 2, 10), 2, 2, [3], [4, 5]],
  [numbered(1, 1.001), 1, 1, [], undefined],
  [numbered(5), 0, 2, [], [1, 2]],
])("%j before place %i", (rest, place, count, taken, numbers) =>
  expect(numbersBefore(rest, place, count, taken)).toEqual(numbers),
);
