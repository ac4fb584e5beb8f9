/** Catches a handbook whose pictures show something else than its words, or whose examples are no lines. */
import { demoWorld } from "@tests/setup/demo";
import { contextOf, newDesk, runLine } from "@/core/desk/desk";
import { readLine } from "@/core/command/read";
import { beamOf } from "@/core/patch/room";
import { MEANINGS, type Picture } from "./meanings";
import { beamsOf, cellsOf, curvesOf, gamutsOf, type Curve } from "./tinyShow";

function pictureOf<K extends Picture["kind"]>(title: string, kind: K): Extract<Picture, { kind: K }> {
  const { picture } = MEANINGS.find((m) => m.title === title)!;
  if (picture.kind !== kind) throw new Error(`${title} is drawn as ${picture.kind}`);
  return picture as Extract<Picture, { kind: K }>;
}
const refused = expect.objectContaining({ refused: true });
const valueAt = ({ points }: Curve, seconds: number) =>
  points.reduce((best, p) => (Math.abs(p[0] - seconds) < Math.abs(best[0] - seconds) ? p : best))[1];

test("every picture can be computed, and stays within its frame", () => {
  for (const { picture } of MEANINGS) {
    if (picture.kind !== "curves") continue;
    for (const { points } of curvesOf(picture)) {
      expect(points.at(-1)![0]).toBeCloseTo(picture.seconds, 5);
      for (const [, value] of points) {
        expect(value).toBeGreaterThanOrEqual(picture.range[0]);
        expect(value).toBeLessThanOrEqual(picture.range[1]);
      }
    }
  }
});

test("every example is a line of the language", () => {
  const desk = newDesk(demoWorld());
  for (const line of ["1 thru 12", "1 thru 12 at 50"]) expect(runLine(desk, line)).toBeUndefined();
  for (const { example } of MEANINGS) expect([example, readLine(example, contextOf(desk))]).not.toContainEqual(refused);
});

test("fades: up in two seconds, down in four after one", () => {
  const [up, down] = curvesOf(pictureOf("Fades", "curves")) as [Curve, Curve];
  expect([valueAt(up, 0.4), valueAt(up, 1.5), valueAt(up, 2.6)].map(Math.round)).toEqual([0, 40, 80]);
  expect([valueAt(down, 1.4), valueAt(down, 3.5), valueAt(down, 5.6)].map(Math.round)).toEqual([90, 50, 10]);
});

test("own times: one after the other", () => {
  const curves = curvesOf(pictureOf("Own times", "curves"));
  for (const [k, curve] of curves.entries()) {
    expect(valueAt(curve, k)).toBeLessThan(5);
    expect(valueAt(curve, k + 1.1)).toBeGreaterThan(99);
  }
});

test("moves in black: pan goes while it is dark, and is there before it is lit", () => {
  const [intensity, pan] = curvesOf(pictureOf("Moves in black", "curves")) as [Curve, Curve];
  expect(valueAt(pan, 1)).toBeLessThan(10);
  expect([valueAt(intensity, 5.8), Math.round(valueAt(pan, 5.8))]).toEqual([0, 90]);
  expect(valueAt(intensity, 7.5)).toBe(100);
});

test("latest and highest", () => {
  const [latest, highest] = curvesOf(pictureOf("Latest and highest", "curves")) as [Curve, Curve];
  expect([valueAt(latest, 0.5), valueAt(latest, 3), valueAt(latest, 6.4)].map(Math.round)).toEqual([50, 20, 50]);
  expect(highest.points.every(([, v]) => v === 50)).toBe(true);
});

test("tracking and cue only, cell by cell", () => {
  const states = (title: string) =>
    cellsOf(pictureOf(title, "cells")).map(({ cells }) => cells.map((c) => `${c.state} ${c.value ?? "-"}`));
  expect(states("Tracking")).toEqual([
    ["stored 40", "stored 40", "stored 40", "unset -"],
    ["stored 90", "tracked 40", "tracked 40", "unset -"],
    ["tracked 90", "tracked 40", "tracked 40", "stored 60"],
    ["released -", "stored 0", "tracked 40", "tracked 60"],
  ]);
  const [, second, third] = states("Cue only") as [string[], string[], string[]];
  expect(second[0]).toBe("stored 100");
  expect(third[0]).toBe("stored 40");
});

test("each mover's beam meets the point", () => {
  const picture = pictureOf("Aim", "aim");
  for (const { from, pan, tilt } of beamsOf(picture)) {
    const [dx, dy, dz] = beamOf({ turn: { x: 0, y: 0, z: 0 } }, pan, tilt);
    const long = (from[1] - picture.at[1]) / -dz;
    expect(Math.hypot(dx * long, from[0] + dy * long - picture.at[0])).toBeLessThan(0.01);
  }
});

test("what types reach has corners", () => {
  for (const { corners } of gamutsOf(pictureOf("Colour by xy and kelvin", "colours")))
    expect(corners.length).toBeGreaterThan(2);
});
