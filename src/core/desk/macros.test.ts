/** Catches a macro that plays its first lines though a later one cannot work. */
import { contextOf, newDesk, runLine } from "./desk";
import { foreseenFault } from "./macros";

const desk = newDesk();
for (const line of ["patch 4 dimmer as 1", "1 at full", "record cue 1", "clear"]) runLine(desk, line);
const fault = (...lines: string[]) => foreseenFault({ macro: 2, lines }, contextOf(desk))?.what;

test.each([
  [["go list 1", "1 at 50", "level list 7 at 20"], /macro 2 is not begun: it could not do "level list 7 at 20"/],
  [["go", "wait 2", "9 at full"], /"9 at full"/],
  [["go", "blub"], /"blub"/],
  [["1 thru 4 at 20", "record list 5 cue 1", "go list 5"], undefined],
  [["go", "wait 1", "// a bow", "release"], undefined],
])("%s", (lines, why) => (why ? expect(fault(...lines)).toMatch(why) : expect(fault(...lines)).toBeUndefined()));

test("what is looked at is not done", () => {
  const { world } = desk;
  fault("1 thru 4 at 20", "record list 5 cue 1");
  expect(desk.world).toBe(world);
});
