/** Catches a count of cues and values that goes on wrongly: a show would be refused that opens, or one made that does not. */
import fc from "fast-check";
import { newDesk, runLine } from "../../desk/desk";
import { listCounts } from "./counts";
import { runs } from "@tests/setup/runs";

const line = fc.oneof(
  fc.nat(12).map((k) => `record cue ${k + 1}`),
  fc.nat(12).map((k) => `delete cue ${k + 1}`),
  fc.tuple(fc.nat(11), fc.nat(100)).map(([k, v]) => `${k + 1} thru 12 at ${v}`),
  fc.tuple(fc.nat(11), fc.nat(11)).map(([a, b]) => `copy cue ${a + 1} to ${b + 1}`),
  fc.constantFrom("clear", "undo", "redo", "new list 2", "delete list 2", "all pan at 20", "unpatch 3", "delete 3"),
);

test("counted on from edit to edit, a show stores what a count from the start finds", () => {
  fc.assert(
    fc.property(fc.array(line, { minLength: 5, maxLength: 40 }), (lines) => {
      const desk = newDesk();
      for (const text of ["patch 12 kelp-wash as 1", "all at 50", ...lines]) {
        runLine(desk, text);
        const { show } = desk.world;
        expect(listCounts(show)).toEqual(listCounts({ lists: structuredClone(show.lists) }));
      }
    }),
    { numRuns: runs(40) },
  );
});
