/** Catches a sheet that shows what the stage does not. */
import fc from "fast-check";
import { newDesk, runLine, wait, type Desk } from "@/core/desk/desk";
import { stageValues } from "@/core/play/stage/look";
import { specOf } from "@/core/show/model";
import type { CueList } from "@/core/show/schema";
import { cuesOf, fixtureNumbered, listNumbered } from "@/core/show/world";
import { cellOf } from "./sheetCell";
import { runs } from "@tests/setup/runs";

const value = fc.constantFrom("at 0", "at 50", "at full", "red at 20", "pan at 30", "zoom at 15", "red release");
const cue = fc.array(fc.tuple(fc.integer({ min: 1, max: 3 }), value), { minLength: 1, maxLength: 4 });
const shown = fc.record({
  lines: cue,
  reach: fc.option(fc.integer({ min: 0, max: 2 }), { freq: 4 }),
  fresh: fc.nat(6),
});

function build(cues: readonly (readonly [number, string])[][]): Desk {
  const desk = newDesk();
  runLine(desk, "patch 3 kelp-wash as 1 at 1:1");
  cues.forEach((lines, i) => {
    for (const [fixture, what] of lines) runLine(desk, `${fixture} ${what}`);
    runLine(desk, `record cue ${i + 1} fade 0`);
    runLine(desk, "clear");
  });
  return desk;
}
const listOf = (desk: Desk): CueList => listNumbered(desk.world.show, 1)!;

test("the sheet shows what the engine does in any cue", () => {
  fc.assert(
    fc.property(fc.array(shown, { minLength: 1, maxLength: 6 }), fc.nat(), (made, pick) => {
      const desk = build(made.map((m) => m.lines));
      made.forEach(({ reach, fresh }, i) => {
        if (fresh === 0) runLine(desk, `set cue ${i + 1} fresh on`);
        if (reach !== null) runLine(desk, `set cue ${i + 1} reach ${i + 1 + reach}`);
      });
      runLine(desk, "set list 1 blackmoves off");
      const at = pick % made.length;
      runLine(desk, `go cue ${at + 1}`);
      wait(desk, 1);
      const list = listOf(desk);
      for (const number of [1, 2, 3])
        for (const attribute of ["Dimmer", "ColorAdd_R", "Pan", "Zoom"]) {
          const { id } = fixtureNumbered(desk.world.show, number)!;
          const key = `${id}.0.${attribute}`;
          const cell = cellOf(desk.world.show, list, cuesOf(list)[at]!, at, key, false);
          const text = String(cell.content).replace(/[^\d.-]/g, "");
          const seen = text === "" ? specOf(desk.world.show, key)!.default : Number(text);
          expect([key, Math.round(stageValues(desk.player, id, attribute)[0]! * 10) / 10]).toEqual([
            key,
            Math.round(seen * 10) / 10,
          ]);
        }
    }),
    { numRuns: runs(120) },
  );
});
