/**
 * What is stored of a fixture, in the terms of another type: by attribute in real units, slots by name or colour,
 * colours by how they look. What the other type cannot do stays, silent, and comes back with one that can; what was
 * made anew remembers what it was, so that the way back is exact.
 */
import { rangeOf } from "../fixture/parameters";
import type { ChannelFunction } from "../fixture/type";
import { attributeInfo } from "../fixture/attribute";
import { paramKey, splitKey, type Id, type ParamKey } from "../show/ids";
import type { Entry, Value } from "../show/value";
import { convertColours } from "./convertColours";
import { before, unmarked, wasOf, type Standing, type Swapping, type Way } from "./way";
import { cellsFor, having, makesColour, mixesAlike } from "./sides";
import { nearestSlot, sameSlots } from "./slots";

/**
 * The entries of a fixture in a cue, a palette or what is held, after the swap. Entries of others are not looked at.
 * @returns the same record where nothing changes.
 */
export function converted(
  entries: Readonly<Record<ParamKey, Entry>>,
  swap: Swapping,
  standing: Standing,
): Record<ParamKey, Entry> {
  const { fixture, from, to } = swap;
  const own: ParamKey[] = [];
  const made: Record<ParamKey, Entry> = {};
  for (const key in entries) {
    if (key.startsWith(fixture) && key[fixture.length] === ".") own.push(key);
    else made[key] = entries[key]!;
  }
  if (own.length === 0) return entries;
  const alive = new Map<ParamKey, Entry>();
  const silent: [ParamKey, Entry][] = [];
  for (const key of own) {
    const entry = entries[key]!;
    if (having(from, splitKey(key).cell, entry.attribute) && entry.of === undefined) alive.set(key, entry);
    else silent.push([key, entry]);
  }
  const colours: [ParamKey, Entry][] = [];
  const rest: [ParamKey, Entry][] = [];
  for (const pair of alive) (direct(pair, swap) ? rest : colours).push(pair);
  const returns = ([, { was }]: readonly [ParamKey, Entry]) => was?.of === to.type.id;
  const returning = colours.every(returns);
  // Colours that were edited since replace those that are kept from before.
  const stale = ([, { of, attribute }]: readonly [ParamKey, Entry]) =>
    !returning && of === to.type.id && makesColour(attribute);
  for (const pair of silent) if (!stale(pair)) comesBack(made, pair, swap);
  const way: Way = { alive, made };
  if (returning) for (const pair of colours) restored(made, pair, swap);
  else convertColours(way, colours, swap, standing);
  for (const pair of rest) if (returns(pair)) restored(made, pair, swap);
  const anew = rest.filter((pair) => !returns(pair));
  // What stays silent first: what is made anew takes its place and remembers it.
  for (const pair of anew) kept(way, pair, swap);
  for (const pair of anew) plainly(way, pair, swap);
  return made;
}

/** Whether an entry goes by its attribute, and not by how it looks. */
function direct([key, { attribute }]: readonly [ParamKey, Entry], { from, to }: Swapping): boolean {
  const { cell } = splitKey(key);
  if (!makesColour(attribute)) return true;
  const cells = cellsFor(from, to, cell, attribute);
  return cells.length > 0 && cells.every((c) => mixesAlike(from, to, c, cell));
}

/** What was silent comes back where the type can do it. */
function comesBack(
  made: Record<ParamKey, Entry>,
  [key, entry]: readonly [ParamKey, Entry],
  { fixture, to }: Swapping,
): void {
  const { cell } = splitKey(key);
  const spot = having(to, cell, entry.attribute);
  if (!spot || (entry.of !== undefined && entry.of !== to.type.id)) made[key] = entry;
  else made[paramKey(fixture, cell, spot.spec.head)] = unmarked(entry);
}

/** What an entry was made in the place of. */
function restored(made: Record<ParamKey, Entry>, [, entry]: readonly [ParamKey, Entry], { fixture }: Swapping): void {
  const was = before(entry);
  if (was) made[`${fixture}.${entry.was!.place}`] = was;
}

