/** DMX addresses: who has which slots, and where a run fits (SEMANTICS 1). */
import { plainly } from "./change/plainly";
import { modelOf } from "./model";
import { footprint, type Mode } from "../fixture/type";
import type { Id } from "./ids";
import type { Address, Fixture, Show } from "./schema";

export const SLOTS = 512;
const UNIVERSES = 63_999;

/** An address as it is written: "1:101"; one of a further DMX break with its number, "2:1(2)". */
export const addressText = ({ universe, slot, part }: Address): string =>
  `${universe}:${slot}${part ? `(${part})` : ""}`;

/** An address from text, "2:101", or undefined where it is none. */
export const parseAddress = (text: string): Address | undefined =>
  text.includes("(") ? undefined : parseOwnAddress(text);

/** An address of one fixture from text: "2:101", or "2:1(2)" of its second DMX break. */
export function parseOwnAddress(text: string): Address | undefined {
  const match = /^(\d{1,5}):(\d{1,4})(?:\((\d{1,2})\))?$/.exec(text.trim());
  if (!match) return undefined;
  const [universe, slot, part] = [Number(match[1]), Number(match[2]), Number(match[3] ?? 1)];
  if (universe < 1 || universe > UNIVERSES || part < 1 || part > 16) return undefined;
  return part === 1 ? { universe, slot } : { universe, slot, part };
}

/**
 * The slots of a mode that one address of a fixture carries, from 0: all of them, or those of its DMX break where some
 * address of the fixture is of a further break. None where the mode lacks that break.
 */
export function spanOf(
  mode: Mode,
  addresses: readonly Address[],
  { part = 1 }: Pick<Address, "part">,
): { from: number; size: number } {
  const all = footprint(mode);
  if (!addresses.some((a) => a.part)) return { from: 0, size: all };
  const starts = [0, ...(mode.breaks ?? []), all];
  const [from, to] = [starts[part - 1], starts[part]];
  return from === undefined || to === undefined ? { from: 0, size: 0 } : { from, size: to - from };
}

/** For each universe the owner of each slot (index 0 = slot 1), null where free. */
export type Occupancy = Map<number, (Id | null)[]>;

/** Which fixture has which slots. @param without fixtures that do not count. */
export function occupancyOf(show: Pick<Show, "fixtures" | "types">, without: ReadonlySet<Id> = new Set()): Occupancy {
  const taken: Occupancy = new Map();
  const types = plainly(show.types);
  for (const fixture of Object.values(plainly(show.fixtures))) {
    if (without.has(fixture.id)) continue;
    const { mode } = modelOf({ types }, fixture);
    for (const address of fixture.addresses)
      occupy(taken, address, spanOf(mode, fixture.addresses, address).size, fixture.id);
  }
  return taken;
}

/** Notes slots as taken. */
export function occupy(taken: Occupancy, { universe, slot }: Address, size: number, owner: Id): void {
  let slots = taken.get(universe);
  if (!slots) taken.set(universe, (slots = new Array<Id | null>(SLOTS).fill(null)));
  for (let i = 0; i < size; i++) slots[slot - 1 + i] = owner;
}

/** Frees what an owner has in the universe of an address. */
export function vacate(taken: Occupancy, { universe }: Address, owner: Id): void {
  const slots = taken.get(universe);
  if (slots)
    taken.set(
      universe,
      slots.map((o) => (o === owner ? null : o)),
    );
}

/** The first owner in the way of `size` slots from an address; null where they are free. */
export function inTheWay(taken: Occupancy, { universe, slot }: Address, size: number): Id | null {
  const slots = taken.get(universe);
  if (!slots) return null;
  for (let i = slot - 1; i < Math.min(slot - 1 + size, SLOTS); i++) if (slots[i] !== null) return slots[i]!;
  return null;
}

/** Whether a run of slots lies within its universe. */
export const fits = ({ slot }: Address, size: number): boolean => slot >= 1 && slot + size - 1 <= SLOTS;

/**
 * Addresses of a run of fixtures from a start; it goes on in the next universe where one no longer fits.
 * The first is put where asked, fitting or not.
 */
export function runFrom(start: Address, sizes: readonly number[]): Address[] {
  let { universe, slot } = start;
  return sizes.map((size, i) => {
    if (i > 0 && slot + size - 1 > SLOTS) {
      universe += 1;
      slot = 1;
    }
    const at = { universe, slot };
    slot += size;
    return at;
  });
}

/**
 * Automatic addresses: one free run for all in the first universe that has it, else each its own
 * first free run, from 1:1 up (SEMANTICS 9). The occupancy passed in is filled.
 */
export function autoAddresses(taken: Occupancy, sizes: readonly number[], owners: readonly Id[]): Address[] {
  const total = sizes.reduce((sum, size) => sum + size, 0);
  const one = total <= SLOTS ? freeRun(taken, total) : undefined;
  if (one) {
    const run = runFrom(one, sizes);
    run.forEach((address, i) => occupy(taken, address, sizes[i]!, owners[i]!));
    return run;
  }
  return sizes.map((size, i) => {
    const address = freeRun(taken, size);
    occupy(taken, address, size, owners[i]!);
    return address;
  });
}

/** The first free run of `size` slots, from a universe up. */
export function freeRun(taken: Occupancy, size: number, fromUniverse = 1): Address {
  for (let universe = fromUniverse; ; universe++) {
    const slots = taken.get(universe);
    if (!slots) return { universe, slot: 1 };
    let free = 0;
    for (let i = 0; i < SLOTS; i++) {
      free = slots[i] === null ? free + 1 : 0;
      if (free === size) return { universe, slot: i - size + 2 };
    }
  }
}

/** How many slots each fixture takes. */
export const sizeOf = (
  show: Pick<Show, "types">,
  fixture: Pick<Fixture, "type" | "mode" | "virtualDimmer" | "number">,
): number => footprint(modelOf(show, fixture).mode);
