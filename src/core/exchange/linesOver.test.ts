/** Catches lines brought over that call another thing than they did, and differences told wrongly. */
import { newDesk, runLine } from "../desk/desk";
import type { Show } from "../show/schema";
import { brought, mappedByNumber, type BringRequest } from "./bring";
import { differsIn } from "./differs";
import { calledBy, lineOver, nameFixtures } from "./linesOver";

const later = (by: number) => (_: string, n: number) => n + by;

test("what a line calls by number is called by another, and nothing else in it moves", () => {
  for (const [line, made] of [
    ["palette 3", "palette 13"],
    ["1 thru 4 palette 3 effect 2 over 2", "1 thru 4 palette 13 effect 12 over 2"],
    ["group 1 thru 4 + 8 at 50", "group 11 thru 14 + 8 at 50"],
    ["go list 1 + 2 over 3", "go list 11 + 12 over 3"],
    ["replace palette 3 by 7", "replace palette 13 by 17"],
    ["merge palette 3 into 7", "merge palette 13 into 17"],
    ['record palette 4 "palette 5" type', 'record palette 14 "palette 5" type'],
    ["7 red stops palette 21 hold 3 palette 22", "7 red stops palette 31 hold 3 palette 32"],
    ['set list 2 cue 5 runs "macro 3"', 'set list 12 cue 5 runs "macro 3"'],
    ['say "a ""quoted"" word"', 'say "a ""quoted"" word"'],
  ])
    expect(lineOver(line!, later(10))).toBe(made);
  expect(lineOver("group 1 thru 3", (_, n) => (n === 2 ? 9 : n))).toBeUndefined();
  expect(
    [["1 thru 4 at 5"], ["group 1 + 8"], ["group 1 at 50"], ['record macro 1 "1 at 5"']].map(nameFixtures),
  ).toEqual([true, true, false, false]);
});

function made(...lines: string[]): Show {
  const desk = newDesk();
  for (const line of ["patch 6 kelp-wash as 1", ...lines]) {
    const done = runLine(desk, line);
    if (done) throw new Error(`${line}: ${JSON.stringify(done)}`);
  }
  return desk.world.show;
}

const theirs = made(
  "1 thru 6 pan at 30",
  'record palette 1 "Over the quay" each',
  'record group 2 "All"',
  'record macro 2 "Back" "delete macro 2" "go list 1"',
  'record macro 1 "Round" "macro 2" "group 2 palette 1"',
  "record cue 1",
  'set cue 1 runs "macro 1"',
);
const mine = made("1 thru 4 pan at -12", 'record palette 1 "Under the quay" each', 'record macro 1 "Mine" "clear"');
const id = (show: Show, what: "macros" | "lists" | "palettes", number: number) =>
  Object.values(show[what]).find((r) => r.number === number)!.id;
const request = (picks: BringRequest["picks"], clash: BringRequest["clash"] = "beside"): BringRequest => ({
  show: theirs,
  picks,
  fixtures: mappedByNumber(theirs, mine),
  clash,
});

test("a macro brings what its lines call, one that names itself among it, and calls it as it is called here", () => {
  expect(calledBy(theirs, ['group "All" palette 1', "go list 1"]).map(([what]) => what)).toEqual([
    "palette",
    "group",
    "list",
  ]);
  const { show, rows } = brought(mine, request({ macro: [id(theirs, "macros", 1)] }));
  expect(rows.map((r) => [r.what, r.number, r.as, r.along])).toEqual([
    ["macro", 2, 2, true],
    ["group", 2, 2, true],
    ["palette", 1, 2, true],
    ["macro", 1, 2 + 1, false],
  ]);
  const lines = (number: number) => Object.values(show.macros).find((m) => m.number === number)!.lines;
  expect(lines(1)).toEqual(["clear"]);
  expect(lines(3)).toEqual(["macro 2", "group 2 palette 2"]);
  expect(lines(2)).toEqual(["delete macro 2", "go list 1"]);
});

test("a line that a cue runs calls what came along", () => {
  const { show, rows } = brought(mine, request({ list: [id(theirs, "lists", 1)] }));
  const list = rows.find((r) => r.what === "list")!;
  expect(Object.values(show.lists[list.id]!.cues)[0]!.runs).toBe("macro 3");
});

test("lines that name fixtures are told where fixtures stand under other numbers", () => {
  const other = made("1 thru 6 at 5", 'record macro 5 "Front" "1 thru 3 at 50" "clear"');
  const [first, second] = Object.values(mine.fixtures);
  const swapped = { ...mappedByNumber(other, mine), [first!.id]: second!.id };
  const picks = { macro: [id(other, "macros", 5)] };
  expect(brought(mine, { show: other, picks, fixtures: swapped, clash: "beside" }).rows[0]!.asIs).toBe(1);
  const same = mappedByNumber(other, mine);
  expect(brought(mine, { show: other, picks, fixtures: same, clash: "beside" }).rows[0]!.asIs).toBe(0);
});

test("what would be replaced is told value by value", () => {
  const { show, rows } = brought(mine, request({ palette: [id(theirs, "palettes", 1)] }, "replace"));
  const [row] = rows;
  expect(row!.how).toBe("replaces");
  const { differs, more } = differsIn(show, mine.palettes[row!.mine!]!, show.palettes[row!.id]!);
  expect(more).toBe(0);
  expect(differs).toContainEqual({ where: "name", here: "Under the quay", there: "Over the quay" });
  expect(differs.filter((d) => /Pan/.test(d.where)).map((d) => [d.where, d.here, d.there])).toEqual([
    ["1 Pan", "-12°", "30°"],
    ["2 Pan", "-12°", "30°"],
    ["3 Pan", "-12°", "30°"],
    ["4 Pan", "-12°", "30°"],
    ["5 Pan", "nothing", "30°"],
    ["6 Pan", "nothing", "30°"],
  ]);
});

test("lists are compared cue by cue, by number", () => {
  const [a, b] = [made("1 at 20", "record cue 1 fade 2"), made("1 at 35", "record cue 1 fade 3", "record cue 2")];
  const { differs } = differsIn(b, Object.values(a.lists)[0]!, Object.values(b.lists)[0]!);
  expect(differs).toContainEqual({ where: "cue 1, 1 Dimmer", here: "20 %", there: "35 %" });
  expect(differs).toContainEqual({ where: "cue 1, times, up", here: "2", there: "3" });
  expect(differs).toContainEqual({ where: "cue 2", here: "not there", there: "stores 1 value" });
});
