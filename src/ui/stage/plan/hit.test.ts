/** Catches a press on the plan that selects another lamp than the one under it. */
import { demoWorld } from "@tests/setup/demo";
import { compileRig } from "@/core/play/stage/rig";
import { drawn, inside, lampAt } from "./hit";
import { lampsOf } from "@/picture/packed";
import { fitView, toPixels } from "@/picture/plan";

const { show } = demoWorld();
const rig = compileRig(show);
const lamps = lampsOf(show, rig.index);
const view = fitView(lamps, 700, 600);
const numbered = (number: number) => lamps.find((l) => l.number === number)!;

test("every lamp is in view and found where it is drawn", () => {
  for (const lamp of lamps) {
    const [x, y] = toPixels(view, lamp.x, lamp.y);
    expect(x).toBeGreaterThan(0);
    expect(x).toBeLessThan(700);
    expect(y).toBeGreaterThan(0);
    expect(y).toBeLessThan(600);
    expect(lampAt(lamps, view, x, y)!.id).toBe(lamp.id);
  }
  expect(lampAt(lamps, view, 1, 1)).toBeUndefined();
});

test("an area selects in the direction of the drag", () => {
  const [first, last] = [toPixels(view, numbered(1).x, numbered(1).y), toPixels(view, numbered(12).x, numbered(12).y)];
  const box = { x1: first[0] - 5, y1: first[1] - 5, x2: last[0] + 5, y2: last[1] + 5 };
  expect(inside(lamps, view, box).map((l) => l.number)).toEqual([1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12]);
  expect(inside(lamps, view, { ...box, x1: box.x2, x2: box.x1 }).map((l) => l.number)).toEqual([
    12, 11, 10, 9, 8, 7, 6, 5, 4, 3, 2, 1,
  ]);
});

test("a bar has a light for each cell, a mover a zoom", () => {
  expect(numbered(71).sources).toHaveLength(12);
  expect(numbered(71).dimmer).toBeGreaterThanOrEqual(0);
  expect(rig.keys[numbered(21).zoom]).toMatch(/Zoom$/);
});

test("a line drawn from lamp to lamp orders what is selected, or selects what it passes", () => {
  expect(drawn(["a", "b", "c", "d"], ["c", "x", "a"], false)).toEqual(["c", "a", "b", "d"]);
  expect(drawn(["a", "b"], ["x", "b", "y"], false)).toEqual(["x", "b", "y"]);
  expect(drawn(["a", "b"], ["b", "x"], true)).toEqual(["a", "b", "x"]);
  expect(drawn([], ["x"], false)).toEqual(["x"]);
});
