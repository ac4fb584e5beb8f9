/** Catches a values sheet that leaves out fixtures, or shows what its filter does not mean. */
import { newDesk, runLine } from "@/core/desk/desk";
import { compute } from "@/core/play/player";
import { rowsOf, type Row } from "./rows";

const desk = newDesk();
for (const line of [
  "patch 3 petrel-spot as 1",
  "patch 2 kelp-wash as 21",
  "1 at 50",
  "record cue 1",
  "clear",
  "21 at 40",
  "1 thru 2",
])
  if (runLine(desk, line)) throw new Error(line);
compute(desk.player);
const list = Object.values(desk.world.show.lists)[0]!;
const running = { list: list.id, cue: Object.keys(list.cues)[0]! };
const said = (rows: readonly Row[]) => rows.map((r) => (r.kind === "section" ? `${r.model} ${r.count}` : r.number));
const none = new Set<string>();

test("fixtures stand in sections by type, each with the columns of its type", () => {
  const rows = rowsOf(desk.world, "all", null, none);
  expect(said(rows)).toEqual(["Petrel Spot 3", 1, 2, 3, "Kelp Wash 2", 21, 22]);
  const [spot, wash] = rows.flatMap((r) => (r.kind === "section" ? [r.columns] : []));
  expect(spot).toEqual(expect.arrayContaining(["Dimmer", "Pan", "ColorSub_C", "Gobo1", "Gobo1PosRotate"]));
  expect(wash).toContain("ColorAdd_W");
  expect(wash).not.toContain("Gobo1");
});

test.each([
  ["selected", ["Petrel Spot 2", 1, 2]],
  ["held", ["Kelp Wash 1", 21]],
  ["in the cue", ["Petrel Spot 1", 1]],
] as const)("only %s", (shown, wanted) => {
  expect(said(rowsOf(desk.world, shown, running, none))).toEqual(wanted);
});

test("a folded section keeps its head", () => {
  expect(said(rowsOf(desk.world, "all", null, new Set(["petrel-spot"])))).toEqual([
    "Petrel Spot 3",
    "Kelp Wash 2",
    21,
    22,
  ]);
});
