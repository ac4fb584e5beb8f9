/** What is programmed of one fixture, given to another: its entries in cues, its exceptions in palettes, its places in groups and effects. */
import { splitItem, splitKey, type Id, type Item, type ParamKey } from "../show/ids";
import { modelOf } from "../show/model";
import type { Cue, Show } from "../show/schema";
import type { Entry } from "../show/value";
import { cuesOf } from "../show/world";
import { mapped } from "../units/mapped";
import { inForceAt, trackingOf } from "../cue/tracking";
import { converted } from "./convert";
import { unmarked, type Standing, type Swapping } from "./way";
import { numberAt, standingIn } from "./standing";
import { ofOtherType } from "./swapPalettes";

/** Who is programmed as whom. */
export type Pair = readonly [from: Id, to: Id];

/** A show in which the second of each pair is programmed as the first; what it had of its own in cues and palettes is gone. */
export function programmedAs(show: Show, pairs: readonly Pair[]): Show {
  const giving = givers(show, pairs);
  return {
    ...show,
    lists: mapped(show.lists, (list) => {
      const tracking = trackingOf(list, show);
      const cues = { ...list.cues };
      cuesOf(list).forEach((cue, at) => {
        const standing: Standing = (key) => numberAt(show, key, inForceAt(tracking, key, at)?.entry);
        cues[cue.id] = cueAs(cue, pairs, entriesAs(cue.entries, giving, standing));
      });
      return { ...list, cues };
    }),
    palettes: mapped(show.palettes, (palette) => {
      const own = palette.own as Record<ParamKey, Entry>;
      const types = { ...palette.types };
      for (const swap of giving.values())
        for (const { to, swapping } of swap) {
          const [of, type] = [types[swapping.from.type.id], swapping.to.type.id];
          if (!of || types[type]) continue;
          const made = ofOtherType(show, of, swapping);
          if (Object.keys(made.values).length > 0) types[type] = { ...made, reference: to };
        }
      return {
        ...palette,
        own: entriesAs(own, giving, standingIn(show, own)) as typeof palette.own,
        types,
      };
    }),
    groups: mapped(show.groups, (group) => {
      const members = joined(group.members, pairs);
      const steps = group.steps && { ...group.steps };
      if (steps)
        for (const [from, to] of pairs)
          for (const i of Object.keys(steps)) if (splitItem(i).fixture === from) steps[as(i, to)] ??= steps[i]!;
      return { ...group, members, ...(steps ? { steps } : {}) };
    }),
    effects: mapped(show.effects, (effect) =>
      effect.cast
        ? {
            ...effect,
            cast: joined(effect.cast, pairs),
            voices: effect.voices.map((v) => (v.items ? { ...v, items: joined(v.items, pairs) } : v)),
          }
        : effect,
    ),
  };
}

interface Giving {
  to: Id;
  swapping: Swapping;
  /** Of another type: its entries are put in the other's terms. */
  other: boolean;
}

function givers(show: Show, pairs: readonly Pair[]): Map<Id, Giving[]> {
  const made = new Map<Id, Giving[]>();
  for (const [from, to] of pairs) {
    const [a, b] = [modelOf(show, show.fixtures[from]!), modelOf(show, show.fixtures[to]!)];
    const swapping: Swapping = { fixture: from, from: a, to: b, typeOf: (id) => show.types[id], note: () => undefined };
    made.set(from, [...(made.get(from) ?? []), { to, swapping, other: a.specs !== b.specs }]);
  }
  return made;
}

function entriesAs(
  entries: Readonly<Record<ParamKey, Entry>>,
  giving: ReadonlyMap<Id, readonly Giving[]>,
  standing: Standing,
): Record<ParamKey, Entry> {
  const made: Record<ParamKey, Entry> = {};
  const takes = new Set([...giving.values()].flat().map((g) => g.to));
  const given = new Map<Id, Record<ParamKey, Entry>>();
  for (const key in entries) {
    const { fixture } = splitKey(key);
    if (!takes.has(fixture)) made[key] = entries[key]!;
    if (!giving.has(fixture)) continue;
    const own = given.get(fixture) ?? {};
    own[key] = entries[key]!;
    given.set(fixture, own);
  }
  for (const [from, own] of given)
    for (const { to, swapping, other } of giving.get(from)!)
      for (const [key, entry] of Object.entries(other ? converted(own, swapping, standing) : own)) {
        if (other && entry.of !== undefined) continue;
        made[`${to}${key.slice(from.length)}`] = other ? unmarked(entry) : entry;
      }
  return made;
}

function cueAs(cue: Cue, pairs: readonly Pair[], entries: Cue["entries"]): Cue {
  const { meant, blackMovesOf } = cue;
  const made: Cue = { ...cue, entries };
  if (meant) made.meant = joined(meant, pairs);
  if (blackMovesOf) {
    made.blackMovesOf = { ...blackMovesOf };
    for (const [from, to] of pairs) if (blackMovesOf[from] !== undefined) made.blackMovesOf[to] = blackMovesOf[from]!;
  }
  return made;
}

const as = (item: Item, fixture: Id): Item => fixture + item.slice(splitItem(item).fixture.length);

/** Items with those that are to stand beside them behind, each once. */
function joined(items: readonly Item[], pairs: readonly Pair[]): Item[] {
  const to = new Map<Id, Id[]>();
  for (const [a, b] of pairs) to.set(a, [...(to.get(a) ?? []), b]);
  return [...new Set([...items, ...items.flatMap((i) => (to.get(splitItem(i).fixture) ?? []).map((f) => as(i, f)))])];
}
