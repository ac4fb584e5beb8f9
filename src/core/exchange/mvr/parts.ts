/** What of an MVR file becomes groups and palettes, for whoever wants it: its layers, its groups and its focus points. */
import type { Show } from "../../show/schema";
import { groupsByNumber, palettesByNumber } from "../../show/world";
import { splitItem } from "../../show/ids";
import type { MvrPlan } from "./plan";
import type { MvrRead, MvrSet } from "./read";

export interface GroupNew {
  name: string;
  /** Fixtures by number, as they are when the file is in. */
  numbers: number[];
}

export interface PointNew {
  name: string;
  at: { x: number; y: number; z: number };
  /** The fixtures that are turned to it; none where the file does not say. */
  numbers: number[];
}

/** The number each fixture of the file has when it is in. */
const numbersOf = (plan: MvrPlan): ReadonlyMap<MvrRead["fixtures"][number], number> =>
  new Map(plan.rows.map((row) => [row.read, row.fixture.number]));

/** Layers or groups of a file as groups the show does not have yet, by name and members. */
export function groupsNew(show: Show, read: MvrRead, plan: MvrPlan, kind: MvrSet["kind"]): GroupNew[] {
  const numbers = numbersOf(plan);
  const key = (name: string, members: readonly number[]) => JSON.stringify([name.toLowerCase(), members]);
  const mine = new Set(
    groupsByNumber(show).map((g) =>
      key(
        g.name,
        g.members.map((m) => show.fixtures[splitItem(m).fixture]?.number ?? 0),
      ),
    ),
  );
  return read.sets
    .filter((set) => set.kind === kind)
    .map(({ name, fixtures }, k) => ({
      name: name || `${kind === "layer" ? "Layer" : "Group"} ${k + 1}`,
      numbers: fixtures.flatMap((f) => numbers.get(read.fixtures[f]!) ?? []),
    }))
    .filter((group) => group.numbers.length > 0 && !mine.has(key(group.name, group.numbers)));
}

/** Focus points of a file whose names no palette of the show has. */
export function pointsNew(show: Show, read: MvrRead, plan: MvrPlan): PointNew[] {
  const numbers = numbersOf(plan);
  const taken = new Set(palettesByNumber(show).map((p) => p.name.toLowerCase()));
  return read.points
    .filter((point) => !taken.has(point.name.toLowerCase()))
    .map(({ uuid, name, at }) => ({
      name,
      at,
      numbers: read.fixtures.flatMap((f) => (uuid !== "" && f.focus === uuid ? (numbers.get(f) ?? []) : [])),
    }));
}
