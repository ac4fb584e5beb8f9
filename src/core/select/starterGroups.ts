/** Groups to begin with: one for each type of the rig, as an intent. */
import { defineIntent, newId } from "../show/change/intent";
import { item, type Item } from "../show/ids";
import { fail } from "../show/refusal";
import { fixturesByNumber, groupsByNumber } from "../show/world";
import type { Show } from "../show/schema";
import { plural } from "../units/plural";

export interface StarterGroup {
  number: number;
  name: string;
  members: Item[];
}

/** A group for each type, its fixtures by number; none whose name or members a group has already. */
export function starterGroups(show: Show): StarterGroup[] {
  const there = groupsByNumber(show);
  const names = new Set(there.map((g) => g.name.toLowerCase()));
  const known = new Set(there.map((g) => [...g.members].sort().join()));
  const numbers = new Set(there.map((g) => g.number));
  const byType = new Map<string, Item[]>();
  for (const { id, type } of fixturesByNumber(show)) byType.set(type, [...(byType.get(type) ?? []), item(id)]);
  let number = 0;
  return [...byType].flatMap(([type, members]) => {
    const name = (show.types[type]?.model ?? type).slice(0, 200);
    if (names.has(name.toLowerCase()) || known.has([...members].sort().join())) return [];
    do number += 1;
    while (numbers.has(number));
    return [{ number, name, members }];
  });
}

export const startGroups = defineIntent({
  kind: "startGroups",
  fields: {},
  apply(world) {
    const found = starterGroups(world.show);
    if (found.length === 0)
      fail("every type of the rig has its group already", "Patch some fixtures first, or record a group of your own");
    for (const { number, name, members } of found) {
      const id = newId(world, "g");
      world.show.groups[id] = { id, number, name, members };
    }
  },
  says({ show }) {
    const found = starterGroups(show);
    return `records ${plural(found.length, "group")} by type: ${found
      .slice(0, 6)
      .map((g) => `${g.number} "${g.name}"`)
      .join(", ")}${found.length > 6 ? " ..." : ""}`;
  },
  lines: () => ["starter groups"],
});
