/** Catches clashes of numbers and addresses that are missed, and cures that make new ones. */
import fc from "fast-check";
import { libraryType } from "../fixture/library/library";
import { footprint } from "../fixture/type";
import { clashesIn } from "./clash";
import { runs } from "@tests/setup/runs";

const types = Object.fromEntries(["dimmer", "kelp-wash", "lantern-par"].map((id) => [id, libraryType(id)!]));
const fixture = fc.record({
  number: fc.integer({ min: 1, max: 12 }),
  type: fc.constantFrom(...Object.keys(types)),
  slots: fc.array(fc.integer({ min: 1, max: 520 }), { maxLength: 2 }),
});
const fixtures = fc.array(fixture, { maxLength: 14 }).map((all) =>
  all.map((f, i) => ({
    id: `f${i}`,
    number: f.number,
    type: f.type,
    mode: types[f.type]!.modes[0]!.name,
    addresses: f.slots.map((slot) => ({ universe: 1, slot })),
  })),
);

test("a patch is free of clashes exactly where no number and no slot is used twice and all fits", () => {
  fc.assert(
    fc.property(fixtures, (all) => {
      const numbers = all.map((f) => f.number);
      const used = all.flatMap((f) =>
        f.addresses.flatMap((a) => Array.from({ length: footprint(types[f.type]!.modes[0]!) }, (_, i) => a.slot + i)),
      );
      const clean =
        new Set(numbers).size === numbers.length && new Set(used).size === used.length && used.every((s) => s <= 512);
      expect(clashesIn(types, all).length === 0).toBe(clean);
    }),
    { numRuns: runs(500) },
  );
});

test("what was not touched keeps its place: the clash is on what came", () => {
  fc.assert(
    fc.property(fixtures, fc.nat(13), (all, pick) => {
      const touched = all[pick]?.id;
      const before = clashesIn(
        types,
        all.filter((f) => f.id !== touched),
      );
      if (before.length > 0 || !touched) return;
      expect(clashesIn(types, all, (id) => id !== touched).every((c) => c.fixture === touched)).toBe(true);
    }),
  );
});

test("a mode that a type does not have is told", () => {
  expect(
    clashesIn(types, [{ id: "f1", number: 1, type: "dimmer", mode: "huge", addresses: [] }]).map((c) => c.text),
  ).toEqual(["Dimmer has no mode huge"]);
});
