/** Catches scrubbing that leaves a number's range or loses its fine steps. */
import { scrubbed } from "./scrub";

test("a scrubbed number stays in its range and on its steps", () => {
  expect([scrubbed(2.4, {}), scrubbed(-3, { min: 0 }), scrubbed(101, { max: 100 })]).toEqual([2, 0, 100]);
  expect([
    scrubbed(2.449, { step: 0.1 }),
    scrubbed(2.449, { step: 0.1 }, true),
    scrubbed(0.30000000004, { step: 0.1 }),
  ]).toEqual([2.4, 2.45, 0.3]);
  expect(scrubbed(2.4, { step: 1 }, true)).toBe(2);
});
