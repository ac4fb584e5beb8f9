/** Who owns what in a universe, as the universe map draws it. */
import { attributeInfo } from "@/core/fixture/attribute";
import { layoutOf } from "@/core/fixture/type";
import { modelOf } from "@/core/show/model";
import { addressText, inTheWay, fits, occupancyOf, SLOTS, spanOf } from "@/core/show/address";
import type { FixtureChange } from "@/core/patch/intents";
import type { Show } from "@/core/show/schema";

export interface Owner {
  fixture: string;
  number: number;
  /** Name and what the slot does. */
  text: string;
  /** Slot its address starts at. */
  start: number;
}

/** Who owns each of the 512 slots of a universe. */
export function ownersOf(show: Show, universe: number): (Owner | null)[] {
  const owners = new Array<Owner | null>(SLOTS).fill(null);
  for (const fixture of Object.values(show.fixtures)) {
    for (const address of fixture.addresses) {
      if (address.universe !== universe) continue;
      const { mode } = modelOf(show, fixture);
      const { from, size } = spanOf(mode, fixture.addresses, address);
      mode.channels.forEach((channel, place) => {
        const label = `${attributeInfo(channel.functions[0]!.attribute).label}${channel.cell ? ` of cell ${channel.cell}` : ""}`;
        layoutOf(mode)[place]!.forEach((slot, byte) => {
          if (slot < from || slot >= from + size) return;
          owners[address.slot - 1 + slot - from] = {
            fixture: fixture.id,
            number: fixture.number,
            start: address.slot,
            text: `${fixture.number} ${fixture.name}: ${label}${channel.bytes > 1 ? (byte ? ", fine" : ", coarse") : ""}`,
          };
        });
      });
    }
  }
  return owners;
}

export interface UniverseCard {
  universe: number;
  used: number;
  fixtures: number;
  /** Runs of used slots: first slot and how many. */
  runs: [start: number, length: number][];
}

/** Every universe that is patched or sent. */
export function universeCards(show: Show): UniverseCard[] {
  const taken = occupancyOf(show);
  const numbers = [...new Set([...taken.keys(), ...Object.keys(show.outputs).map(Number)])].sort((a, b) => a - b);
  return numbers.map((universe) => {
    const slots = taken.get(universe) ?? [];
    const runs: [number, number][] = [];
    slots.forEach((owner, i) => {
      if (owner === null) return;
      const last = runs.at(-1);
      if (last && last[0] + last[1] === i + 1 && slots[i - 1] === owner) last[1] += 1;
      else runs.push([i + 1, 1]);
    });
    return {
      universe,
      runs,
      used: runs.reduce((sum, [, n]) => sum + n, 0),
      fixtures: new Set(slots.filter((s) => s !== null)).size,
    };
  });
}

/** What moving one address of a fixture would do, and why it cannot. */
export function moveAddress(
  show: Show,
  id: string,
  from: { universe: number; slot: number },
  to: { universe: number; slot: number },
): { change: FixtureChange; size: number; why: string | undefined } {
  const fixture = show.fixtures[id]!;
  const was = fixture.addresses.find((a) => a.universe === from.universe && a.slot === from.slot);
  const { size } = spanOf(modelOf(show, fixture).mode, fixture.addresses, was ?? {});
  const kept = fixture.addresses.filter((a) => a.universe !== from.universe || a.slot !== from.slot);
  const rest = { types: show.types, fixtures: { ...show.fixtures, [id]: { ...fixture, addresses: kept } } };
  const owner = fits(to, size) ? inTheWay(occupancyOf(rest), to, size) : null;
  const why = !fits(to, size)
    ? `${size} channels do not fit at ${addressText(to)}`
    : owner === null
      ? undefined
      : `${addressText(to)} is in use by fixture ${show.fixtures[owner]!.number}`;
  return {
    size,
    why,
    change: {
      addresses: fixture.addresses.map((a) =>
        a.universe === from.universe && a.slot === from.slot ? { ...a, ...to } : a,
      ),
    },
  };
}
