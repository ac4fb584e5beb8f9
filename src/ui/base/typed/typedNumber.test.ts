/** Catches a field that takes another number than was typed, or none of what it shows. */
import { readNumberField } from "./typedNumber";

const seconds = { min: 0, max: 600, fraction: true, unit: "s" };
const degrees = { min: -1000, fraction: true, unit: "°" };
test.each([
  ["3", 1, seconds, 3],
  ["3 s", 1, seconds, 3],
  ["3S", 1, seconds, 3],
  ["2,5", 1, seconds, 2.5],
  ["+2", 1, seconds, 3],
  ["-2", 1, seconds, 0],
  ["=2", 1, seconds, 2],
  ["900", 1, seconds, 600],
  ["-5", 20, degrees, 15],
  ["=-5", 20, degrees, -5],
  ["30°", 20, degrees, 30],
  ["2.6", 1, { ...seconds, fraction: false }, 3],
])("%s over %d", (text, now, range, value) => expect(readNumberField(text, now, range)).toMatchObject({ value }));

test.each([
  ["3 m", /in s, not in m/],
  ["abc", /"abc" is no number/],
  ["", /is no number/],
  ["1 to 2", /is no number/],
])("%s is refused in words", (text, why) => expect(readNumberField(text, 1, seconds)).toMatch(why));
