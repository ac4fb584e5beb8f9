/** Whole universes of the patch, as intents. */
import { z } from "../units/zod";
import { defineIntent } from "../show/change/intent";
import { fail } from "../show/refusal";
import type { Fixture, Show } from "../show/schema";
import { clashesIn } from "./clash";

const universe = z.number().int().min(1).max(63_999);
const inUniverse = (show: Show, number: number): Fixture[] =>
  Object.values(show.fixtures).filter((f) => f.addresses.some((a) => a.universe === number));

/** Every fixture of a universe is sent to the same slots of another as well. */
export const copyUniverse = defineIntent({
  kind: "copyUniverse",
  fields: { from: universe, to: universe },
  apply(world, { from, to }) {
    const show = world.show as Show;
    const fixtures = inUniverse(show, from);
    if (from === to) fail("a universe cannot be copied to itself", "Name another one");
    if (fixtures.length === 0) fail(`nothing is patched in universe ${from}`);
    const touched = new Set(fixtures.map((f) => f.id));
    for (const fixture of fixtures) {
      const more = fixture.addresses.filter((a) => a.universe === from).map((a) => ({ universe: to, slot: a.slot }));
      fixture.addresses = [
        ...fixture.addresses,
        ...more.filter((a) => !fixture.addresses.some((b) => b.universe === a.universe && b.slot === a.slot)),
      ];
    }
    const clash = clashesIn(show.types, Object.values(show.fixtures), (id) => !touched.has(id))[0];
    if (clash) fail(`universe ${to} has no room for it: ${clash.text}`, `Empty it first: universe ${to} unpatch`);
  },
  says: ({ show }, { from, to }) =>
    `sends the ${inUniverse(show, from).length} fixtures of universe ${from} to the same slots of universe ${to} as well`,
  lines: (_, { from, to }) => [`universe ${from} copy to ${to}`],
});

export const unpatchUniverse = defineIntent({
  kind: "unpatchUniverse",
  fields: { universe },
  apply(world, { universe: number }) {
    const fixtures = inUniverse(world.show, number);
    if (fixtures.length === 0) fail(`nothing is patched in universe ${number}`);
    for (const fixture of fixtures) fixture.addresses = fixture.addresses.filter((a) => a.universe !== number);
  },
  says: ({ show }, { universe: number }) =>
    `takes the addresses in universe ${number} from ${inUniverse(show, number).length} fixtures`,
  lines: (_, { universe: number }) => [`universe ${number} unpatch`],
});
