/** Catches a history of lines that a drag or a round of clicks floods, or that says something else than was done. */
import { newDesk, runLine } from "@/core/desk/desk";
import { hold } from "@/core/program/intents";
import { select } from "@/core/select/intents";
import { setFixtures } from "@/core/patch/intents";
import type { PlayEvent } from "@/core/play/events";
import { linesDone, lineText, recalled, recordedLast, withLine, type DoneLine } from "./lines";

const desk = newDesk();
for (const line of ["patch 4 dimmer as 1", "1 thru 2"]) runLine(desk, line);
const before = desk.world;
const ids = Object.keys(before.show.fixtures);
const held = (value: number) => ({
  before,
  intents: [
    hold.of({
      values: Object.fromEntries(ids.slice(0, 2).map((id) => [`${id}.0.Dimmer`, { attribute: "Dimmer", value }])),
    }),
  ],
});
const chosen = (n: number) => ({ before, intents: [select.of({ items: ids.slice(0, n) })] });

test("what hands did is told as the line that does it; drags and rounds of clicks are one", () => {
  let lines: readonly DoneLine[] = withLine([], "1 thru 2");
  lines = withLine(lines, held(10));
  lines = withLine(lines, held(20), true);
  lines = withLine(lines, held(35), true);
  lines = withLine(lines, chosen(1));
  lines = withLine(lines, chosen(3));
  expect(lines.map(lineText)).toEqual(["1 thru 2", "at 35", "1 thru 3"]);
  lines = withLine(lines, "1 thru 2");
  expect(lines.map(lineText)).toEqual(["1 thru 2", "at 35", "1 thru 3", "1 thru 2"]);
  expect(recalled(lines)).toEqual(["1 thru 2", "1 thru 3", "at 35"]);
});

test("presses count each time, a fader only where it ends", () => {
  const [list] = Object.keys(before.show.lists);
  const played = (event: PlayEvent): DoneLine => ({ before, event });
  let lines: readonly DoneLine[] = [];
  for (const event of [
    { kind: "go", list: list! },
    { kind: "go", list: list! },
    { kind: "level", list: list!, value: 20 },
    { kind: "level", list: list!, value: 55 },
    { kind: "release", list: null },
  ] satisfies PlayEvent[])
    lines = withLine(lines, played(event));
  expect(lines.map(lineText)).toEqual(["go list 1", "go list 1", "level list 1 at 55", "release all"]);
});

test("what takes several lines gives them all to a macro", () => {
  const changes = { [ids[0]!]: { name: "A" }, [ids[1]!]: { name: "B" } };
  const line: DoneLine = { before, intents: [setFixtures.of({ changes, says: "names them" })] };
  expect(linesDone(line)).toEqual(['1 name "A"', '2 name "B"']);
  expect(lineText(line)).toBe('1 name "A" // and 1 more');
});

test("the cue recorded last is told only by what was done last", () => {
  const ask = (line: string) => (line === "record cue 4" ? [{ kind: "recordCue", list: 2, cue: 4 }] : []);
  expect(recordedLast(["record cue 4"], ask)).toEqual({ list: 2, cue: 4 });
  expect(recordedLast([{ before, intents: [{ kind: "recordCue", list: 1, cue: 7 }] }], ask)).toEqual({
    list: 1,
    cue: 7,
  });
  const lasts: DoneLine[] = ["1 thru 2", held(10), { before, event: { kind: "back", list: "l1" } }];
  for (const last of lasts) expect(recordedLast(["record cue 4", last], ask)).toBeNull();
  expect(recordedLast([], ask)).toBeNull();
});
