/** Catches a removal that takes something along without a word. */
import { newDesk, runLine } from "../desk/desk";
import { fixtureNumbered } from "../show/world";
import { goesAlong } from "./removedWith";

test("groups, cues of every list, exceptions and effects are named", () => {
  const desk = newDesk();
  for (const line of [
    "patch 4 kelp-wash as 1",
    "1 thru 4",
    'record group 1 "Rail"',
    "1",
    'record group 2 "Alone"',
    "1 thru 4 red at 50",
    "record cue 1",
    'record palette 3 "Glow"',
    "1 red at 90",
    "record list 2 cue 7",
    "1 dimmer wave sine low 0 high 50",
    'record effect 5 "Swell" cast',
    "clear",
  ])
    expect([line, runLine(desk, line)]).toEqual([line, undefined]);
  const { show } = desk.world;
  const id = (n: number) => fixtureNumbered(show, n)!.id;
  const found = goesAlong(show, [id(1)]);
  expect(found.groups).toEqual(["1 Rail loses 1 of 4", "2 Alone would be empty"]);
  expect(found.cues.map((c) => c.replace(/ .*:/, ":"))).toEqual(["1: cue 1", "2: cue 7"]);
  expect(found.effects).toEqual(["5 Swell"]);
  expect(goesAlong(show, [])).toEqual({ groups: [], cues: [], palettes: [], effects: [] });
});
