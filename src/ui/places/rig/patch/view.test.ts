/** Catches rows of the patch table sorted, filtered or counted wrongly. */
import { newDesk, runLine } from "@/core/desk/desk";
import { COLUMNS } from "./columns";
import { orderedColumns, rowsIn, startView, type SheetView } from "@/ui/base/sheet/view";
import { linesOf } from "./view";

const desk = newDesk();
for (const line of [
  "patch 2 kelp-wash as 20 at 2:1",
  "patch 3 dimmer as 1 at 1:1",
  "patch 1 kelp-wash as 5 unpatched",
  '2 name "Special"',
])
  runLine(desk, line);
const { show } = desk.world;
const view = startView(COLUMNS, false);
const numbers = (over: Partial<SheetView>, filter = "") =>
  rowsIn(linesOf(show, { ...view, ...over }, filter)).map((f) => f.number);

test("by number, unless sorted: up, down, unpatched ones last", () => {
  expect(numbers({})).toEqual([1, 2, 3, 5, 20, 21]);
  expect(numbers({ sort: { column: "name", down: false } })).toEqual([1, 3, 5, 20, 21, 2]);
  expect(numbers({ sort: { column: "addresses", down: false } })).toEqual([1, 2, 3, 20, 21, 5]);
  expect(numbers({ sort: { column: "number", down: true } })).toEqual([21, 20, 5, 3, 2, 1]);
});

test("every word of a filter has to be somewhere in the row", () => {
  expect(numbers({}, "kelp")).toEqual([5, 20, 21]);
  expect(numbers({}, "kelp 2:13")).toEqual([21]);
  expect(numbers({}, "SPECIAL")).toEqual([2]);
});

test("grouped by type, each under its title, counted through", () => {
  const lines = linesOf(show, { ...view, byType: true }, "");
  expect(lines.map((l) => ("row" in l ? `${l.index}:${l.row.number}` : `${l.title} ${l.count}`))).toEqual([
    "Generic Dimmer 3",
    "0:1",
    "1:2",
    "2:3",
    "Saltmarsh Kelp Wash 3",
    "3:5",
    "4:20",
    "5:21",
  ]);
});

test("columns that are new to a remembered order come last, unknown ones are forgotten", () => {
  expect(
    orderedColumns(COLUMNS, { ...view, order: ["note", "gone", "name"] })
      .map((c) => c.id)
      .slice(0, 3),
  ).toEqual(["number", "note", "name"]);
});
