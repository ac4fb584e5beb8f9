/** Tracking: what is in force at a cue, with reaches and fresh starts (SEMANTICS 4). */
import type { ParamKey } from "../show/ids";
import type { Cue, CueList } from "../show/schema";
import { cuesOf } from "../show/world";
import { ends, isLink, type ColumnName, type Entry } from "../show/value";
import { overlaid } from "../units/overlaid";
import { saidBy, type Looking } from "../palette/lookup";

/** All entries stored for one parameter, by the place of their cue in the list: values and effects alike. */
export interface Column {
  readonly at: readonly number[];
  readonly entries: readonly Entry[];
  /** Whether any of them says something of an effect. */
  readonly effects: boolean;
}

export interface InForce {
  entry: Entry;
  /** Place in the list of the cue it is stored in. */
  at: number;
}

/** A list seen by parameter, with where its cues reach and start afresh. */
export interface Tracking {
  columns: ReadonlyMap<ParamKey, Column>;
  /** Last place each cue's entries cover; Infinity without a reach. */
  reachEnd: readonly number[];
  /** The nearest fresh start at or before each place, 0 where there is none. */
  since: readonly number[];
  /** Places where something in force may change that the cue does not store: a fresh start, or just after a reach. */
  turns: readonly boolean[];
  /** Whether a value says nothing of a parameter in this show: then it counts as no entry. */
  silent?: (key: ParamKey, entry: Entry) => boolean;
}

const known = new WeakMap<CueList["cues"], Tracking>();
/** The last version seen of each list, to derive the next one from. */
const latest = new Map<string, { cues: CueList["cues"]; order: readonly Cue[] }>();

const inShows = new WeakMap<Tracking, { show: Looking; made: Tracking }>();

/** A list as it tracks in a show: a palette that says nothing of a parameter lets what lies before it show through. */
export function trackingOf(list: CueList, show: Looking): Tracking {
  const base = storedIn(list);
  // Without palettes there is nothing to ask.
  if (Object.keys(show.palettes).length === 0) return base;
  const last = inShows.get(base);
  const { palettes, types, fixtures } = show;
  if (last?.show.palettes === palettes && last.show.types === types && last.show.fixtures === fixtures)
    return last.made;
  const looking = { palettes, types, fixtures };
  // It is asked once for each entry and version of the palettes.
  const known = new WeakMap<Entry, { key: ParamKey; says: boolean }>();
  const silent = (key: ParamKey, entry: Entry) => {
    const { value } = entry;
    if (typeof value !== "object" || !isLink(value)) return false;
    const last = known.get(entry);
    if (last?.key === key) return !last.says;
    const says = saidBy(looking, value.palette, key) !== undefined;
    known.set(entry, { key, says });
    return !says;
  };
  const made: Tracking = { ...base, silent };
  inShows.set(base, { show: looking, made });
  return made;
}

/** Derived once for each version of a list's cues; an edit of some cues touches only their parameters. */
export function storedIn(list: CueList): Tracking {
  const held = known.get(list.cues);
  if (held) return held;
  const order = cuesOf(list);
  const before = latest.get(list.id);
  const base = before && known.get(before.cues);
  const made: Tracking = {
    columns: base ? patchColumns(base.columns, before.order, order) : buildColumns(order),
    ...(base && reachesAlike(before.order, order) ? shapeIn(base) : shapeOf(order)),
  };
  known.set(list.cues, made);
  latest.set(list.id, { cues: list.cues, order });
  return made;
}

function buildColumns(order: readonly Cue[]): Map<ParamKey, Column> {
  const made = new Map<ParamKey, { at: number[]; entries: Entry[]; effects: boolean }>();
  order.forEach((cue, index) => {
    for (const key in cue.entries) {
      let column = made.get(key);
      if (!column) made.set(key, (column = { at: [], entries: [], effects: false }));
      column.at.push(index);
      column.entries.push(cue.entries[key]!);
      column.effects ||= cue.entries[key]!.effect !== undefined;
    }
  });
  return made;
}

/** So many cues are edited in place; more are put together anew. */
const FEW = 40;

/** The places of the cues that store something else, where the order is as it was and they are few. */
function fewEdited(before: readonly Cue[], after: readonly Cue[]): number[] | undefined {
  if (before.length !== after.length) return undefined;
  const found: number[] = [];
  for (let i = 0; i < after.length; i++) {
    const [old, now] = [before[i]!, after[i]!];
    // What is the very same is not looked into: thousands of cues lie all over the memory.
    if (old === now) continue;
    if (old.id !== now.id) return undefined;
    if (old.entries !== now.entries) found.push(i);
    if (found.length > FEW) return undefined;
  }
  return found;
}

