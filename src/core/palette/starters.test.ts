/** Catches starter palettes that come twice, take numbers that are taken, or say nothing. */
import { newDesk, runLine } from "../desk/desk";
import { palettesByNumber } from "../show/world";
import { countsText } from "./words";

test("what the rig offers is recorded once, each with something to say", () => {
  const desk = newDesk();
  for (const line of ["patch 4 petrel-spot as 1", "patch 4 kelp-wash as 21", "patch 2 gull-scroller as 31"])
    runLine(desk, line);
  expect(runLine(desk, "starter palettes")).toBeUndefined();
  const all = palettesByNumber(desk.world.show);
  expect(all.length).toBeGreaterThan(40);
  expect(new Set(all.map((p) => p.number)).size).toBe(all.length);
  expect(all.filter((p) => countsText(p) === "nothing")).toEqual([]);
  expect(all.map((p) => p.name)).toEqual(
    expect.arrayContaining(["Centre", "Petrel Spot net", "Gull Scroller amber", "Narrow", "Deep red", "Warm white"]),
  );
  expect(runLine(desk, "starter palettes")?.what).toMatch(/not there already/);
  expect(runLine(desk, "undo")).toBeUndefined();
  expect(palettesByNumber(desk.world.show)).toEqual([]);
});
