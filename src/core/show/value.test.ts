import fc from "fast-check";
import { EntrySchema, isPlainEntry } from "./value";
import { runs } from "@tests/setup/runs";

const name = fc.oneof(fc.constantFrom("Pan", "ColorAdd_R", "", "x".repeat(60), "x".repeat(61)), fc.string());
const typeId = fc.oneof(fc.constantFrom("petrel-spot", "constructor", "-spot", "Spot", ""), fc.string());
const value = fc.oneof(
  fc.double(),
  fc.constantFrom<unknown>(null, NaN, Infinity, "50", { palette: "p1" }, { palette: 1 }, { palette: "__proto__" }, {}),
  fc.constant({ release: true }),
);
const was = fc.oneof(
  fc.constantFrom<unknown>(null, "was", []),
  fc.record(
    {
      of: typeId,
      place: fc.oneof(fc.constantFrom("0.Pan", "1000.Pan", "0.", "Pan", "0. "), fc.string()),
      attribute: name,
      value,
      effect: fc.constantFrom<unknown>(3, { stop: true }),
    },
    { requiredKeys: [] },
  ),
);
const anything = fc.record(
  { attribute: name, value, of: typeId, was, time: fc.constant({ fade: 1 }) },
  { requiredKeys: ["attribute"] },
);

test("what the quick way takes for an entry, the schema does too, as it is", () => {
  fc.assert(
    fc.property(anything, (entry) => {
      if (isPlainEntry(entry)) expect(EntrySchema.parse(entry)).toEqual(entry);
    }),
    { numRuns: runs(2000) },
  );
});

test("the quick way knows entries of a swap, and leaves effects to the schema", () => {
  const entry = { attribute: "ColorAdd_R", value: 50, was: { of: "petrel-spot", place: "0.Pan", attribute: "Pan" } };
  expect(isPlainEntry(entry)).toBe(true);
  expect(isPlainEntry({ ...entry, was: { ...entry.was, value: 3, of: "no type" } })).toBe(false);
  expect(isPlainEntry({ ...entry, was: { ...entry.was, effect: { stop: true } } })).toBe(false);
});
