/** Where fixtures are patched when they become another type. */
import { footprint, type FixtureType, type Mode } from "../fixture/type";
import { whyNot } from "../patch/clash";
import { addressText, autoAddresses, fits, inTheWay, occupancyOf, occupy, spanOf } from "../show/address";
import type { Id } from "../show/ids";
import { fail } from "../show/refusal";
import type { Address, Show } from "../show/schema";

/** Keep: where it fits at its address it stays, else it gets the first free run. */
export type AddressWish = "keep" | "auto" | "unpatched" | Address;

/** A fixture that had to go to another address, in words. */
export interface Moved {
  number: number;
  from: string;
  to: string;
}

/** The fixtures as they would be patched. */
export function readdressed(
  show: Show,
  { fixtures: ids, at }: { fixtures: readonly Id[]; at: AddressWish },
  type: FixtureType,
  mode: Mode,
  virtualDimmer: boolean,
) {
  const size = footprint(mode);
  const taken = occupancyOf(show, new Set(ids));
  const fixtures = { ...show.fixtures };
  const moved: Moved[] = [];
  const put = (id: Id, addresses: readonly Address[]) => {
    const fixture = show.fixtures[id]!;
    const model = show.types[fixture.type]?.model;
    fixtures[id] = {
      ...fixture,
      type: type.id,
      mode: mode.name,
      virtualDimmer,
      addresses: [...addresses],
      name:
        model && new RegExp(`^${escaped(model)}( \\d+)?$`).test(fixture.name)
          ? type.model + fixture.name.slice(model.length)
          : fixture.name,
    };
    const [old, now] = [fixture.addresses, addresses].map((a) => a.map(addressText).join(" + ") || "unpatched");
    if (old !== now) moved.push({ number: fixture.number, from: old!, to: now! });
  };
  if (at === "unpatched") for (const id of ids) put(id, []);
  else if (typeof at === "object") {
    let next = at;
    for (const id of ids) {
      const wrong = whyNot(taken, next, size, (other) => show.fixtures[other]?.number);
      if (wrong)
        fail(`fixture ${show.fixtures[id]!.number} cannot go there: ${wrong}`, "Choose another address, or: at auto");
      occupy(taken, next, size, id);
      put(id, [next]);
      next =
        next.slot + 2 * size - 1 > 512
          ? { universe: next.universe + 1, slot: 1 }
          : { universe: next.universe, slot: next.slot + size };
    }
  } else if (at === "auto") {
    const own = ids.filter((id) => show.fixtures[id]!.addresses.length > 0);
    const run = autoAddresses(
      taken,
      own.map(() => size),
      own,
    );
    for (const id of ids) put(id, own.includes(id) ? [run[own.indexOf(id)]!] : []);
  } else keepAddresses(show, ids, mode, taken, put);
  return { fixtures, moved };
}

/** Where there is room at its address a fixture stays; the others get the first free run, when all that stay have been put. */
function keepAddresses(
  show: Show,
  ids: readonly Id[],
  mode: Mode,
  taken: ReturnType<typeof occupancyOf>,
  put: (id: Id, at: Address[]) => void,
): void {
  const late: Id[] = [];
  for (const id of ids) {
    const stays: Address[] = [];
    const wanted = show.fixtures[id]!.addresses.filter(({ part }) => !part || mode.breaks?.[part - 2]);
    for (const address of wanted) {
      const { size } = spanOf(mode, wanted, address);
      if (!fits(address, size) || inTheWay(taken, address, size) !== null) continue;
      occupy(taken, address, size, id);
      stays.push(address);
    }
    if (stays.length > 0 || show.fixtures[id]!.addresses.length === 0) put(id, stays);
    else late.push(id);
  }
  const run = autoAddresses(
    taken,
    late.map(() => footprint(mode)),
    late,
  );
  late.forEach((id, k) => put(id, [run[k]!]));
}

const escaped = (text: string): string => text.replace(/[.*+?^${}()|[\]\\]/g, "\\$&");
