/** Catches a Why that tells another reason than the stage has. */
import { newDesk, runLine, wait } from "../desk/desk";
import { fixtureNumbered } from "../show/world";
import { whyOf } from "./why";

function desk() {
  const made = newDesk();
  for (const line of [
    "patch 2 kelp-wash as 1 at 3:101",
    "1 at 40",
    "record list 1 cue 1 fade 0",
    "clear",
    "1 at 80",
    "record list 2 cue 1 fade 4",
    "clear",
    "1 at full",
    "record list 3 cue 1",
    "clear",
    "set list 3 kind limiter",
    "go list 1",
    "go list 2",
  ])
    expect(runLine(made, line)).toBeUndefined();
  wait(made, 1);
  return made;
}
const stack = (made: ReturnType<typeof desk>) =>
  whyOf(made.player, `${fixtureNumbered(made.world.show, 1)!.id}.0.Dimmer`)!;

test("every contributor, from the default to the bytes", () => {
  const made = desk();
  runLine(made, "level list 3 at 50");
  const why = stack(made);
  expect(why.steps.map((s) => s.what)).toEqual(["default", "list", "list", "limiter"]);
  expect(why.steps.map((s) => s.hidden)).toEqual([true, false, false, false]);
  expect(why.steps[2]).toMatchObject({ value: 80, weight: 0.25, progress: 0.25, level: 100 });
  expect(why.value).toBeCloseTo(25);
  expect(why.bytes).toEqual([{ universe: 3, slot: 105, bytes: [64] }]);
});

test("what is held hides the lists, unless blind; park is over everything", () => {
  const made = desk();
  runLine(made, "1 at 10");
  expect(
    stack(made)
      .steps.filter((s) => !s.hidden)
      .map((s) => s.what),
  ).toEqual(["programmer"]);
  runLine(made, "blind on");
  expect(stack(made).steps.at(-1)).toMatchObject({ what: "programmer", hidden: true });
  runLine(made, "1 park");
  runLine(made, "blackout on");
  const why = stack(made);
  expect(why.steps.at(-1)!.what).toBe("park");
  expect(why.value).toBeCloseTo(50);
});

test("an unpatched fixture has no bytes, an unknown parameter no stack", () => {
  const made = desk();
  runLine(made, "1 unpatch");
  expect(stack(made).bytes).toEqual([]);
  expect(whyOf(made.player, "f999.0.Dimmer")).toBeUndefined();
});
