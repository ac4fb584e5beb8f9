/** Catches a quick look at fixtures that lets in what their schema refuses, or has no use for those that are patched. */
import fc from "fast-check";
import { newDesk, runLine } from "../desk/desk";
import { runs } from "@tests/setup/runs";
import { FixtureSchema, isPlainFixture } from "./schema";

const desk = newDesk();
runLine(desk, "patch 3 petrel-spot as 1 at 1:1");
const patched = Object.values(desk.world.show.fixtures);

test("fixtures as they are patched are plain", () => {
  expect(patched.map(isPlainFixture)).toEqual([true, true, true]);
});

test("what is plain is what the schema takes as it is, whatever one field of it says", () => {
  const paths = Object.keys(patched[0]!);
  const parts = [
    ...paths.map((p) => [p]),
    ["place", "x"],
    ["correct", "pan"],
    ["addresses", "0"],
    ["addresses", "0", "slot"],
    ["addresses", "0", "universe"],
    ["more"],
  ];
  const odd = fc.oneof(
    fc.constantFrom<unknown>(NaN, Infinity, -1, 0, 0.5, 1, 512, 513, 64_000, 1e6, 201, null, undefined, "", "f1", "x1"),
    fc.constantFrom<unknown>("toString", "petrel-spot", "x".repeat(201), "x".repeat(2001), [], {}, true),
    fc.jsonValue({ maxDepth: 2 }),
  );
  let plain = 0;
  fc.assert(
    fc.property(fc.constantFrom(...parts), odd, (path, value) => {
      const fixture = structuredClone(patched[0]!) as unknown as Record<string, unknown>;
      let at = fixture;
      for (const key of path.slice(0, -1)) at = at[key] as Record<string, unknown>;
      at[path.at(-1)!] = value;
      if (!isPlainFixture(fixture)) return;
      plain += 1;
      expect(FixtureSchema.parse(fixture)).toEqual(fixture);
    }),
    { numRuns: runs(2000) },
  );
  expect(plain).toBeGreaterThan(20);
});
