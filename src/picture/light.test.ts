/** Catches a lamp painted in another colour or brightness than it gives. */
import { newDesk, runLine } from "@/core/desk/desk";
import type { Lit } from "./lit";
import { aim, aimOf, light, lightOf } from "./light";
import { lampsOf } from "./packed";

/** What the first fixture looks like after some lines. */
function look(...lines: string[]) {
  const desk = newDesk();
  for (const line of lines) expect(runLine(desk, line)).toBeUndefined();
  const { stage, rig } = desk.player;
  const half = { value: stage.value, raw: stage.raw, fn: stage.fn } as unknown as Lit;
  const lamp = lampsOf(desk.world.show, rig.index)[0]!;
  lightOf(lamp, lamp.sources[0]!, half);
  if (lamp.pan >= 0) aimOf(lamp, half);
  return { ...light, aim: { ...aim }, lamp };
}

test("colour and brightness follow dimmers, emitters, filters and wheels", () => {
  expect(look("patch 1 kelp-wash as 1", "1 at 50 colour at #ff0000")).toMatchObject({ r: 255, g: 0, b: 0, level: 0.5 });
  expect(look("patch 1 kelp-wash as 1", "1 at full shutter at 0").level).toBe(0);
  expect(look("patch 1 kelp-wash as 1", "1 at full strobe at 5").level).toBe(1);
  const blue = look("patch 1 petrel-spot as 1", "1 at full colour at #0000ff");
  expect([blue.b, blue.g < 60, blue.r < 120]).toEqual([255, true, true]);
  // One chromaticity looks the same, whatever mixes it.
  for (const xy of ["0.45 0.41", "0.25 0.3", "0.36 0.3"]) {
    const [spot, wash] = ["petrel-spot", "kelp-wash"].map((type) =>
      look(`patch 1 ${type} as 1`, `1 at full colour at xy ${xy}`),
    );
    for (const part of ["r", "g", "b"] as const) expect(Math.abs(spot![part] - wash![part])).toBeLessThan(14);
  }
  const amber = look("patch 1 petrel-spot as 1", "1 at full wheel at 2");
  expect(amber.r).toBeGreaterThan(amber.b);
  expect(look("patch 1 tide-bar as 1", "1 at 50", "1 cells at 50").level).toBeCloseTo(0.25);
  expect(look("patch 1 dimmer as 1", "1 at 0").level).toBe(0);
});

test("a mover aimed at a point is drawn to it, however it hangs", () => {
  for (const turn of ["0 0 0", "20 -10 130", "0 0 180"]) {
    const { aim: to } = look("patch 1 petrel-spot as 1", "1 place -2 5 6", `1 turn ${turn}`, "1 at full aim at 1 3 0");
    expect([to.x, to.y].map((v) => Math.round(v * 1e6) / 1e6)).toEqual([1, 3]);
  }
});

test("a mover points straight down at 0, towards the audience with tilt, and turns with pan", () => {
  const at = (line: string) => {
    const { aim: to, lamp } = look("patch 1 kelp-wash as 1", "1 place 0 4 5", `1 at full ${line}`);
    return [to.x - lamp.x, to.y - lamp.y].map((v) => Math.round(v * 100) / 100 + 0);
  };
  expect(at("pan at 0 tilt at 0")).toEqual([0, 0]);
  expect(at("pan at 0 tilt at 45")).toEqual([0, -5]);
  expect(at("pan at 90 tilt at 45")).toEqual([5, 0]);
  // The picture leaves swap and correction out: they make the real lamp do what it shows.
  expect(
    look("patch 1 kelp-wash as 1", "1 place 0 4 5", "1 swap on", "1 correct pan 30 tilt 5", "1 aim at 2 3 0").aim.x,
  ).toBeCloseTo(2);
});
