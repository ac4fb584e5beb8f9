/** Catches tiles that say wrongly for whom a palette has something, and whether the selection stands in it. */
import { newDesk, runLine } from "@/core/desk/desk";
import { askerOf, saidBy } from "@/core/palette/lookup";
import { allTargets } from "@/core/show/model";
import { palettesByNumber } from "@/core/show/world";
import { reachOf, stateOf } from "./tiles";

const desk = newDesk();
const does = (...lines: string[]) => lines.forEach((line) => expect(runLine(desk, line)).toBeUndefined());
does("patch 4 kelp-wash as 1", "patch 2 dimmer as 11", "1 thru 4 colour at #ff8800", 'record palette 1 "Amber" type');
does("clear", "2 colour at #00ff88", "record palette 1 each merge", "clear");
does("1 thru 4 palette 1", 'record palette 2 "Same" each', "clear");

const palette = (number: number) => palettesByNumber(desk.world.show).find((p) => p.number === number)!;
const stands = (number: number) => {
  const { show, hands } = desk.world;
  return stateOf(hands.held, palette(number), reachOf(show, hands.selection, palette(number)));
};

test("it has something for those of its type, and stands where all of it is held", () => {
  does("1 thru 4 + 11 thru 12");
  expect(stands(1)).toEqual({ has: 4, of: 6, stands: false });
  does("palette 1");
  expect(stands(1)).toEqual({ has: 4, of: 6, stands: true });
  does("3 colour at #0000ff", "1 thru 4");
  expect(stands(1).stands).toBe(false);
  does("clear", "11 thru 12");
  expect(stands(1)).toEqual({ has: 0, of: 2, stands: false });
});

test("asked for thousands it says what it says for each, with exceptions and through other palettes", () => {
  const { show } = desk.world;
  for (const { id } of palettesByNumber(show)) {
    const ask = askerOf(show, id);
    for (const fixture of Object.keys(show.fixtures))
      for (const { key, spec } of allTargets(show, fixture)) expect(ask(key, spec)).toEqual(saidBy(show, id, key));
  }
});
