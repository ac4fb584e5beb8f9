/** Catches a cue sheet that says otherwise than the list. */
import { newDesk, runLine } from "../desk/desk";
import { readTable } from "./tableText";
import { writeCues } from "./cueTable";
import { isRefusal } from "../show/refusal";

test("a cue sheet says names, times, starts and marks, quotes and commas kept", () => {
  const desk = newDesk();
  for (const line of [
    "patch 3 dimmer as 1",
    "1 thru 3 at 50",
    'record cue 1 "Dawn, ""red""" up 4 down 2 delay 1',
    'set cue 1 note "on the bell"',
    "record cue 2 auto 3",
    "set cue 2 fresh on",
    "set cue 2 then cue 1",
    "set cue 2 curve late",
    "set cue 2 position fade 3",
    "set cue 2 reach +1",
    "sign off cue 1",
    "clear",
    "record cue 3 auto done 0 empty",
  ])
    expect(runLine(desk, line)).toBeUndefined();
  const table = readTable(writeCues(desk.world.show));
  if (isRefusal(table)) throw new Error(table.what);
  expect(table.rows.slice(1).map((r) => r.join("|"))).toEqual([
    '1|1|Dawn, "red"|on the bell|4|1|2|1|go|signed|3 values of 3 fixtures',
    "1|2|||3|0|3|0|3 s after the previous go|fresh start, reach 3, then 1, intensity late, position fade 3 s|3 values of 3 fixtures",
    "1|3|||3|0|3|0|0 s after the previous cue is complete||nothing",
  ]);
});
