/** Catches a natural line that is not understood, or is taken for what nobody meant. */
import fc from "fast-check";
import { demoWorld } from "@tests/setup/demo";
import { contextOf, newDesk, runLine } from "../desk/desk";
import { runs } from "@tests/setup/runs";
import { isRefusal } from "../show/refusal";
import { foresee, meantBy } from "../desk/foresee";
import { couldMeanToo, timesAfter } from "./plainly";
import { readLine } from "./read";

const desk = newDesk(demoWorld());
void runLine(desk, "1 thru 3");
const context = contextOf(desk);

test.each([
  ["patch 201 thru 206 petrel-spot", "patch 6 petrel-spot as 201"],
  ['patch 6 "Petrel Spot" at 2.1', 'patch 6 "Petrel Spot" at 2:1'],
  ["patch 201 thru 206 petrel-spot at 20.1", "patch 6 petrel-spot as 201 at 20:1"],
  ['patch 201 thru 206 "Petrel Spot" at 20.1', 'patch 6 "Petrel Spot" as 201 at 20:1'],
  ["patch 2 petrel spot at 9:1", 'patch 2 "petrel spot" at 9:1'],
  ["1 thru 6 red", "1 thru 6 colour at #ff0000"],
  ["at red", "colour at #ff0000"],
  ["colour red", "colour at #ff0000"],
  ["blue", "colour at #0000ff"],
  // Not the beginning of redo.
  ["red", "colour at #ff0000"],
  ["1 colour at deep water", '1 colour filter "Deep water"'],
  ["warm white", "colour at 3200K"],
  ["full", "at full"],
  ["1 thru 6 full", "1 thru 6 at full"],
  ["out", "at out"],
  ["pan 20", "pan at 20"],
  ["1 pan -20 tilt 10", "1 pan at -20 tilt at 10"],
  ["record 4", "record cue 4"],
  ["record 4 fade 3", "record cue 4 fade 3"],
  ["group rail port", 'group "rail port"'],
  ["group rail port at 50", 'group "rail port" at 50'],
  ["set cue 1 21 thru 36 at 20", "set cue 1 21 thru 36 intensity at 20"],
  ["set cue 1 21 pan 20", "set cue 1 21 pan at 20"],
])("%s means %s", (typed, meant) => {
  expect(meantBy(typed, context)).toEqual([meant]);
});

test("what could mean two things is told as both", () => {
  expect(meantBy("go 2", context)).toEqual(["go cue 2", "go list 2"]);
  expect(meantBy("cue 4", context)).toEqual(["go cue 4", "take cue 4"]);
});

test("lines of the language, numbers alone and nonsense mean nothing else", () => {
  for (const line of ["", "1 thru 6", "at 50", "go", "50", "9999", "1 thru", "at", "cue", "petrel", 'group "'])
    expect([line, ...meantBy(line, context)]).toEqual([line]);
});

test("what nothing here can do is told as what it would mean, with the reason", () => {
  const pars = newDesk();
  for (const line of ["patch 6 dimmer as 1", "1"]) void runLine(pars, line);
  const told = (line: string) => {
    const found = foresee(line, contextOf(pars), { done: null, undone: null });
    return isRefusal(found) ? found.what : found;
  };
  expect(meantBy("pan 20", contextOf(pars))).toEqual(["pan at 20"]);
  expect(told("pan 20")).toMatch(/pan/);
  expect(told("pan 20")).not.toMatch(/not understood/);
  expect(told("group Rail")).toMatch(/no group.*Rail/i);
  expect(told("set cue 1 1 thru 6 at 20")).toMatch(/no cue 1/);
  // A line that is one keeps its own reason.
  expect(meantBy("fade 3", contextOf(pars))).toEqual([]);
});

test("a number alone is a level too, where it can be one", () => {
  expect(["50", " 100 ", "0", "101", "1 thru 3", "71.4", ""].map(couldMeanToo)).toEqual([
    ["at 50"],
    ["at 100"],
    ["at 0"],
    [],
    [],
    [],
    [],
  ]);
});

test("times right after a record could be the cue's, and each meaning reads", () => {
  const recorded = () => ({ list: 1, cue: 4 });
  expect(timesAfter("fade 3", recorded)).toEqual(["set list 1 cue 4 fade 3", "fade 3"]);
  for (const time of ["fade 3", " up  2", "down 4.5", "delay 1", "updelay 1", "downdelay 1"])
    expect([time, isRefusal(readLine(timesAfter(time, recorded)[0]!, context))]).toEqual([time, false]);
  for (const line of ["", "fade", "fade 3 at 50", "1 fade 3", "fade x"]) expect(timesAfter(line, recorded)).toEqual([]);
  expect(timesAfter("fade 3", () => null)).toEqual([]);
});

test("whatever is typed, a meaning reads, and is found in few tries", () => {
  const words = "1 6 20 -5 2.1 9:1 thru at red full pan tilt cue go record group rail patch petrel-spot fade set".split(
    " ",
  );
  fc.assert(
    fc.property(fc.array(fc.constantFrom(...words), { maxLength: 8 }), (typed) => {
      for (const meant of meantBy(typed.join(" "), context))
        expect(isRefusal(readLine(meant, context, { abbreviate: true }))).toBe(false);
    }),
    { numRuns: runs(60) },
  );
});
