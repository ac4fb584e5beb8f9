/** Catches a timeline that shows another transition than the one that is played. */
import { newDesk, runLine, wait } from "../../desk/desk";
import { cuesOf, listNumbered } from "../../show/world";
import { stageValues } from "../stage/look";
import { transitionOf } from "./transition";

test("every fixture's way into a cue, with delays, own times and follow-ons, as the desk plays it", () => {
  const desk = newDesk();
  for (const line of [
    "patch 4 dimmer as 1 at 1:1",
    "1 thru 3 at full",
    "record cue 1 fade 0",
    "clear",
    "1 thru 2 at 0",
    "3 at 50 delay 2 fade 4",
    "4 at 20",
    "record cue 2 up 1 down 3 downdelay 1",
    "set cue 2 curve early",
    "clear",
    "4 at 0",
    "record cue 3 auto done 1 fade 2",
    "record cue 4 auto 2",
    "clear",
  ])
    expect(runLine(desk, line)).toBeUndefined();
  const { show } = desk.world;
  const list = listNumbered(show, 1)!;
  const made = transitionOf(show, list, cuesOf(list)[1]!.id, 25)!;
  expect(made.complete).toBe(6);
  expect(made.follows.map((f) => [list.cues[f.cue]!.number, f.at])).toEqual([
    [3, 7],
    [4, 9],
  ]);
  // 1 and 2 do the same.
  expect(made.curves.map((c) => c.fixtures.length)).toEqual([2, 1, 1]);
  expect(made.curves[1]!.own).toEqual({ delay: 2, fade: 4 });
  expect(made.curves.map((c) => [c.moves!.from, c.moves!.to])).toEqual([
    [1, 4],
    [2, 6],
    [0, 1],
  ]);
  for (const line of ["go", "go"]) expect(runLine(desk, line)).toBeUndefined();
  const at = (number: number) => Object.values(show.fixtures).find((f) => f.number === number)!.id;
  made.times.forEach((time, k) => {
    if (k > 0) wait(desk, time - made.times[k - 1]!);
    for (const curve of made.curves)
      expect(curve.values[k]).toBeCloseTo(stageValues(desk.player, curve.fixtures[0]!, "Dimmer")[0]!, 5);
  });
  expect(made.curves.some((c) => c.fixtures.includes(at(4)))).toBe(true);
});
