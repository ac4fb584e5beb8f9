/** Catches addresses that are free and said to be taken, or the other way round. */
import fc from "fast-check";
import { newDesk, runLine } from "../desk/desk";
import { fixturesByNumber } from "./world";
import {
  addressText,
  autoAddresses,
  fits,
  freeRun,
  inTheWay,
  occupancyOf,
  occupy,
  parseAddress,
  runFrom,
  sizeOf,
  type Occupancy,
} from "./address";
import { runs } from "@tests/setup/runs";

test("addresses are read and written alike, and nothing else is one", () => {
  expect(addressText(parseAddress("12:101")!)).toBe("12:101");
  for (const text of ["0:1", "1", "1:", "1.1", "64000:1", "a:b", ""]) expect(parseAddress(text)).toBeUndefined();
});

test("a run goes on in the next universe where one no longer fits", () => {
  expect(runFrom({ universe: 1, slot: 490 }, [12, 12, 12]).map(addressText)).toEqual(["1:490", "2:1", "2:13"]);
  expect(runFrom({ universe: 1, slot: 505 }, [12]).map(addressText)).toEqual(["1:505"]);
});

const sizes = fc.array(fc.integer({ min: 1, max: 60 }), { minLength: 1, maxLength: 30 });

test("automatic addresses never lie on anything, and fill the first gap that fits", () => {
  fc.assert(
    fc.property(
      sizes,
      fc.array(fc.record({ slot: fc.integer({ min: 1, max: 480 }), size: fc.integer({ min: 1, max: 30 }) }), {
        maxLength: 20,
      }),
      (wanted, blocks) => {
        const taken: Occupancy = new Map();
        blocks.forEach((b, i) =>
          occupy(taken, { universe: 1, slot: b.slot }, Math.min(b.size, 513 - b.slot), `old${i}`),
        );
        const before = new Map([...taken].map(([u, s]): [number, (string | null)[]] => [u, [...s]]));
        const made = autoAddresses(
          taken,
          wanted,
          wanted.map((_, i) => `new${i}`),
        );
        made.forEach((address, i) => {
          expect(fits(address, wanted[i]!)).toBe(true);
          expect(inTheWay(before, address, wanted[i]!)).toBeNull();
        });
        const slots = made.flatMap((a, i) =>
          Array.from({ length: wanted[i]! }, (_, k) => `${a.universe}:${a.slot + k}`),
        );
        expect(new Set(slots).size).toBe(slots.length);
        if (wanted.length === 1) expect(made[0]).toEqual(freeRun(before, wanted[0]!));
      },
    ),
  );
});

test("whatever is patched, addressed and renumbered, the show never holds a clash", () => {
  const line = fc.oneof(
    fc
      .tuple(
        fc.integer({ min: 1, max: 9 }),
        fc.constantFrom("kelp-wash", "petrel-spot", "dimmer", "tide-bar"),
        fc.integer({ min: 1, max: 3 }),
        fc.integer({ min: 1, max: 512 }),
      )
      .map(([n, type, u, s]) => `patch ${n} ${type} at ${u}:${s}`),
    fc
      .tuple(fc.integer({ min: 1, max: 9 }), fc.constantFrom("kelp-wash", "dimmer"))
      .map(([n, type]) => `patch ${n} ${type}`),
    fc
      .tuple(fc.integer({ min: 1, max: 20 }), fc.integer({ min: 1, max: 3 }), fc.integer({ min: 1, max: 512 }))
      .map(([n, u, s]) => `${n} thru ${n + 3} address ${u}:${s}`),
    fc.integer({ min: 1, max: 20 }).map((n) => `${n} thru ${n + 5} address auto`),
    fc
      .tuple(fc.integer({ min: 1, max: 20 }), fc.integer({ min: 1, max: 20 }))
      .map(([a, b]) => `${a} thru ${a + 2} renumber ${b}`),
  );
  fc.assert(
    fc.property(fc.array(line, { maxLength: 12 }), (lines) => {
      const desk = newDesk();
      for (const text of lines) runLine(desk, text);
      const { show } = desk.world;
      const used = fixturesByNumber(show).flatMap((f) =>
        f.addresses.flatMap((a) => Array.from({ length: sizeOf(show, f) }, (_, k) => `${a.universe}:${a.slot + k}`)),
      );
      expect(new Set(used).size).toBe(used.length);
      expect(used.every((slot) => Number(slot.split(":")[1]) <= 512)).toBe(true);
      expect(new Set(fixturesByNumber(show).map((f) => f.number)).size).toBe(fixturesByNumber(show).length);
      expect([...occupancyOf(show).values()].flat().filter(Boolean)).toHaveLength(used.length);
    }),
    { numRuns: runs(60) },
  );
});
