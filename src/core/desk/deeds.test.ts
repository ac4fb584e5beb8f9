/** Catches a button that does something else than the line it names. */
import { demoWorld } from "@tests/setup/demo";
import { timingDeed } from "../command/cueTiming";
import { blind, clearOver, copyFrom, HOME, LOCATE, OTHERS_OUT, PARK, UNPARK } from "../command/deeds";
import { readLine } from "../command/read";
import { attempt, isRefusal, refusalText } from "../show/refusal";
import { cuesOf, fixtureNumbered } from "../show/world";
import { foresee, isUnfinished, palettesIn } from "./foresee";
import { contextOf, newDesk, runLine } from "./desk";

const desk = newDesk(demoWorld());
for (const line of ["go list 1 cue 3", "1 thru 3 at 40 pan at 10", "7 park", "7 thru 9"])
  expect(runLine(desk, line)).toBeUndefined();
const context = contextOf(desk);

test.each([HOME, LOCATE, OTHERS_OUT, PARK, UNPARK, copyFrom(1), clearOver(2.5), blind(true), blind(false)])(
  "$line",
  ({ line, make }) => {
    const read = readLine(line, context);
    if (read === undefined || isRefusal(read)) throw new Error(line);
    expect(make(context)).toEqual(read.intents);
  },
);

test("a deed that cannot be done says why", () => {
  const none = contextOf(newDesk(demoWorld()));
  const refused = attempt(() => HOME.make(none));
  expect(isRefusal(refused) && refusalText(refused)).toBe(
    "nothing is selected. Select some fixtures first, such as: 1 thru 12",
  );
});

/** A cue that stores intensity of 41 to 64, and fixtures by their numbers. */
const list = context.world.show.lists.l1!;
const cue = cuesOf(list)[2]!;
const numbered = (...numbers: number[]) => numbers.map((n) => fixtureNumbered(context.world.show, n)!.id);

test.each([
  ["delay 0 to 3", [41, 42, 43, 44], { delay: [0, 3] }],
  ["delay 0 to 3 fade 2.5", [50, 51, 52, 41, 42, 60], { delay: [0, 3], fade: [2.5] }],
])("own times are what the line of the deed gives, whatever the order of rows: %s", (times, numbers, given) => {
  const deed = timingDeed({ list, cue, items: numbered(...numbers), family: "Intensity" }, given, context.world);
  expect(deed.line.endsWith(` intensity ${times}`)).toBe(true);
  const read = readLine(deed.line, context);
  expect(read && !isRefusal(read) && read.intents).toEqual(deed.make(context));
});

test("own times that are not there cannot be taken away", () => {
  const deed = timingDeed({ list, cue, items: numbered(41), family: "Intensity" }, {}, context.world);
  const refused = attempt(() => deed.make(context));
  expect(isRefusal(refused) && refused.what).toMatch(/has no own timing of intensity/);
});

test("which palettes a line changes is asked of the edit, however the line is shortened", () => {
  const busy = newDesk(demoWorld());
  for (const line of ["21 palette 41", "21 colour at #ff0000"]) expect(runLine(busy, line)).toBeUndefined();
  const changed = (line: string) => {
    const found = foresee(line, contextOf(busy), { done: null, undone: null });
    if (found === undefined || isRefusal(found) || isUnfinished(found)) throw new Error(line);
    return palettesIn(found.diff).map((id) => context.world.show.palettes[id]!.number);
  };
  for (const line of ["update palette 41", "upd palette 41", "upd pal 41", "rec palette 41 merge"])
    expect(changed(line)).toEqual([41]);
  expect(changed("41 at 20")).toEqual([]);
});
