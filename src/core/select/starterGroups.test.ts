/** Catches a type that gets no group, two groups, or one with other fixtures. */
import { newDesk, runLine } from "../desk/desk";
import { groupsByNumber } from "../show/world";

test("each type gets one group under a free number, and none twice", () => {
  const desk = newDesk();
  for (const line of [
    "patch 4 petrel-spot as 1",
    "patch 4 kelp-wash as 21",
    "patch 2 gull-scroller as 31",
    "21 thru 24",
    'record group 2 "Rail"',
  ])
    expect(runLine(desk, line)).toBeUndefined();
  expect(runLine(desk, "starter groups")).toBeUndefined();
  const said = groupsByNumber(desk.world.show).map((g) => [g.number, g.name, g.members.length]);
  // The washes have their group already, under a name of its own.
  expect(said).toEqual([
    [1, "Petrel Spot", 4],
    [2, "Rail", 4],
    [3, "Gull Scroller", 2],
  ]);
  expect(runLine(desk, "starter groups")?.what).toMatch(/already/);
  expect(runLine(desk, "undo")).toBeUndefined();
  expect(groupsByNumber(desk.world.show)).toHaveLength(1);
});
