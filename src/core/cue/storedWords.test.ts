/** Catches a hand that is told of another cue than the one it recorded, or of too much. */
import { newDesk, runLine, type Desk } from "../desk/desk";
import { storedWords } from "./storedWords";

const after = (desk: Desk, line: string) => {
  const refusal = runLine(desk, line);
  if (refusal) throw new Error(`${line}: ${refusal.what}`);
  return storedWords(desk.world, desk.history.done.at(-1)!.diff);
};

test("what was stored, of how many fixtures and of which families", () => {
  const desk = newDesk();
  for (const line of ["patch 4 kelp-wash as 1", "patch 2 petrel-spot as 11", "1 thru 4 at 50", "1 thru 2 red at 20"])
    runLine(desk, line);
  expect(after(desk, "record cue 5")).toBe("Cue 5 stored: 4 fixtures, intensity and colour");
  runLine(desk, "clear");
  runLine(desk, "11 pan at 10");
  expect(after(desk, "update cue 5 all")).toBe("Cue 5 stored: 1 fixture, position");
  expect(after(desk, "record cue 6 empty")).toBe("Cue 6 stored, empty");
  expect(after(desk, "record list 2 cue 1")).toMatch(/^Cue 1 of .*2 stored: 1 fixture, position$/);
});

test("naming, timing and patching store nothing", () => {
  const desk = newDesk();
  for (const line of ["patch 4 kelp-wash as 1", "1 at 50", "record cue 1"]) runLine(desk, line);
  expect(after(desk, 'set cue 1 name "Dawn"')).toBeUndefined();
  expect(after(desk, "set cue 1 fade 9")).toBeUndefined();
  expect(after(desk, "patch 2 dimmer as 30")).toBeUndefined();
});
