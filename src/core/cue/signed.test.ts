/** Catches a signed look that breaks without being told, one that is told whole though it changed, and one that does not come back. */
import fc from "fast-check";
import { newDesk, runLine, type Desk } from "../desk/desk";
import { cuesOf, listNumbered } from "../show/world";
import { fixtureLook, sameLook } from "./looks";
import { othersIn } from "./signed";
import { trackingOf } from "./tracking";
import { runs } from "@tests/setup/runs";

const START = [
  "patch 3 kelp-wash as 1",
  "1 thru 3 at 60 pan at 10 colour at #204080",
  'record palette 1 "Blue" any only colour',
  "1 thru 3 palette 1",
  "record cue 1",
  "clear",
  "2 at 0 pan at 30",
  "record cue 2",
  "clear",
  "3 pan wave sine relative size 5",
  'record effect 1 "Sway"',
  "2 at 40",
  "record cue 3",
  "clear",
  "3 pan stop",
  "record cue 4",
  "clear",
  "sign off cue 1 thru 4",
];

const edit = fc.oneof(
  fc
    .record({
      cue: fc.integer({ min: 1, max: 4 }),
      fixture: fc.integer({ min: 1, max: 3 }),
      what: fc.constantFrom(
        "dimmer at 0",
        "dimmer at 60",
        "dimmer at 61",
        "pan at 10",
        "pan at 10.005",
        "pan at 44",
        "pan released",
      ),
      looks: fc.constantFrom("", " cueonly", " keeplooks"),
    })
    .map(({ cue, fixture, what, looks }) => `set cue ${cue} ${fixture} ${what}${looks}`),
  fc.integer({ min: 0, max: 3 }).map((n) => `set palette 1 ${(n % 3) + 1} blue at ${50 + (n > 2 ? 0 : n)} type`),
  fc.constantFrom(
    "set effect 1 bpm 20",
    "set effect 1 bpm 60",
    "block cue 3",
    "unblock cue 1",
    "set cue 2 fresh on",
    "move cue 2 to cue 3.5 track",
    "1 place 1 2 3",
    "set cue 2 3 dimmer at 0",
    "set cue 4 3 dimmer at 0",
  ),
);

function deskOf(lines: readonly string[]): Desk {
  const desk = newDesk();
  for (const line of lines) {
    const refusal = runLine(desk, line);
    if (refusal) throw new Error(`${line}: ${refusal.what}`);
  }
  return desk;
}

test("every changed look is found, and nothing else; what is brought back looks as it was signed", () => {
  const start = deskOf(START).world;
  const before = listNumbered(start.show, 1)!;
  const looksBefore = trackingOf(before, start.show);
  fc.assert(
    fc.property(fc.array(edit, { minLength: 1, maxLength: 5 }), (lines) => {
      const desk = newDesk(start);
      for (const line of lines) runLine(desk, line);
      const { show } = desk.world;
      const list = listNumbered(show, 1)!;
      const tracking = trackingOf(list, show);
      cuesOf(list).forEach((cue, at) => {
        const was = cuesOf(before).findIndex((c) => c.id === cue.id);
        const told = new Set(othersIn(show, list, at, cue.signed!).map((o) => o.fixture));
        for (const fixture of Object.values(show.fixtures)) {
          const same = sameLook(
            fixtureLook(start.show, start.show.fixtures[fixture.id]!, looksBefore, was),
            fixtureLook(show, fixture, tracking, at),
          );
          if (told.has(fixture.id) === same)
            throw new Error(
              `cue ${cue.number}, fixture ${fixture.number}: ${same ? "told, though the same" : "not told"}`,
            );
        }
        if (told.size === 0) return;
        expect(runLine(desk, `bring back cue ${cue.number}`)).toBeUndefined();
        const now = listNumbered(desk.world.show, 1)!;
        expect(othersIn(desk.world.show, now, at, cue.signed!)).toEqual([]);
        expect(runLine(desk, "undo")).toBeUndefined();
      });
    }),
    { numRuns: runs(120) },
  );
});
