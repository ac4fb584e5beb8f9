/** Catches a sheet whose lines, places or heads stay behind the list, or are made anew for nothing. */
import fc from "fast-check";
import type { Cue } from "@/core/show/schema";
import { linesAfter } from "./useLines";

const cue = (id: string, number: number, stores = 0): Cue =>
  ({ id, number, name: "", entries: stores ? { "f1.0.Dimmer": { attribute: "Dimmer", value: stores } } : {} }) as never;

const cues = fc.uniqueArray(fc.record({ id: fc.constantFrom("c1", "c2", "c3", "c4"), number: fc.nat(3) }), {
  selector: ({ id }) => id,
});

test("lines, places and heads are those of the cues as they are", () => {
  fc.assert(
    fc.property(fc.array(cues, { minLength: 1, maxLength: 6 }), (versions) => {
      let last: ReturnType<typeof linesAfter> | undefined;
      for (const version of versions) {
        const now = version.map(({ id, number }) => cue(id, number));
        last = linesAfter(last, now);
        expect(last.lines).toEqual(now.map((row, index) => ({ row, index })));
        expect([...last.places]).toEqual(now.map(({ id }, k) => [id, k]));
        expect(last.heads.cues.map(({ id, number }) => [id, number])).toEqual(now.map((c) => [c.id, c.number]));
      }
    }),
  );
});

test("what a cue stores makes its own line anew and nothing else", () => {
  const first = linesAfter(undefined, [cue("c1", 1), cue("c2", 2)]);
  const after = linesAfter(first, [first.lines[0]!.row, { ...first.lines[1]!.row, ...cue("c2", 2, 50) }]);
  expect(after.lines[0]).toBe(first.lines[0]);
  expect(after.lines[1]).not.toBe(first.lines[1]);
  expect([after.places, after.heads]).toEqual([first.places, first.heads]);
  expect([after.places === first.places, after.heads === first.heads]).toEqual([true, true]);
});