/** What the type cannot do at its place stays there, silent. */
function kept({ made }: Way, [key, entry]: readonly [ParamKey, Entry], { fixture, from, to, note }: Swapping): void {
  const { cell } = splitKey(key);
  const cells = cellsFor(from, to, cell, entry.attribute);
  if (cells.length === 0) note({ attribute: entry.attribute, kind: "lost" });
  if (cells.includes(cell)) return;
  if (!entry.was) made[key] = { ...entry, of: from.type.id };
  else {
    // Made on the way from another type: that is what is kept.
    const was = before(entry);
    if (was) made[`${fixture}.${entry.was.place}`] = { ...was, of: entry.was.of };
  }
}

/** By attribute, to each cell that stands for its own. */
function plainly({ alive, made }: Way, [key, entry]: readonly [ParamKey, Entry], swap: Swapping): void {
  const { fixture, from, to } = swap;
  const { attribute } = entry;
  const { cell } = splitKey(key);
  const old = having(from, cell, attribute)!.fn;
  for (const c of cellsFor(from, to, cell, attribute)) {
    const { spec, fn } = having(to, c, attribute)!;
    const put = paramKey(fixture, c, spec.head);
    const stays = c === cell && (cell === 0 || from.mode.cells === to.mode.cells);
    const was = stays ? undefined : wasOf(put, alive.get(put), from.type.id);
    made[put] = inTerms(key, entry, swap, old, fn, was);
  }
}

/** An entry of the same attribute: slots by name or colour, numbers as they are. */
function inTerms(
  key: ParamKey,
  entry: Entry,
  { from, note }: Swapping,
  old: ChannelFunction,
  fn: ChannelFunction,
  was: Entry["was"],
): Entry {
  const { attribute, value } = entry;
  const made: Entry = was ? { ...unmarked(entry), was } : entry;
  if (typeof value !== "number" || !old.steps) {
    outside(value, fn, attribute, note);
    return made;
  }
  if (sameSlots(old, fn)) {
    note({ attribute, kind: "same" });
    return made;
  }
  const found = nearestSlot(old, fn, value);
  const name = (f: ChannelFunction, v: number) => f.steps?.find((s) => s.value === Math.round(v))?.name ?? String(v);
  if (!found) {
    note({ attribute, kind: "near", how: `${name(old, value)} is not there: the number stays` });
    return made;
  }
  note(
    found.off === 0
      ? { attribute, kind: "same" }
      : { attribute, kind: "near", how: `${name(old, value)} becomes ${name(fn, found.value)}`, off: found.off ?? 0 },
  );
  return { ...unmarked(entry), value: found.value, was: was ?? wasOf(key, entry, from.type.id) };
}

function outside(
  value: Value | undefined,
  fn: Parameters<typeof rangeOf>[0],
  attribute: string,
  note: Swapping["note"],
): void {
  if (typeof value !== "number") return note({ attribute, kind: "same" });
  const [low, high] = rangeOf(fn);
  if (value >= low && value <= high) return note({ attribute, kind: "same" });
  const { unit } = attributeInfo(attribute);
  const end = value < low ? low : high;
  note({
    attribute,
    kind: "near",
    how: `${Math.round(value * 10) / 10}${unit} can only be ${Math.round(end * 10) / 10}${unit}`,
  });
}

/** Entries of many fixtures: each on its own few, then together, so that thousands are not copied for each. */
export function convertedMany(
  entries: Readonly<Record<ParamKey, Entry>>,
  swaps: readonly Swapping[],
  standing: Standing,
): Record<ParamKey, Entry> {
  const apart = new Map<Id, Record<ParamKey, Entry>>(swaps.map((s) => [s.fixture, {}]));
  const made: Record<ParamKey, Entry> = {};
  for (const key in entries) {
    const mine = apart.get(key.slice(0, key.indexOf(".")));
    (mine ?? made)[key] = entries[key]!;
  }
  for (const swap of swaps) Object.assign(made, converted(apart.get(swap.fixture)!, swap, standing));
  return made;
}
