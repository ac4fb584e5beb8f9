/** Whole universes: their patch, and how they leave the machine. */
import { z } from "../units/zod";
import { defineIntent } from "../show/intent";
import { fail } from "../show/refusal";
import { OutputSchema, WireSchema, type Fixture, type Output, type Show } from "../show/schema";
import { destinationText, numberRange } from "../dmx/wire";
import { clashesIn } from "./clash";

const universe = z.number().int().min(1).max(63_999);
const inUniverse = (show: Show, number: number): Fixture[] => Object.values(show.fixtures).filter((f) => f.addresses.some((a) => a.universe === number));

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
      fixture.addresses = [...fixture.addresses, ...more.filter((a) => !fixture.addresses.some((b) => b.universe === a.universe && b.slot === a.slot))];
    }
    const clash = clashesIn(show.types, Object.values(show.fixtures), (id) => !touched.has(id))[0];
    if (clash) fail(`universe ${to} has no room for it: ${clash.text}`, `Empty it first: universe ${to} unpatch`);
  },
  says: ({ show }, { from, to }) => `sends the ${inUniverse(show, from).length} fixtures of universe ${from} to the same slots of universe ${to} as well`,
});

export const unpatchUniverse = defineIntent({
  kind: "unpatchUniverse",
  fields: { universe },
  apply(world, { universe: number }) {
    const fixtures = inUniverse(world.show as Show, number);
    if (fixtures.length === 0) fail(`nothing is patched in universe ${number}`);
    for (const fixture of fixtures) fixture.addresses = fixture.addresses.filter((a) => a.universe !== number);
  },
  says: ({ show }, { universe: number }) => `takes the addresses in universe ${number} from ${inUniverse(show, number).length} fixtures`,
});

/** Sets or switches off the outputs of universes; `number` counts on from the first. */
export const setOutputs = defineIntent({
  kind: "setOutputs",
  fields: { universes: z.array(universe).min(1).max(4096), output: OutputSchema.nullable() },
  apply(world, { universes, output }) {
    universes.forEach((number, i) => {
      if (!output) {
        delete world.show.outputs[number];
        return;
      }
      const made = { ...output, number: output.number + i } as Output;
      const [low, high] = numberRange(output.protocol as Output["protocol"]);
      if (made.number < low || made.number > high) fail(`${output.protocol === "artnet" ? "Art-Net counts port-addresses" : "sACN counts universes"} from ${low} to ${high}; ${made.number} is none`);
      world.show.outputs[number] = made as never;
    });
  },
  says(_, { universes, output }) {
    const which = universes.length === 1 ? `universe ${universes[0]}` : `universes ${universes[0]} to ${universes.at(-1)}`;
    return output ? `sends ${which} as ${destinationText(output as Output)}${universes.length > 1 ? ", counting on" : ""}` : `sends ${which} no more`;
  },
});

export const setWire = defineIntent({
  kind: "setWire",
  fields: { wire: WireSchema.partial() },
  apply(world, { wire }) {
    const first = Number((wire.from as string | undefined)?.split(".")[0] || "1");
    if (first < 1 || first > 223) fail(`${wire.from as string} is no address of a network interface`, "Choose one of this machine's, or: wire from any");
    Object.assign(world.show.wire, wire);
  },
  says: (_, { wire }) => [
    wire.source !== undefined && `names the sender "${wire.source as string}"`,
    wire.from !== undefined && (wire.from === "" ? "sends from the machine's choice of interface" : `sends from ${wire.from as string}`),
    wire.lost !== undefined && (wire.lost === "hold" ? "holds the last look when the browser is gone" : `fades intensity out ${(wire.lost as { after: number }).after} s after the browser is gone, over ${(wire.lost as { over: number }).over} s`),
  ].filter(Boolean).join("; "),
});