/** The columns after an edit of a few cues: parameters keep their order, and those it does not touch are the very same. */
function editColumns(
  base: ReadonlyMap<ParamKey, Column>,
  before: readonly Cue[],
  after: readonly Cue[],
  places: readonly number[],
): ReadonlyMap<ParamKey, Column> {
  const made = new Map<ParamKey, Column | undefined>();
  const put = (key: ParamKey, at: number, entry: Entry | undefined) => {
    const column = (made.has(key) ? made.get(key) : base.get(key)) ?? { at: [], entries: [], effects: false };
    const k = lastAt(column, at);
    const [is, where] = column.at[k] === at ? [1, k] : [0, k + 1];
    const entries = column.entries.toSpliced(where, is, ...(entry ? [entry] : []));
    if (entries.length === 0) return void made.set(key, undefined);
    made.set(key, {
      at: column.at.toSpliced(where, is, ...(entry ? [at] : [])),
      entries,
      effects: entries.some(({ effect }) => effect !== undefined),
    });
  };
  for (const i of places) {
    const [old, now] = [before[i]!.entries, after[i]!.entries];
    for (const key in now) if (old[key] !== now[key]) put(key, i, now[key]);
    for (const key in old) if (!(key in now)) put(key, i, undefined);
  }
  return made.size > 0 ? overlaid(base, made) : base;
}

/** The new place of each old cue, -1 for those gone or out of their old order: they are taken out and put in anew. */
function newPlaces(before: readonly Cue[], after: readonly Cue[]): Int32Array {
  const place = new Map(after.map((cue, i) => [cue.id, i]));
  const to = Int32Array.from(before, (cue) => place.get(cue.id) ?? -1);
  // The longest rising run of places keeps its order; `tails` holds the last one of the best run of each length.
  const tails: number[] = [];
  const previous = new Int32Array(to.length).fill(-1);
  to.forEach((at, i) => {
    if (at < 0) return;
    let [low, high] = [0, tails.length];
    while (low < high) {
      const mid = (low + high) >> 1;
      if (to[tails[mid]!]! < at) low = mid + 1;
      else high = mid;
    }
    previous[i] = low > 0 ? tails[low - 1]! : -1;
    tails[low] = i;
  });
  const keeps = new Set<number>();
  for (let i = tails.at(-1) ?? -1; i >= 0; i = previous[i]!) keeps.add(i);
  return to.map((at, i) => (keeps.has(i) ? at : -1));
}

/** The columns of a new version of a list, from those of the last: only what changed is worked out anew. */
function patchColumns(
  base: ReadonlyMap<ParamKey, Column>,
  before: readonly Cue[],
  after: readonly Cue[],
): ReadonlyMap<ParamKey, Column> {
  const few = fewEdited(before, after);
  if (few) return editColumns(base, before, after, few);
  const to = newPlaces(before, after);
  // A list of which little is left is quicker built anew.
  if (to.filter((at) => at >= 0).length < after.length / 2) return buildColumns(after);
  const same = before.length === after.length && to.every((at, i) => at === i);
  const keptAt = new Map<number, Cue>();
  /** For each key the places at which it is put in anew, or that it loses. */
  const puts = new Map<ParamKey, number[]>();
  const losses = new Map<ParamKey, Set<number>>();
  const touched = new Set<ParamKey>();
  const put = (key: ParamKey, at: number) => {
    const places = puts.get(key);
    if (places) places.push(at);
    else puts.set(key, [at]);
    touched.add(key);
  };
  before.forEach((cue, i) => {
    if (to[i]! >= 0) keptAt.set(to[i]!, cue);
    else for (const key in cue.entries) touched.add(key);
  });
  after.forEach((cue, at) => {
    const old = keptAt.get(at)?.entries;
    if (old === cue.entries) return;
    for (const key in cue.entries) if (old?.[key] !== cue.entries[key]) put(key, at);
    for (const key in old ?? {}) {
      if (old![key] === cue.entries[key]) continue;
      touched.add(key);
      const lost = losses.get(key);
      if (lost) lost.add(at);
      else losses.set(key, new Set([at]));
    }
  });
  if (same && touched.size === 0) return base;
  const made = new Map<ParamKey, Column>();
  for (const [key, column] of base) {
    if (touched.has(key)) continue;
    made.set(key, same ? column : { ...column, at: column.at.map((i) => to[i]!) });
  }
  for (const key of touched) {
    const column = base.get(key);
    const lost = losses.get(key);
    const rows: [at: number, entry: Entry][] = [];
    column?.at.forEach((i, k) => {
      const at = to[i]!;
      if (at >= 0 && !lost?.has(at)) rows.push([at, column.entries[k]!]);
    });
    for (const at of puts.get(key) ?? []) rows.push([at, after[at]!.entries[key]!]);
    if (rows.length === 0) continue;
    rows.sort((a, b) => a[0] - b[0]);
    made.set(key, {
      at: rows.map(([at]) => at),
      entries: rows.map(([, entry]) => entry),
      effects: rows.some(([, entry]) => entry.effect !== undefined),
    });
  }
  return made;
}

type Shape = Pick<Tracking, "reachEnd" | "since" | "turns">;
const shapeIn = ({ reachEnd, since, turns }: Tracking): Shape => ({ reachEnd, since, turns });

