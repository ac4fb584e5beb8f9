/** Catches wrong plurals and runs of numbers in what is said. */
import { plural } from "./plural";
import { runsText } from "./runs";

test("counts are written with their word", () => {
  expect([plural(1, "fixture"), plural(4000, "fixture"), plural(2, "cue is", "cues are")]).toEqual([
    "1 fixture",
    "4,000 fixtures",
    "2 cues are",
  ]);
});

test("numbers are told as runs", () => {
  expect([runsText([]), runsText([5]), runsText([1, 2]), runsText([1, 2, 3, 4, 7, 9, 10, 11])]).toEqual([
    "",
    "5",
    "1, 2",
    "1 to 4, 7, 9 to 11",
  ]);
});
