/** Catches a group's plan that is bent out of shape when it is turned or mirrored. */
import { inRowsOf, middleOf, straight, turnedPlan } from "./arrangement";

const items = ["a", "b", "c", "d", "e", "f"];

test("four quarters, or mirrored twice, are the plan again; its middle stays", () => {
  const plan = inRowsOf(items, 3);
  let turned = plan;
  for (let k = 0; k < 4; k++) {
    turned = turnedPlan(turned, "quarter");
    expect(middleOf(turned)).toEqual(middleOf(plan));
  }
  for (const i of items) {
    expect(turned[i]!.x).toBeCloseTo(plan[i]!.x, 9);
    expect(turned[i]!.y).toBeCloseTo(plan[i]!.y, 9);
  }
  expect(turnedPlan(turnedPlan(plan, "mirror"), "mirror")).toEqual(plan);
});

test("a row turned a quarter to the left runs upstage in its order", () => {
  const turned = turnedPlan(straight(items), "quarter");
  const ys = items.map((i) => turned[i]!.y);
  expect(ys).toEqual([...ys].sort((a, b) => a - b));
  expect(new Set(items.map((i) => turned[i]!.x)).size).toBe(1);
});
