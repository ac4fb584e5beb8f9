/** Clashes in a patch, as it is or as a draft of a table would make it: the show never holds one. */
import { modeOf } from "../fixture/parameters";
import type { Fixture, Show } from "../show/schema";
import { addressText, fits, inTheWay, occupy, SLOTS, spanOf, type Occupancy } from "../show/address";

export interface Clash {
  fixture: string;
  field: "number" | "addresses" | "mode";
  text: string;
}

type Labelled = Pick<Fixture, "id" | "number" | "type" | "mode" | "addresses">;

/**
 * Every clash among fixtures. The fixture that came first keeps what it has: the later one is marked.
 * @param settled fixtures that were not touched and so keep their place against those that were.
 */
export function clashesIn(
  types: Show["types"],
  fixtures: readonly Labelled[],
  settled: (id: string) => boolean = () => false,
): Clash[] {
  const found: Clash[] = [];
  const numbers = new Map<number, Labelled>();
  const taken: Occupancy = new Map();
  const byId = new Map(fixtures.map((f) => [f.id, f]));
  const order = [...fixtures.filter((f) => settled(f.id)), ...fixtures.filter((f) => !settled(f.id))];
  for (const fixture of order) {
    const other = numbers.get(fixture.number);
    if (other) found.push({ fixture: fixture.id, field: "number", text: `number ${fixture.number} is taken` });
    else numbers.set(fixture.number, fixture);
    const type = types[fixture.type];
    const mode = type && modeOf(type, fixture.mode);
    if (!mode) {
      found.push({
        fixture: fixture.id,
        field: "mode",
        text: `${type?.model ?? fixture.type} has no mode ${fixture.mode}`,
      });
      continue;
    }
    for (const address of fixture.addresses) {
      const { size } = spanOf(mode, fixture.addresses, address);
      const text = whyNot(taken, address, size, (id) => byId.get(id)?.number);
      if (text) found.push({ fixture: fixture.id, field: "addresses", text });
      else occupy(taken, address, size, fixture.id);
    }
  }
  return found;
}

/** Why `size` slots cannot start at an address; undefined where they can. */
export function whyNot(
  taken: Occupancy,
  address: { universe: number; slot: number },
  size: number,
  numberOf: (id: string) => number | undefined,
): string | undefined {
  const at = addressText(address);
  if (address.slot < 1 || address.slot > SLOTS) return `${at}: slots go from 1 to ${SLOTS}`;
  if (!fits(address, size))
    return `${at}: ${size} channels would end at slot ${address.slot + size - 1}, past ${SLOTS}`;
  const owner = inTheWay(taken, address, size);
  if (owner === null) return undefined;
  const number = numberOf(owner);
  return `${at} is in use by ${number === undefined ? "this same patch" : `fixture ${number}`}`;
}
