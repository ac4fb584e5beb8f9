/** Which palettes, effects and waves entries name, and that those exist. */
import type { Diff } from "../change/diff";
import { hasStops, isFrom, isStop, linksOfVoice, type EffectRecord, type Effect, type Voice } from "../effectSchema";
import type { Id, ParamKey } from "../ids";
import type { Link } from "../link";
import type { Palette } from "../paletteSchema";
import type { Show } from "../schema";
import { isLink, type Entry, type Value } from "../value";
import type { World } from "../world";
import { mapped } from "../../units/mapped";

/** The palettes and the wave that a voice names. */
export const namedByVoice = (voice: Voice): Id[] => [
  ...linksOfVoice(voice),
  ...(!hasStops(voice) && typeof voice.wave === "object" && "own" in voice.wave ? [voice.wave.own] : []),
];

/** A voice with other values in place of its links. @param change undefined leaves a link as it is. */
export function withLinks(voice: Voice, change: (palette: Id) => number | Link | undefined): Voice {
  const made = <V>(value: V): V | number | Link =>
    typeof value === "object" && value !== null && "palette" in value
      ? (change((value as unknown as Link).palette) ?? value)
      : value;
  if (hasStops(voice)) return { ...voice, stops: voice.stops.map((s) => ({ ...s, value: made(s.value) })) };
  const { range } = voice;
  return "low" in range ? { ...voice, range: { low: made(range.low), high: made(range.high) } } : voice;
}

const namedByEffect = (effect: Effect | undefined): Id[] =>
  effect === undefined || isStop(effect) ? [] : isFrom(effect) ? [effect.from] : namedByVoice(effect.plays);

/** The palettes, and the effect or the wave, that an entry names itself. */
export function linksOf({ value, effect }: Entry): Id[] {
  const named = namedByEffect(effect);
  return value !== undefined && isLink(value) ? [value.palette, ...named] : named;
}

/** The palettes and waves that an effect names. */
export const namedByRecord = ({ voices }: Pick<EffectRecord, "voices">): Id[] => [
  ...new Set(voices.flatMap(({ voice }) => namedByVoice(voice))),
];

const byEntries = new WeakMap<object, ReadonlyMap<Id, number>>();

/** How many entries name each palette, effect or wave; counted once for each version of them. */
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
  // Thousands name the same.
  let found: Id | undefined;
  const there = (id: Id) =>
    id === found || ((show.palettes[id] ?? show.effects[id] ?? show.waves[id]) !== undefined && (found = id));
  const missing = (ids: Iterable<Id>): Id | undefined => {
    for (const id of ids) if (!there(id)) return id;
    return undefined;
  };
  const says = (where: string, id: Id) => {
    const what = id.startsWith("e") ? "an effect" : id.startsWith("w") ? "a wave" : "a palette";
    return `${where} would follow ${what} that does not exist (${id})`;
  };
  const asked = (entries: Readonly<Record<ParamKey, Entry>>, key: ParamKey | undefined): Iterable<Id> => {
    if (key === undefined) return linksIn(entries).keys();
    const entry = entries[key];
    if (!entry || (typeof entry.value === "number" && !entry.effect)) return NONE;
    if (!entry.effect && typeof entry.value === "object" && isLink(entry.value) && entry.value.palette === found)
      return NONE;
    return linksOf(entry);
  };
  const gone = diff.some(
    ({ path, to }) =>
      path[0] === "show" && /^(palettes|effects|waves)$/.test(path[1] ?? "") && path.length === 3 && to === undefined,
  );
  const all: Diff = gone
    ? ["held", "parked"]
        .map((p) => ({ path: ["hands", p], from: undefined, to: undefined }))
        .concat(
          [
            ...Object.keys(show.lists).map((id) => ["lists", id]),
            ...Object.keys(show.palettes).map((id) => ["palettes", id]),
            ...Object.keys(show.effects).map((id) => ["effects", id]),
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
      for (const list of lists) {
        if (list?.effect !== undefined && !show.effects[list.effect]) return says(`list ${list.number}`, list.effect);
        for (const cue of cueId === undefined ? Object.values(list?.cues ?? {}) : [list?.cues[cueId]]) {
          const lost = cue && missing(asked(cue.entries, key));
          if (lost) return says(`cue ${cue.number} of list ${list!.number}`, lost);
        }
      }
    } else if (what === "effects") {
      for (const effect of id === undefined ? Object.values(show.effects) : [show.effects[id]]) {
        const lost = effect && missing(namedByRecord(effect));
        if (lost) return says(`effect ${effect.number}`, lost);
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
  const there = (id: Id) => (show.palettes[id] ?? show.effects[id] ?? show.waves[id]) !== undefined;
  const kept = <T extends { value?: Value | undefined; effect?: Effect | undefined }>(
    entries: Record<string, T>,
  ): Record<string, T> => {
    const bad = Object.entries(entries).filter(([, entry]) => !linksOf(entry as unknown as Entry).every(there));
    if (bad.length === 0) return entries;
    lost += bad.length;
    const gone = new Set(bad.map(([key]) => key));
    return Object.fromEntries(Object.entries(entries).filter(([key]) => !gone.has(key)));
  };
  const lists = mapped(show.lists, ({ effect, ...list }) => ({
    ...list,
    ...(effect === undefined || (!show.effects[effect] && ++lost) ? {} : { effect }),
    cues: mapped(list.cues, (cue) => ({ ...cue, entries: kept(cue.entries) })),
  }));
  const palettes = mapped(show.palettes, (p) => ({
    ...p,
    own: kept(p.own),
    types: mapped(p.types, (of) => ({ ...of, values: kept(of.values) })),
    any: {
      ...p.any,
      values: Object.fromEntries(
        Object.entries(p.any.values).filter(
          ([, value]) => !(typeof value === "object" && isLink(value)) || there(value.palette) || void (lost += 1),
        ),
      ),
    },
  }));
  const effects = mapped(show.effects, (effect) => ({
    ...effect,
    voices: effect.voices.filter(({ voice }) => namedByVoice(voice).every(there) || void (lost += 1)),
  }));
  return lost === 0 ? { show, lost } : { show: { ...show, lists, palettes, effects }, lost };
}
