/** Catches bars of own times that tell other times than are held. */
import { newDesk, runLine } from "@/core/desk/desk";
import { timeBars } from "./timeBars";

test("each of the selected with the longest times it has held of a family", () => {
  const desk = newDesk();
  for (const line of [
    "patch 3 kelp-wash as 1",
    "1 thru 3 at full delay 0 to 10 fade 2",
    "1 colour at #ff0000",
    "1 thru 3",
  ])
    expect(runLine(desk, line)).toBeUndefined();
  expect(timeBars(desk.world, "Intensity").map(({ delay, fade, own }) => [delay, fade, own])).toEqual([
    [0, 2, true],
    [5, 2, true],
    [10, 2, true],
  ]);
  expect(timeBars(desk.world, "Colour")).toEqual([
    { item: desk.world.hands.selection[0], delay: 0, fade: undefined, own: false },
  ]);
  expect(timeBars(desk.world, "Beam")).toEqual([]);
});
