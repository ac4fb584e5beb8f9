/** Catches intents done together that get in each other's way. */
import { INTENTS } from "../../intents";
import { newDesk, runLine } from "../../desk/desk";
import { drop, hold, keepOut } from "../../program/intents";
import { remove } from "../../patch/intents";
import { applyIntents } from "./intent";
import { isRefusal } from "../refusal";

const desk = newDesk();
runLine(desk, "patch 2 dimmer as 1");
const [a, b] = Object.keys(desk.world.show.fixtures).map((id) => `${id}.0.Dimmer`) as [string, string];
const held = hold.of({ values: Object.fromEntries([a, b].map((key) => [key, { attribute: "Dimmer", value: 50 }])) });

test("what one holds the next may let go of, together", () => {
  const done = applyIntents(INTENTS, desk.world, [
    held,
    drop.of({ keys: [a] }),
    keepOut.of({ keys: [a, b], out: true }),
  ]);
  if (isRefusal(done)) throw new Error(done.what);
  expect(Object.keys(done.world.hands.held)).toEqual([b]);
  expect(done.world.hands.keptOut).toEqual({ [b]: true });
});

test("a fixture that is removed takes what is held and kept out of it along", () => {
  const gone = b.split(".")[0]!;
  const done = applyIntents(INTENTS, desk.world, [
    held,
    keepOut.of({ keys: [b], out: true }),
    remove.of({ fixtures: [gone] }),
  ]);
  if (isRefusal(done)) throw new Error(done.what);
  expect(Object.keys(done.world.hands.held)).toEqual([a]);
  expect(done.world.hands.keptOut).toEqual({});
});

test("all or none: where one is refused, none is done", () => {
  const done = applyIntents(INTENTS, desk.world, [
    held,
    hold.of({ values: { "f99.0.Dimmer": { attribute: "Dimmer", value: 1 } } }),
  ]);
  expect(isRefusal(done)).toBe(true);
  expect(desk.world.hands.held).toEqual({});
});
