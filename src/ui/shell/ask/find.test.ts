/** Catches things of the show that are not found by their names in the Ask bar, or whose line does not act on them. */
import { contextOf, newDesk, runLine } from "@/core/desk/desk";
import { readLine } from "@/core/command/read";
import { isRefusal } from "@/core/show/refusal";
import { findByName } from "./find";

const desk = newDesk();
for (const line of [
  "patch 4 kelp-wash as 1",
  "1 thru 4",
  'record group 1 "Tide line"',
  "at 50",
  'record palette 7 "Tide half" any',
  'record cue 1 "Tide in"',
  "1 thru 4 pan wave sine low 0 high 10 bpm 30",
  'record effect 3 "Tide sways"',
  'record macro 2 "Tide out" "release all"',
  '2 name "Tide lamp"',
])
  expect([line, runLine(desk, line)]).toEqual([line, undefined]);

test("groups, palettes, cues, effects, macros and fixtures are found, each with a line that is read", () => {
  const found = findByName(desk.world, "tide");
  expect(found.map((f) => f.label)).toEqual([
    "group 1 Tide line",
    "palette 7 Tide half",
    "cue 1 Tide in",
    "effect 3 Tide sways",
    "macro 2 Tide out",
    "fixture 2 Tide lamp",
  ]);
  for (const { line } of found) {
    const read = readLine(line, contextOf(desk));
    expect(read !== undefined && !isRefusal(read)).toBe(true);
  }
  expect(findByName(desk.world, "kelp wash").map((f) => f.line)).toEqual(['group "Kelp Wash"', "1", "3", "4"]);
  expect(findByName(desk.world, "t")).toEqual([]);
});
