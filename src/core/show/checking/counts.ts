/** How much a show stores, counted on from version to version: counting every cue anew would hold each edit up. */
import type { Change, Diff } from "../change/diff";
import type { Cue, CueList, Show } from "../schema";

export interface ListCounts {
  cues: number;
  entries: number;
}

const counts = new WeakMap<object, number>();

/** How many values a cue or palette stores, counted once for each version of it. */
export function entryCount(entries: Readonly<Record<string, unknown>>): number {
  const known = counts.get(entries);
  if (known !== undefined) return known;
  const count = Object.keys(entries).length;
  counts.set(entries, count);
  return count;
}

function countCues(cues: Readonly<Record<string, Cue>>): ListCounts {
  const all = Object.values(cues);
  return { cues: all.length, entries: all.reduce((n, cue) => n + entryCount(cue.entries), 0) };
}

function countLists(lists: Iterable<CueList>): ListCounts {
  const made = { cues: 0, entries: 0 };
  for (const list of lists) {
    const { cues, entries } = countCues(list.cues);
    made.cues += cues;
    made.entries += entries;
  }
  return made;
}

const NONE: ListCounts = { cues: 0, entries: 0 };

/** How much of what is counted stands at a path. */
function countAt({ path }: Change, value: unknown): ListCounts {
  const [where, collection, , part, , field] = path;
  const depth = path.length;
  if (value === undefined || where !== "show" || collection !== "lists") return NONE;
  if (depth === 3) return countLists([value as CueList]);
  if (part !== "cues") return NONE;
  if (depth === 4) return countCues(value as CueList["cues"]);
  if (depth === 5) return { cues: 1, entries: entryCount((value as Cue).entries) };
  if (field !== "entries") return NONE;
  return { cues: 0, entries: depth === 6 ? entryCount(value as Cue["entries"]) : depth === 7 ? 1 : 0 };
}

const known = new WeakMap<Show["lists"], ListCounts>();

/** The cues and stored values of all lists. */
export function listCounts({ lists }: Pick<Show, "lists">): ListCounts {
  const held = known.get(lists);
  if (held) return held;
  const made = countLists(Object.values(lists));
  known.set(lists, made);
  return made;
}

/** Counts on from a version before to the one a diff leads to. */
export function countOn(before: Pick<Show, "lists">, after: Pick<Show, "lists">, diff: Diff): void {
  if (before.lists === after.lists || known.has(after.lists)) return;
  // Where the lists as a whole were replaced they are counted when asked for.
  if (diff.some(({ path }) => path[0] === "show" && (path.length < 2 || (path.length === 2 && path[1] === "lists"))))
    return;
  const made = { ...listCounts(before) };
  for (const change of diff) {
    const [less, more] = [countAt(change, change.from), countAt(change, change.to)];
    made.cues += more.cues - less.cues;
    made.entries += more.entries - less.entries;
  }
  known.set(after.lists, made);
}
