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

/** The same plan turned a quarter to the left about its middle, or mirrored left to right. */
export function turnedPlan(plan: Arrangement, how: "quarter" | "mirror"): Arrangement {
  const { x: mx, y: my } = middleOf(plan);
  return Object.fromEntries(
    Object.entries(plan).map(([item, { x, y }]) => [
      item,
      how === "mirror" ? { x: 2 * mx - x, y } : { x: mx - (y - my), y: my + (x - mx) },
    ]),
  );
}

/** The middle of what a plan spans. */
export function middleOf(plan: Arrangement): { x: number; y: number } {
  const places = Object.values(plan);
  const mid = (values: readonly number[]) =>
    values.length === 0 ? 0 : (Math.min(...values) + Math.max(...values)) / 2;
  return { x: mid(places.map((p) => p.x)), y: mid(places.map((p) => p.y)) };
}

/** Side by side in the order of the group, as if a side truss were turned straight. */
export const straight = (items: readonly Item[]): Arrangement => inRowsOf(items, Math.max(1, items.length));
