/** Catches a gallery that offers the same twice, or what makes no steps. */
import { patternsFor } from "./patterns";

test.each([1, 2, 3, 5, 8, 12, 24, 97])("of %i items each pattern is another, with two steps at least", (n) => {
  const found = patternsFor(n);
  expect(new Set(found.map((p) => p.step.join())).size).toBe(found.length);
  for (const { step, count } of found) {
    expect(step).toHaveLength(n);
    expect(Math.max(...step)).toBe(count - 1);
    expect(count).toBeGreaterThan(1);
  }
  if (n >= 8) expect(found.length).toBeGreaterThanOrEqual(6);
});
