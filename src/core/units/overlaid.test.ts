/** Catches a map with changes laid over it that is not the map with the changes made. */
import fc from "fast-check";
import { keysThatDiffer, overlaid } from "./overlaid";
import { runs } from "@tests/setup/runs";

const key = fc.integer({ min: 0, max: 400 });
const changes = fc.array(fc.tuple(key, fc.option(fc.integer(), { nil: undefined })), { maxLength: 120 });

test("versions laid over each other are as if each had been copied", () => {
  fc.assert(
    fc.property(fc.array(fc.tuple(key, fc.integer())), fc.array(changes, { maxLength: 8 }), (start, versions) => {
      const plain = new Map(start);
      let laid: ReadonlyMap<number, number> = new Map(start);
      for (const version of versions) {
        const [before, was] = [laid, new Map(plain)];
        const made = new Map(version);
        for (const [k, value] of made)
          if (value === undefined) plain.delete(k);
          else plain.set(k, value);
        laid = overlaid(laid, made);
        expect(laid.size).toBe(plain.size);
        expect(new Map(laid)).toEqual(plain);
        expect([...laid.values()].sort()).toEqual([...plain.values()].sort());
        for (const k of [...made.keys(), ...was.keys()]) expect([laid.get(k), laid.has(k)]).toEqual([plain.get(k), plain.has(k)]); // prettier-ignore
        expect(new Map(before)).toEqual(was);
        const differ = [...new Set([...was.keys(), ...plain.keys()])].filter((k) => was.get(k) !== plain.get(k));
        expect(keysThatDiffer(before, laid).sort()).toEqual(differ.sort());
        expect(keysThatDiffer(was, laid).sort()).toEqual(differ.sort());
      }
    }),
    { numRuns: runs(150) },
  );
});

test("what is there keeps its order, what is new comes last", () => {
  const map = new Map([
    ["b", 1],
    ["a", 2],
    ["c", 3],
  ]);
  const changed = overlaid<string, number>(map, new Map([["d", 4], ["a", 5], ["b", undefined]])); // prettier-ignore
  expect([...changed]).toEqual([
    ["a", 5],
    ["c", 3],
    ["d", 4],
  ]);
});
