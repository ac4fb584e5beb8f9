/** Where a group is used: cues know its fixtures, not the group; lines name it. */
import { splitItem, splitKey, type Id } from "../show/ids";
import { linesNaming } from "../show/words/linesNaming";
import type { CueList } from "../show/schema";
import { cuesOf, listsByNumber, type World } from "../show/world";

export interface GroupUses {
  /** Lists whose cues store something of its fixtures: numbers of those cues that do of all, and of some only. */
  lists: { list: CueList; all: number[]; some: number[] }[];
  /** Lines of macros, and lines that cues run. */
  lines: ReturnType<typeof linesNaming>;
}

/** @param group one of the show. */
export function groupUses({ show }: World, group: Id): GroupUses {
  const { members, number } = show.groups[group]!;
  const fixtures = new Set(members.map((i) => splitItem(i).fixture));
  const lists = listsByNumber(show).flatMap((list) => {
    const [all, some]: [number[], number[]] = [[], []];
    for (const cue of cuesOf(list)) {
      const stored = new Set<Id>();
      for (const key of Object.keys(cue.entries)) {
        const { fixture } = splitKey(key);
        if (fixtures.has(fixture)) stored.add(fixture);
      }
      if (stored.size > 0) (stored.size === fixtures.size ? all : some).push(cue.number);
    }
    return all.length + some.length > 0 ? [{ list, all, some }] : [];
  });
  return { lists, lines: linesNaming(show, "group", number) };
}
