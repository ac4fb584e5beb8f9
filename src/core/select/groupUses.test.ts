/** Catches a group that is said to be unused while cues and lines need it. */
import { newDesk, runLine } from "../desk/desk";
import { groupsByNumber } from "../show/world";
import { groupUses } from "./groupUses";

const desk = newDesk();
for (const line of [
  "patch 6 dimmer as 1",
  "1 thru 3",
  'record group 2 "Rail"',
  "4 thru 6",
  "record group 3",
  "1 thru 3 at 50",
  "record cue 1",
  "clear",
  "2 at 20",
  "record cue 2",
  "clear",
  "5 at 20",
  "record cue 3",
  "3 thru 4 at 80",
  "record list 4 cue 1",
  'record macro 7 "Rail up" "group 1 thru 2 at 30"',
  'record macro 8 "Other" "group 21 at 30"',
])
  if (runLine(desk, line)) throw new Error(line);
const usesOf = (number: number) => {
  const { lists, lines } = groupUses(desk.world, groupsByNumber(desk.world.show).find((g) => g.number === number)!.id);
  return { lists: lists.map(({ list, all, some }) => [list.number, all, some]), lines };
};

test("cues that store something of all of it, of some of it, and macros that name it", () => {
  expect(usesOf(2)).toEqual({
    lists: [
      [1, [1], [2]],
      [4, [], [1]],
    ],
    lines: { macros: [7], cues: 0 },
  });
  expect(usesOf(3)).toEqual({
    lists: [
      [1, [], [3]],
      [4, [], [1]],
    ],
    lines: { macros: [], cues: 0 },
  });
});
