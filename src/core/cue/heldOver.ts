/** What is held over what a list plays: its goes do not show there. */
import { namesIn } from "../units/names";
import { placeIn } from "../show/ids";
import type { CueList } from "../show/schema";
import type { World } from "../show/world";
import { storedIn } from "./tracking";

const known = new WeakMap<World["hands"]["held"], WeakMap<CueList["cues"], number>>();

/** How many fixtures hold something that a cue of the list stores. Worked out once for each version of both. */
export function fixturesHeldOver(list: CueList, held: World["hands"]["held"]): number {
  if (namesIn(held).length === 0) return 0;
  let counts = known.get(held);
  if (!counts) known.set(held, (counts = new WeakMap()));
  const before = counts.get(list.cues);
  if (before !== undefined) return before;
  const { columns } = storedIn(list);
  const fixtures = new Set<string>();
  for (const key of namesIn(held)) if (columns.has(key)) fixtures.add(placeIn(key).fixture);
  counts.set(list.cues, fixtures.size);
  return fixtures.size;
}
