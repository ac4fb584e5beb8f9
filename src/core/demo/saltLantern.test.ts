/** Catches a demo show that does not open or does not play through. */
import { readShow } from "../show/checking/check";
import { driftsOf } from "../cue/drift";
import { isRefusal } from "../show/refusal";
import { cuesOf, listNumbered } from "../show/world";
import { makeDemo } from "./saltLantern";

test("the demo builds, is whole, and shows the rig off", () => {
  const { show, hands } = makeDemo();
  expect(isRefusal(readShow(JSON.parse(JSON.stringify(show))))).toBe(false);
  expect(Object.keys(show.fixtures)).toHaveLength(76);
  expect(cuesOf(listNumbered(show, 1)!).length).toBeGreaterThanOrEqual(24);
  const drifts = driftsOf(show, listNumbered(show, 1)!);
  expect(new Set(drifts.map((d) => d.kind))).toEqual(new Set(["lit", "dark"]));
  expect(hands.held).toEqual({});
  expect(Object.values(show.fixtures).every((f) => f.place.x !== 0 || f.place.y !== 0 || f.place.z !== 0)).toBe(true);
});
