/** Catches a values sheet that leaves out fixtures, or shows what its filter does not mean. */
import { newDesk, runLine } from "@/core/desk/desk";
import { compute } from "@/core/play/player";
import { fillHalf, layoutOf } from "@/engine/fill";
import { frameBytes, openFrame, publish, wholeHalf } from "@/engine/frame";
import { viewOf } from "@/engine/view";
import { activeNow, rowsOf } from "./rows";

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

test("every fixture, and for each type the columns it has", () => {
  const { rows, columns } = rowsOf(desk.world, "all", null);
  expect(rows.map((r) => r.number)).toEqual([1, 2, 3, 21, 22]);
  expect(columns.get("petrel-spot")).toEqual(
    expect.arrayContaining(["Dimmer", "Pan", "ColorSub_C", "Gobo1", "Gobo1PosRotate"]),
  );
  expect(columns.get("kelp-wash")).toContain("ColorAdd_W");
  expect(columns.get("kelp-wash")).not.toContain("Gobo1");
});

test("only what is not at its default on stage, by whatever comes", () => {
  const layout = layoutOf(desk.player);
  const frame = openFrame(layout, new ArrayBuffer(frameBytes(layout)));
  publish(frame, (half) => fillHalf(half, desk.player, half.bytes));
  const active = activeNow(desk.world, wholeHalf(frame), viewOf(layout, frame));
  const { rows, columns } = rowsOf(desk.world, "active", running, active);
  expect(rows.map((r) => r.number)).toEqual([21]);
  expect(columns.get("kelp-wash")).toEqual(["Dimmer"]);
});

test.each([
  ["selected", [1, 2], ["Dimmer", "Pan"]],
  ["held", [21], ["Dimmer"]],
  ["in the cue", [1], ["Dimmer"]],
] as const)("only %s", (shown, numbers, wanted) => {
  const { rows, columns } = rowsOf(desk.world, shown, running);
  expect(rows.map((r) => r.number)).toEqual(numbers);
  const own = columns.get(rows[0]!.type)!;
  expect(own).toEqual(expect.arrayContaining([...wanted]));
  // What is held or stored comes without empty columns.
  expect(own.length > 5).toBe(shown === "selected");
});
