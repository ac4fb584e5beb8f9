/** Catches a half-typed line taken for an error, and an error taken for half-typed. */
import { contextOf, newDesk, runLine } from "./desk";
import { foresee, isUnfinished } from "./foresee";
import { linesOf } from "./lines";
import { isRefusal, refusalText } from "../show/refusal";

const desk = newDesk();
for (const line of [
  "patch 4 kelp-wash as 1",
  "patch 1 petrel-spot as 11",
  "1 thru 4",
  'record group 1 "Rail"',
  "1 thru 4 at 50",
  "record cue 1",
  "clear",
])
  if (runLine(desk, line)) throw new Error(line);
const of = (line: string) => foresee(line, contextOf(desk), { done: "patches 4", undone: null });

test.each([
  ["r", /record/],
  ["rec", /record/],
  ["record", /group/],
  ["record ", /group/],
  ["record cue", /cue number/],
  ["1 thru", /fixture number/],
  ["1 th", /thru/],
  ["1 thru 4 pa", /pan, palette, park/],
  ["1 thru 4 pan", /at, by/],
  ["1 thru 4 pan at ", /a value/],
  ["patch 5 petrel", /petrel-spot/],
  ["patch 5 ", /kelp-wash/],
  ['record group 2 "Ra', /closed with/],
  ["go list", /list number/],
  ["set cue 1 fa", /fade/],
  ["spread mir", /mirror/],
  ["group ", /group number/],
])("%s may still become a line", (line, follows) => {
  const found = of(line);
  expect(isUnfinished(found) ? found.follows : found).toEqual(expect.stringMatching(follows));
});

test.each([
  "1 thru 4 pan at 900",
  "99 at 50",
  "1 thru 4 zzz",
  "xyzzy",
  "go list 7",
  "record cue 0",
  "patch 0 petrel-spot",
  "patch 5 unheard-of",
  "1 at 50 50",
  "redo",
])("%s cannot, and why is said", (line) => {
  const found = of(line);
  expect(isRefusal(found) && refusalText(found)).toMatch(/[a-z]{3}.*[a-z]{3}/);
});

test.each([
  ["1 thru 4 at 50", /dimmer to 50/],
  ["undo", /takes back: patches 4/],
  ["go", /next cue/],
])("%s is one, and what it would do is said", (line, says) => {
  expect(of(line)).toMatchObject({ says: expect.stringMatching(says) });
});

test("what keeps later looks is asked of what a line means, however short it is typed", () => {
  const own = newDesk();
  for (const line of ["patch 4 dimmer as 1 at 1:1", "1 at 50", "record cue 5", "record cue 6 empty", "1 at 60"])
    expect(runLine(own, line)).toBeUndefined();
  const keeps = (line: string) => {
    const found = foresee(line, contextOf(own), { done: null, undone: null });
    if (!found || isRefusal(found) || isUnfinished(found)) throw new Error(`${line}: ${JSON.stringify(found)}`);
    return found.keeps?.flatMap((intent) => linesOf(own.world, [intent]));
  };
  for (const [line, kept] of [
    ["rec cue 5", /keeplooks/],
    ["upd cue 5", /keeplooks/],
    ["set cue 5 2 dimmer @ 40", /keeplooks/],
    ["dele cue 5 track", /keeplooks/],
    ["move cue 5 to cue 7 track", /keeplooks/],
  ] as const)
    expect(keeps(line)?.join()).toMatch(kept);
  for (const line of ["rec cue 5 keeplooks", "record cue 5 cueonly", "1 at 20", "delete cue 5 keeplooks"])
    expect(keeps(line)).toBeUndefined();
});
