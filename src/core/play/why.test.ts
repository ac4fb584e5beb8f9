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

test("a move in black is told: on its way, held, there", () => {
  const made = newDesk();
  for (const line of [
    "patch 1 petrel-spot as 1 at 1:1",
    "1 at 0 pan at 0",
    "record cue 1 fade 0",
    "1 at full pan at 60",
    "record cue 2",
    "clear",
    "go",
  ])
    expect(runLine(made, line)).toBeUndefined();
  const id = Object.keys(made.world.show.fixtures)[0]!;
  const black = () => whyOf(made.player, `${id}.0.Pan`)!.steps.find((s) => s.what === "list")!.black;
  wait(made, 1);
  expect(black()).toBe("moves");
  expect(runLine(made, "1 at 5")).toBeUndefined();
  expect(black()).toBe("held");
  expect(runLine(made, "clear")).toBeUndefined();
  wait(made, 3);
  expect(black()).toBe("there");
});

test("a morph names both its cues and its level", () => {
  const made = newDesk();
  for (const line of [
    "patch 1 kelp-wash as 1",
    "1 at 20",
    "record list 5 cue 1",
    "1 at 80",
    "record list 5 cue 2",
    "clear",
    "set list 5 kind morph",
    "level list 5 at 75",
  ])
    expect([line, runLine(made, line)]).toEqual([line, undefined]);
  const step = stack(made).steps.at(-1)!;
  const cues = Object.values(made.world.show.lists[step.list!]!.cues);
  const named = (id: string | null) => cues.find((c) => c.id === id)?.number;
  expect([named(step.between!.from), named(step.between!.to), step.between!.share, step.between!.level]).toEqual([
    1, 2, 0.5, 75,
  ]);
});

test("a dimmer that is worked out tells where its light leaves", () => {
  const made = newDesk();
  for (const line of ["patch 1 led-par as 1 at 2:11", "1 at 50"])
    expect([line, runLine(made, line)]).toEqual([line, undefined]);
  expect(stack(made).bytes.map((b) => [b.of, b.universe])).toEqual(expect.arrayContaining([["ColorAdd_R", 2]]));
});
