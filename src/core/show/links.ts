/** Which palettes entries name, and that those exist. */
import type { Diff } from "./diff";
import type { Id, ParamKey } from "./ids";
import type { Palette } from "./paletteSchema";
import type { Show } from "./schema";
import { isLink, isStop, type Entry, type Value } from "./value";
import type { World } from "./world";

/** The palettes an entry names itself. */
export function linksOf({ value, effect }: Entry): Id[] {
  const values: (Value | undefined)[] = effect && !isStop(effect) ? [value, effect.low, effect.high] : [value];
  return values.flatMap((v) => (v !== undefined && isLink(v) ? [v.palette] : []));
}

const byEntries = new WeakMap<object, ReadonlyMap<Id, number>>();

/** How many entries name each palette; counted once for each version of them. */
export function linksIn(entries: Readonly<Record<ParamKey, Entry>>): ReadonlyMap<Id, number> {
  const known = byEntries.get(entries);
  if (known) return known;
  const made = new Map<Id, number>();
  for (const key in entries) for (const id of linksOf(entries[key]!)) made.set(id, (made.get(id) ?? 0) + 1);
  byEntries.set(entries, made);
  return made;
}

/** The palettes a palette names. */
export function namedBy(palette: Pick<Palette, "own" | "types" | "any">): Id[] {
  const found = new Set<Id>();
  const note = (value: Value) => typeof value === "object" && isLink(value) && found.add(value.palette);
  for (const key in palette.own) note(palette.own[key]!.value);
  for (const type of Object.values(palette.types)) for (const place in type.values) note(type.values[place]!.value);
  for (const attribute in palette.any.values) note(palette.any.values[attribute]!);
  return [...found];
}

/** Why an edit would leave links that lead nowhere; undefined where it leaves none. Only what it touched is asked, unless a palette goes. */
export function lostLink({ show, hands }: World, diff: Diff): string | undefined {
  const missing = (ids: Iterable<Id>): Id | undefined => {
    for (const id of ids) if (!show.palettes[id]) return id;
    return undefined;
  };
  const says = (where: string, id: Id) => `${where} would follow a palette that does not exist (${id})`;
  const asked = (entries: Readonly<Record<ParamKey, Entry>>, key: ParamKey | undefined): Iterable<Id> => {
    if (key === undefined) return linksIn(entries).keys();
    const entry = entries[key];
    return !entry || (typeof entry.value === "number" && !entry.effect) ? NONE : linksOf(entry);
  };
  const gone = diff.some(
    ({ path, to }) => path[0] === "show" && path[1] === "palettes" && path.length === 3 && to === undefined,
  );
  const all: Diff = gone
    ? ["held", "parked"]
        .map((p) => ({ path: ["hands", p], from: undefined, to: undefined }))
        .concat(
          [
            ...Object.keys(show.lists).map((id) => ["lists", id]),
            ...Object.keys(show.palettes).map((id) => ["palettes", id]),
          ].map((path) => ({ path: ["show", ...path], from: undefined, to: undefined })),
        )
    : diff;
  for (const { path } of all) {
    const [where, what, id, , cueId, , key] = path;
    if (where === "hands" && (what === "held" || what === "parked")) {
      const lost = missing(asked(hands[what], id));
      if (lost) return says(`what is ${what}`, lost);
    } else if (what === "lists") {
      const lists = id === undefined ? Object.values(show.lists) : [show.lists[id]];
      for (const list of lists)
        for (const cue of cueId === undefined ? Object.values(list?.cues ?? {}) : [list?.cues[cueId]]) {
          const lost = cue && missing(asked(cue.entries, key));
          if (lost) return says(`cue ${cue.number} of list ${list!.number}`, lost);
        }
    } else if (what === "palettes") {
      for (const palette of id === undefined ? Object.values(show.palettes) : [show.palettes[id]]) {
        const lost = palette && missing(namedBy(palette));
        if (lost) return says(`palette ${palette.number}`, lost);
      }
    } else if (path.length <= 1 || (where === "show" && what === undefined)) return undefined;
  }
  return undefined;
}
const NONE: readonly Id[] = [];

/** A show from elsewhere without links that lead nowhere: what they were of is as if it had never been stored. */
export function withoutLostLinks(show: Show): { show: Show; lost: number } {
  let lost = 0;
  const there = (value: Value | undefined) =>
    !(typeof value === "object" && isLink(value)) || show.palettes[value.palette] !== undefined;
  const kept = <T extends { value?: Value | undefined; effect?: Entry["effect"] }>(
    entries: Record<string, T>,
  ): Record<string, T> => {
    const bad = Object.entries(entries).filter(
      ([, { value, effect }]) =>
        !there(value) || (effect && !isStop(effect) && !(there(effect.low) && there(effect.high))),
    );
    if (bad.length === 0) return entries;
    lost += bad.length;
    const gone = new Set(bad.map(([key]) => key));
    return Object.fromEntries(Object.entries(entries).filter(([key]) => !gone.has(key)));
  };
  const lists = Object.fromEntries(
    Object.entries(show.lists).map(([id, list]) => [
      id,
      {
        ...list,
        cues: Object.fromEntries(
          Object.entries(list.cues).map(([c, cue]) => [c, { ...cue, entries: kept(cue.entries) }]),
        ),
      },
    ]),
  );
  const palettes = Object.fromEntries(
    Object.entries(show.palettes).map(([id, p]) => [
      id,
      {
        ...p,
        own: kept(p.own),
        types: Object.fromEntries(Object.entries(p.types).map(([t, of]) => [t, { ...of, values: kept(of.values) }])),
        any: {
          ...p.any,
          values: Object.fromEntries(
            Object.entries(p.any.values).filter(([, value]) => there(value) || void (lost += 1)),
          ),
        },
      },
    ]),
  );
  return lost === 0 ? { show, lost } : { show: { ...show, lists, palettes }, lost };
}
