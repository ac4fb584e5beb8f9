/** A group's own arrangement: its members on a small plan of their own (SEMANTICS 2, "by"). */
import type { Item } from "../show/ids";
import type { Group, Show } from "../show/schema";
import { groupsByNumber } from "../show/world";

export type Arrangement = NonNullable<Group["arrangement"]>;

/** The group that is selected: all of its members and nothing else. The lowest number where there are several. */
export function groupSelected(show: Show, items: readonly Item[], has: (group: Group) => boolean): Group | undefined {
  if (!Object.values(show.groups).some(has)) return undefined;
  const chosen = new Set(items);
  return groupsByNumber(show).find(
    (g) => has(g) && g.members.length === chosen.size && g.members.every((m) => chosen.has(m)),
  );
}

/** Distance of rows and columns, metres. */
const PITCH = 1;
const place = (x: number, y: number) => ({ x: x * PITCH, y: y * PITCH });

/** In rows of so many, the first row upstage. */
export const inRowsOf = (items: readonly Item[], columns: number): Arrangement =>
  Object.fromEntries(items.map((item, k) => [item, place(k % columns, 0 - Math.floor(k / columns))]));

/** Side by side in the order of the group, as if a side truss were turned straight. */
export const straight = (items: readonly Item[]): Arrangement => inRowsOf(items, Math.max(1, items.length));
