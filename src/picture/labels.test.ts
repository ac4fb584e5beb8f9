/** Catches numbers of lamps, or of their order, that lie over one another or over a sign. */
import fc from "fast-check";
import { besideLamp, DIGIT, placeLabels, signSize } from "./labels";
import { fitView, toPixels, type Lamp } from "./plan";
import { runs } from "@tests/setup/runs";

const [WIDTH, HEIGHT] = [700, 430];
const lampAt = (number: number, x: number, y: number, kind: Lamp["kind"] = "spot"): Lamp =>
  ({ id: `f${number}`, number, kind, x, y, sources: [] }) as unknown as Lamp;

interface Box {
  left: number;
  top: number;
  wide: number;
  tall: number;
}
const meet = (a: Box, b: Box) =>
  a.left < b.left + b.wide && b.left < a.left + a.wide && a.top < b.top + b.tall && b.top < a.top + a.tall;

/** What is drawn for lamps that are all selected: signs, numbers, order numbers. */
function drawn(lamps: readonly Lamp[]) {
  const view = fitView(lamps, WIDTH, HEIGHT);
  const labels = placeLabels(lamps, view, WIDTH, HEIGHT);
  const size = signSize(view);
  const signs = lamps.map((l): Box => {
    const [x, y] = toPixels(view, l.x, l.y);
    return { left: x - size + 1.5, top: y - size + 1.5, wide: 2 * size - 3, tall: 2 * size - 3 };
  });
  const numbers = [...labels.of.values()].map(({ text, x, y }): Box => {
    const wide = DIGIT * text.length;
    return { left: x - wide / 2, top: y - 4, wide, tall: 8 };
  });
  const orders = lamps.flatMap((lamp, i): Box[] => {
    const wide = 6 + 6 * String(i + 1).length;
    const at = besideLamp(labels, lamp, view, { wide, tall: 13, away: 5.5, spare: 0 });
    return at ? [{ ...at, wide, tall: 13 }] : [];
  });
  return { signs, numbers, orders };
}

function expectApart(boxes: readonly Box[]): void {
  for (const [i, a] of boxes.entries()) for (const b of boxes.slice(i + 1)) expect(meet(a, b)).toBe(false);
}

test("twelve on a truss and eight up each side: all numbers, all order numbers, none over another", () => {
  const truss = Array.from({ length: 12 }, (_, i) => lampAt(i + 1, -5.5 + i, 6));
  const sides = Array.from({ length: 16 }, (_, i) => lampAt(21 + i, i < 8 ? -7.5 : 7.5, 5 - (i % 8) * 0.9));
  const { signs, numbers, orders } = drawn([...truss, ...sides]);
  expect(numbers).toHaveLength(28);
  expect(orders).toHaveLength(28);
  expectApart([...numbers, ...orders]);
  for (const box of [...numbers, ...orders]) for (const sign of signs) expect(meet(box, sign)).toBe(false);
});

test("wherever lamps hang, what is written can be read", () => {
  fc.assert(
    fc.property(
      fc.array(fc.tuple(fc.double({ min: -12, max: 12, noNaN: true }), fc.double({ min: -6, max: 9, noNaN: true })), {
        minLength: 2,
        maxLength: 90,
      }),
      (places) => {
        const { signs, numbers, orders } = drawn(places.map(([x, y], i) => lampAt(i + 1, x, y)));
        expectApart([...numbers, ...orders]);
        for (const box of [...numbers, ...orders]) for (const sign of signs) expect(meet(box, sign)).toBe(false);
      },
    ),
    { numRuns: runs(60) },
  );
});
