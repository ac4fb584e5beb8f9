/** Catches a button that does something else than the line it names. */
import { demoWorld } from "@tests/setup/demo";
import { cueTimesIn, ownTimesIn } from "../command/cueTiming";
import { blind, clearOver, copyFrom, HOME, LOCATE, OTHERS_OUT, PARK, UNPARK } from "../command/deeds";
import { readLine } from "../command/read";
import { attempt, isRefusal, refusalText } from "../show/refusal";
import { cuesOf } from "../show/world";
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

test("own times of a cue's rows are what the line gives them", () => {
  const list = context.world.show.lists.l1!;
  const cue = cuesOf(list)[2]!;
  const items = Object.values(context.world.show.fixtures)
    .filter((f) => f.number >= 41 && f.number <= 44)
    .map((f) => f.id);
  const of = { list, cue, items, what: { families: ["Intensity"] as const } };
  const spread = ownTimesIn(of, { delays: [0, 3] }, context);
  const typed = readLine(`set list 1 cue ${cue.number} 41 thru 44 intensity delay 0 to 3`, context);
  expect(typed && !isRefusal(typed) && typed.intents).toEqual([spread]);
  const refused = attempt(() => cueTimesIn(of, context));
  expect(isRefusal(refused) && refused.what).toMatch(/has no own timing of intensity/);
});