/** Whether cues reach and start afresh as they did before. */
const reachesAlike = (before: readonly Cue[], after: readonly Cue[]): boolean =>
  before.length === after.length &&
  before.every((old, i) => {
    const cue = after[i]!;
    return (
      old === cue ||
      (old.id === cue.id && old.number === cue.number && old.reach === cue.reach && old.fresh === cue.fresh)
    );
  });

function shapeOf(order: readonly Cue[]): Shape {
  const reachEnd = order.map((cue, i) => reachOf(order, cue, i));
  const turns = order.map((cue) => cue.fresh);
  reachEnd.forEach((end) => {
    if (end + 1 < order.length) turns[end + 1] = true;
  });
  let start = 0;
  const since = order.map((cue, i) => (cue.fresh ? (start = i) : start));
  return { reachEnd, since, turns };
}

function reachOf(order: readonly Cue[], cue: Cue, index: number): number {
  if (!cue.reach) return Infinity;
  if ("cue" in cue.reach) {
    const { cue: id } = cue.reach;
    return Math.max(
      index,
      order.findIndex((c) => c.id === id),
    );
  }
  if ("more" in cue.reach) return Math.min(index + cue.reach.more, order.length - 1);
  let end = index;
  while (end + 1 < order.length && order[end + 1]!.number <= cue.reach.upTo + 0.0005) end += 1;
  return end;
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

/**
 * What is in force for a parameter at the cue at `index`; undefined for none.
 * @param carried the list came round from its last cue and what tracked was not dropped.
 * @param name values and effects track each on its own.
 */
export function inForceAt(
  tracking: Tracking,
  key: ParamKey,
  index: number,
  carried = false,
  name: ColumnName = "value",
): InForce | undefined {
  const column = tracking.columns.get(key);
  if (!column || index < 0 || (name === "effect" && !column.effects)) return undefined;
  const found = inColumn(tracking, column, key, index, name);
  if (found !== undefined) return found ?? undefined;
  if (!carried || isFresh(tracking, index)) return undefined;
  return inForceAt(tracking, key, tracking.since.length - 1, false, name);
}

/** The same within the list alone; null where it was ended, undefined where nothing was stored. */
function inColumn(
  tracking: Tracking,
  column: Column,
  key: ParamKey,
  index: number,
  name: ColumnName,
): InForce | null | undefined {
  const since = tracking.since[index] ?? 0;
  for (let place = lastAt(column, index); place >= 0 && column.at[place]! >= since; place--) {
    const at = column.at[place]!;
    if (tracking.reachEnd[at]! < index) continue;
    const entry = column.entries[place]!;
    if ((name === "value" ? entry.value : entry.effect) === undefined) continue;
    if (name === "value" && typeof entry.value === "object" && tracking.silent?.(key, entry)) continue;
    return ends(entry, name) ? null : { entry, at };
  }
  return undefined;
}

/** Whether a fresh start lies at or before a place. */
const isFresh = (tracking: Tracking, index: number): boolean =>
  (tracking.since[index] ?? 0) > 0 || (tracking.turns[0] ?? false);

/** Every value in force at the cue at `index`. */
export function allInForce(list: CueList, index: number, show: Looking): Map<ParamKey, InForce> {
  const tracking = trackingOf(list, show);
  const found = new Map<ParamKey, InForce>();
  if (index < 0) return found;
  for (const [key, column] of tracking.columns) {
    const value = inColumn(tracking, column, key, index, "value");
    if (value) found.set(key, value);
  }
  return found;
}

/** Everything in force at the cue at `index`, values and effects together, without own timing. */
export function entriesInForce(list: CueList, index: number, show: Looking): Map<ParamKey, Entry> {
  const tracking = trackingOf(list, show);
  const found = new Map<ParamKey, Entry>();
  for (const [key, column] of tracking.columns) {
    const value = inForceAt(tracking, key, index)?.entry;
    const effect = column.effects ? inForceAt(tracking, key, index, false, "effect")?.entry : undefined;
    if (!value && !effect) continue;
    found.set(key, {
      attribute: (value ?? effect!).attribute,
      ...(value ? { value: value.value } : {}),
      ...(effect ? { effect: effect.effect } : {}),
    });
  }
  return found;
}

export type Standing =
  | { state: "stored" | "tracked"; entry: Entry; from: Cue }
  | { state: "released" }
  | { state: "unset" };

/** How a parameter stands in a cue: stored here, tracked in, released here, or not set. */
export function standingOf(list: CueList, index: number, key: ParamKey, show: Looking): Standing {
  const cues = cuesOf(list);
  const stored = cues[index]?.entries[key];
  if (stored && ends(stored, "value")) return { state: "released" };
  const found = inForceAt(trackingOf(list, show), key, index);
  if (!found) return { state: "unset" };
  return { state: found.at === index ? "stored" : "tracked", entry: found.entry, from: cues[found.at]! };
}
