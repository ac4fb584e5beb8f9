/** Catches a beam server that is drawn with another pattern, size or place than it projects. */
import { newDesk, runLine } from "@/core/desk/desk";
import { light, lightOf } from "./light";
import type { Lit } from "./lit";
import { lampsOf } from "./packed";
import { patternName, PATTERN_NAMES, patternShape, projected, throwOf } from "./patterns";
import { beam, beamOf } from "./room/beam";
import { roomLampsOf } from "./room/lamps";

function shown(...lines: string[]) {
  const desk = newDesk();
  for (const line of lines) expect(runLine(desk, line)).toBeUndefined();
  const { stage, rig } = desk.player;
  const lit: Lit = { value: stage.value, fn: stage.fn };
  const [lamp] = lampsOf(desk.world.show, rig.index);
  const now = projected(lamp!.sources[0]!, lit);
  lightOf(lamp!, lamp!.sources[0]!, lit);
  const [inRoom] = roomLampsOf(desk.world.show, rig.index);
  const asked: string[] = [];
  beamOf(inRoom!, lit, 12, 0, (name) => asked.push(name));
  return { now, level: light.level, at: throwOf(lamp!, now?.size ?? 1), asked, spread: beam.spread };
}

test("the pattern is that of its page, as large as its size, and page 0 with pattern 0 is dark", () => {
  const server = ["patch 1 foghorn-beams as 1", "1 at full HSB_Hue at 120"];
  expect(shown(...server).level).toBe(0);
  const fan = shown(...server, "1 MediaFolder1 at 1 MediaContent1 at 1 VideoScale at 50");
  expect(fan).toMatchObject({ now: { page: 1, pattern: 1, size: 0.5 }, level: 1, asked: ["Pattern/1 1"] });
  const whole = shown(...server, "1 MediaFolder1 at 1 MediaContent1 at 1 VideoScale at 100");
  expect(whole.at.across).toBeCloseTo(2 * fan.at.across);
  expect(whole.spread).toBeCloseTo(2 * fan.spread);
  // A server without pages has the patterns of the first; one of pictures that are not known goes round.
  expect(shown("patch 1 foghorn-mini as 1", "1 at full MediaContent1 at 4").asked).toEqual(["Pattern/1 4"]);
  expect(shown(...server, "1 MediaFolder1 at 2 MediaContent1 at 3").asked).toEqual(["Pattern/sequence"]);
  expect(PATTERN_NAMES).toContain(patternName(2, 3));
  expect(patternShape(1, 5)).toBeDefined();
  expect(shown("patch 1 petrel-spot as 1", "1 at full").now).toBeUndefined();
});

test("it is thrown where its beam goes, and lies round a server that hangs straight down", () => {
  const at = (...lines: string[]) => shown("patch 1 foghorn-beams as 1", "1 place 2 8 1", ...lines).at;
  const ahead = at("1 turn -100 0 0");
  expect([ahead.x, ahead.y, ahead.dx, ahead.dy].map((v) => Math.round(v * 100) / 100)).toEqual([2, 8, 0, -1]);
  expect(ahead.along).toBeGreaterThan(5);
  const left = at("1 turn -100 0 90");
  expect(left.dx).toBeCloseTo(1);
  const down = at();
  expect([down.x, down.y + down.along / 2]).toEqual([2, 8]);
});
