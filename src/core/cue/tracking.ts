/** Tracking: what is in force at a cue (SEMANTICS 4). */
import type { ParamKey } from "../show/ids";
import type { Cue, CueList } from "../show/schema";
import { cuesOf } from "../show/world";
import { isRelease, type Entry } from "../show/value";

/** All entries stored for one parameter, by the place of their cue in the list. */
export interface Column {
  readonly at: readonly number[];
  readonly entries: readonly Entry[];
}

export interface InForce {
  entry: Entry;
  /** Place in the list of the cue it is stored in. */
  at: number;
}

const columns = new WeakMap<CueList["cues"], ReadonlyMap<ParamKey, Column>>();

/** The stored entries of a list, parameter by parameter. Derived once for each version of its cues. */
export function columnsOf(list: CueList): ReadonlyMap<ParamKey, Column> {
  const known = columns.get(list.cues);
  if (known) return known;
  const made = new Map<ParamKey, { at: number[]; entries: Entry[] }>();
  cuesOf(list).forEach((cue, index) => {
    for (const [key, entry] of Object.entries(cue.entries)) {
      let column = made.get(key);
      if (!column) made.set(key, (column = { at: [], entries: [] }));
      column.at.push(index);
      column.entries.push(entry);
    }
  });
  columns.set(list.cues, made);
  return made;
}

/** The last place at or before `index` in a column, -1 where there is none. */
function lastAt(column: Column, index: number): number {
  let [low, high] = [0, column.at.length];
  while (low < high) {
    const mid = (low + high) >> 1;
    if (column.at[mid]! <= index) low = mid + 1;
    else high = mid;
  }
  return low - 1;
}

/** What is in force for a parameter at the cue at `index`; undefined for none (never stored, or released). */
export function inForceOf(column: Column | undefined, index: number): InForce | undefined {
  if (!column) return undefined;
  const place = lastAt(column, index);
  if (place < 0) return undefined;
  const entry = column.entries[place]!;
  return isRelease(entry.value) ? undefined : { entry, at: column.at[place]! };
}

/** Everything in force at the cue at `index`, -1 for before the first. */
export function allInForce(list: CueList, index: number): Map<ParamKey, InForce> {
  const found = new Map<ParamKey, InForce>();
  for (const [key, column] of columnsOf(list)) {
    const value = inForceOf(column, index);
    if (value) found.set(key, value);
  }
  return found;
}

export type Standing = { state: "stored" | "tracked"; entry: Entry; from: Cue } | { state: "released" } | { state: "unset" };

/** How a parameter stands in a cue: stored here, tracked in, released here, or not set. */
export function standingOf(list: CueList, index: number, key: ParamKey): Standing {
  const cues = cuesOf(list);
  const stored = cues[index]?.entries[key];
  if (stored && isRelease(stored.value)) return { state: "released" };
  const found = inForceOf(columnsOf(list).get(key), index);
  if (!found) return { state: "unset" };
  return { state: found.at === index ? "stored" : "tracked", entry: found.entry, from: cues[found.at]! };
}
