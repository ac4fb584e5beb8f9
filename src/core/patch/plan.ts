/** What a patch would do, before it is done: its rows and its conflicts. */
import { footprint, wantsVirtualDimmer, type FixtureType, type Mode } from "../fixture/type";
import { libraryType, LIBRARY } from "../fixture/library/library";
import { modeOf } from "../fixture/parameters";
import { own } from "../show/hasOwn";
import type { Address, Show } from "../show/schema";
import { fixtureNumbered, fixturesByNumber } from "../show/world";
import { autoAddresses, occupancyOf, occupy, runFrom } from "../show/address";
import { whyNot } from "./clash";

export interface PatchRequest {
  count: number;
  type: string;
  mode?: string;
  /** First number; without it, one above the highest. */
  from?: number;
  at: Address | "auto" | "unpatched";
}

export interface PatchRow {
  number: number;
  address: Address | null;
  conflict?: string;
}

export interface PatchPlan {
  type: FixtureType;
  mode: Mode;
  virtualDimmer: boolean;
  rows: PatchRow[];
}

export interface PatchProblem {
  problem: string;
  cure: string;
}

/** A type by its id or by the name of its model, of the show or of the library, whatever the case; undefined where there is none, or several. */
export function typeOf(show: Pick<Show, "types">, called: string): FixtureType | undefined {
  const name = called.toLowerCase().trim();
  const byId = own(show.types, name) ?? libraryType(name);
  if (byId) return byId;
  const isCalled = ({ maker, model }: FixtureType) =>
    [model, `${maker} ${model}`].some((own) => own.toLowerCase() === name);
  for (const types of [Object.values(show.types), LIBRARY]) {
    const found = types.filter(isCalled);
    if (found.length > 0) return found.length === 1 ? found[0] : undefined;
  }
  return undefined;
}

/** The first free number after the highest. */
export const nextNumber = (show: Show): number => (fixturesByNumber(show).at(-1)?.number ?? 0) + 1;

/** The ids most like what was typed. */
function nearTypes(typed: string): string[] {
  const parts = typed
    .toLowerCase()
    .split(/[^a-z0-9]+/)
    .filter((p) => p.length > 2);
  const likeness = (id: string) =>
    parts.filter((p) => id.includes(p)).length * 100 + [...id].findIndex((c, i) => c !== typed[i]?.toLowerCase());
  return LIBRARY.map((t) => t.id)
    .sort((a, b) => likeness(b) - likeness(a))
    .slice(0, 6);
}

const planned = new WeakMap<
  Show["fixtures"],
  { types: Show["types"]; request: string; plan: PatchPlan | PatchProblem }
>();

/** The rows a patch would make, each conflict marked on its row; a problem where type or mode are unknown. Thousands are said and done: planned once. */
export function planPatch(show: Show, request: PatchRequest): PatchPlan | PatchProblem {
  const { count, type, mode, from, at } = request;
  const asked = JSON.stringify([count, type, mode, from, at]);
  const last = planned.get(show.fixtures);
  if (last?.types === show.types && last.request === asked) return last.plan;
  const plan = makePlan(show, request);
  if (Object.isFrozen(show.fixtures)) planned.set(show.fixtures, { types: show.types, request: asked, plan });
  return plan;
}

function makePlan(show: Show, request: PatchRequest): PatchPlan | PatchProblem {
  const type = typeOf(show, request.type);
  if (!type)
    return {
      problem: `there is no fixture type ${request.type}`,
      cure: `Types are, among ${LIBRARY.length}: ${nearTypes(request.type).join(", ")}`,
    };
  const mode = request.mode === undefined ? type.modes[0]! : modeOf(type, request.mode);
  if (!mode)
    return {
      problem: `${type.model} has no mode ${request.mode}`,
      cure: `Its modes are ${type.modes.map((m) => `${m.name} (${footprint(m)} channels)`).join(", ")}`,
    };
  const size = footprint(mode);
  const first = request.from ?? nextNumber(show);
  const numbers = Array.from({ length: request.count }, (_, i) => first + i);
  const taken = occupancyOf(show);
  const sizes = numbers.map(() => size);
  const addresses: (Address | null)[] =
    request.at === "unpatched"
      ? numbers.map(() => null)
      : request.at === "auto"
        ? autoAddresses(
            taken,
            sizes,
            numbers.map((n) => `new${n}`),
          )
        : runFrom(request.at, sizes);
  const rows = numbers.map((number, i): PatchRow => {
    const address = addresses[i]!;
    const conflict = fixtureNumbered(show, number)
      ? `number ${number} is taken`
      : request.at !== "auto" && address
        ? addressConflict(show, taken, address, size)
        : undefined;
    if (address && request.at !== "auto" && !conflict) occupy(taken, address, size, `new${number}`);
    return { number, address, ...(conflict ? { conflict } : {}) };
  });
  return { type, mode, virtualDimmer: wantsVirtualDimmer(mode), rows };
}

/** Why `size` slots cannot start at an address; undefined where they can. */
export function addressConflict(
  show: Show,
  taken: ReturnType<typeof occupancyOf>,
  address: Address,
  size: number,
): string | undefined {
  return whyNot(taken, address, size, (id) => show.fixtures[id]?.number);
}
