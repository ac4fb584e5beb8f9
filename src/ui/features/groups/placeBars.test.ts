/** Catches a picture of a spread that shows only its first items, or flattens a pattern. */
import { placeBars } from "./placeBars";

test("few items have a bar each", () => {
  expect(placeBars([0, 1, 2], 3, 64).map((b) => [b.low, b.high])).toEqual([
    [0, 0],
    [0.5, 0.5],
    [1, 1],
  ]);
});

test("a thousand rise from the first to the last", () => {
  const step = Array.from({ length: 1000 }, (_, i) => i);
  const bars = placeBars(step, 1000, 64);
  expect(bars).toHaveLength(64);
  expect(bars[0]!.low).toBe(0);
  expect(bars.at(-1)!.high).toBe(1);
  for (const [k, bar] of bars.entries()) if (k > 0) expect(bar.low).toBeGreaterThan(bars[k - 1]!.high);
  expect([...new Set(bars.flatMap((b) => [...b.steps]))]).toHaveLength(1000);
});

test("a pattern finer than the bars is shown from its lowest to its highest", () => {
  const step = Array.from({ length: 1000 }, (_, i) => i % 4);
  for (const bar of placeBars(step, 4, 64)) expect([bar.low, bar.high]).toEqual([0, 1]);
});
