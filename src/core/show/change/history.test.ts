/** Catches undo, redo, diffs and files that give another document than the very same. */
import fc from "fast-check";
import { contextOf, newDesk, runLine } from "../../desk/desk";
import { readLine } from "../../command/read";
import { perform } from "../../desk/perform";
import { canonical } from "../../exchange/canonical";
import { readShowFile, writeShowFile } from "../../exchange/showFile";
import { applyDiff, type Diff } from "./diff";
import { isRefusal } from "../refusal";
import { runs } from "@tests/setup/runs";

const n = fc.integer({ min: 1, max: 14 });
const line = fc.oneof(
  fc.tuple(n, n).map(([count, from]) => `patch ${count} kelp-wash as ${from}`),
  fc.tuple(n, fc.integer({ min: 1, max: 40 })).map(([count, from]) => `patch ${count} dimmer as ${from} unpatched`),
  fc.tuple(n, n, n).map(([a, b, v]) => `${a} thru ${b} at ${v * 7}`),
  fc.tuple(n, n).map(([a, v]) => `${a} thru 14 pan at ${-v} to ${v * 4} zoom at 10 delay 0 to ${v}`),
  n.map((a) => `${a} colour at #2ad1c9`),
  n.map((a) => `remove ${a}`),
  n.map((a) => `${a} thru 14 renumber ${a + 20}`),
  n.map((a) => `record group ${a % 4} "Some"`),
  fc
    .tuple(n, n)
    .map(
      ([cue, fade]) => `record cue ${cue / 2} fade ${fade}${cue % 2 ? " cueonly" : ""}${fade % 3 ? "" : " overwrite"}`,
    ),
  n.map((cue) => `delete cue ${cue / 2}${cue % 2 ? " track" : ""}`),
  n.map((cue) => `set cue ${cue / 2} name "Tide"`),
  fc.constantFrom(
    "clear",
    "all",
    "none",
    "others",
    "order reverse",
    "next",
    "spread mirror 2",
    "1 thru 5 locate",
    "undo",
    "redo",
  ),
);

test("undoing everything gives the first document, redoing everything the last; the journal gives it too", () => {
  fc.assert(
    fc.property(fc.array(line, { maxLength: 25 }), (lines) => {
      const desk = newDesk();
      const first = desk.world;
      let replayed = desk.world;
      const journal: Diff[] = [];
      for (const text of lines) {
        const read = readLine(text, contextOf(desk));
        if (read === undefined || isRefusal(read)) continue;
        const done = perform(desk, read);
        if (!isRefusal(done)) journal.push(done.diff);
        runLine(desk, text);
      }
      for (const diff of journal) replayed = applyDiff(replayed, JSON.parse(JSON.stringify(diff)) as Diff);
      expect(canonical(replayed)).toBe(canonical(desk.world));

      const last = desk.world;
      while (desk.history.undone.length > 0) runLine(desk, "redo");
      const end = canonical({ show: desk.world.show, held: desk.world.hands.held });
      while (desk.history.done.length > 0) runLine(desk, "undo");
      expect(canonical(desk.world.show)).toBe(canonical(first.show));
      expect(desk.world.hands.held).toEqual({});
      while (desk.history.undone.length > 0) runLine(desk, "redo");
      expect(canonical({ show: desk.world.show, held: desk.world.hands.held })).toBe(end);

      const bytes = writeShowFile(last.show);
      const back = readShowFile(bytes);
      expect(isRefusal(back) ? back : canonical(back)).toBe(canonical(last.show));
      if (!isRefusal(back)) expect(Buffer.from(writeShowFile(back)).equals(Buffer.from(bytes))).toBe(true);
    }),
    { numRuns: runs(60) },
  );
});

test("a drag over many is undone to before its first step, and is no longer than what it is of", () => {
  const desk = newDesk();
  for (const text of ["patch 20 kelp-wash as 1", "1 thru 20 at 10", "1 thru 10"]) runLine(desk, text);
  const began = desk.world;
  let history = desk.history;
  for (let level = 20; level < 80; level += 5) {
    const read = readLine(level === 50 ? "11 thru 20 at 5" : `1 thru 15 at ${level}`, contextOf(desk));
    if (!read || isRefusal(read)) throw new Error("not read");
    const done = perform({ world: desk.world, history }, { ...read, join: level > 20 });
    if (isRefusal(done)) throw new Error(done.what);
    desk.world = done.world;
    history = done.history;
  }
  expect(history.done.at(-1)!.diff).toHaveLength(20);
  const back = perform({ world: desk.world, history }, { intents: [], events: [], control: "undo" });
  if (isRefusal(back)) throw new Error(back.what);
  expect(back.world.hands.held).toEqual(began.hands.held);
  const again = perform(back, { intents: [], events: [], control: "redo" });
  if (isRefusal(again)) throw new Error(again.what);
  expect(again.world.hands.held).toEqual(desk.world.hands.held);
});
