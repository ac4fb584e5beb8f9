/** What has to be stored so that later looks stay as they were before an edit (SEMANTICS 4 and 9). */
import { resolveEntry } from "../program/resolve";
import type { Id, ParamKey } from "../show/ids";
import type { CueList, Show } from "../show/schema";
import { cuesOf, sameCueNumber } from "../show/world";
import { RELEASE, STOP, type ColumnName, type Entry } from "../show/value";
import { sameEffect } from "../effect/voices";
import { fixtureLook, partsOf, sameLook, touchedFixtures } from "./looks";
import { inForceAt, trackingOf, type Tracking } from "./tracking";

export type Additions = Map<Id, Record<ParamKey, Entry>>;

/** What was in force of a parameter, as one entry; where nothing was, its end, in the columns asked for. */
function plainEntry(tracking: Tracking, key: ParamKey, index: number, columns: ReadonlySet<ColumnName>): Entry {
  const value = inForceAt(tracking, key, index)?.entry;
  const effect = columns.has("effect") ? inForceAt(tracking, key, index, false, "effect")?.entry : undefined;
  return {
    attribute: (value ?? effect)?.attribute ?? key.split(".")[2]!,
    ...(columns.has("value") ? { value: value?.value ?? RELEASE } : {}),
    ...(columns.has("effect") ? { effect: effect?.effect ?? STOP } : {}),
  };
}

/** The columns in which a list says anything of a parameter. */
const columnsOf = (tracking: Tracking, key: ParamKey): ColumnName[] =>
  tracking.columns.get(key)?.effects ? ["value", "effect"] : ["value"];

/**
 * Cue only: what the cue after `number` gets for the touched parameters it does not store itself.
 * @param after the list with the edit done.
 */
export function forNextCue(
  show: Show,
  before: CueList,
  after: CueList,
  number: number,
  touched: Iterable<ParamKey>,
): Additions {
  const cues = cuesOf(before);
  const index = cues.findIndex((cue) => cue.number > number + 0.0005);
  const additions: Additions = new Map();
  if (index < 0) return additions;
  const [tracking, now] = [trackingOf(before, show), trackingOf(after, show)];
  const next = cues[index]!;
  const edited = (list: CueList) => cuesOf(list).find((cue) => sameCueNumber(cue.number, number))?.entries;
  const [was, is] = [edited(before), edited(after)];
  const entries: Record<ParamKey, Entry> = {};
  for (const key of touched) {
    const stored = next.entries[key];
    const says = (name: ColumnName) => was?.[key]?.[name] !== undefined || is?.[key]?.[name] !== undefined;
    const columns = new Set(
      [...new Set([...columnsOf(tracking, key), ...columnsOf(now, key)])].filter(
        (name) => stored?.[name] === undefined && says(name),
      ),
    );
    if (columns.size === 0) continue;
    const made = plainEntry(tracking, key, index, columns);
    entries[key] = stored ? { ...made, ...stored } : made;
  }
  additions.set(next.id, entries);
  return additions;
}

/** Entries with others laid over them, column by column. */
export function mergedEntries(
  entries: Readonly<Record<ParamKey, Entry>>,
  added: Readonly<Record<ParamKey, Entry>>,
): Record<ParamKey, Entry> {
  const made = { ...entries };
  for (const [key, entry] of Object.entries(added)) made[key] = { ...made[key], ...entry };
  return made;
}

/** A list with entries added to some of its cues. */
export function withAdditions(list: CueList, additions: Additions): CueList {
  const cues = { ...list.cues };
  for (const [id, entries] of additions)
    if (cues[id]) cues[id] = { ...cues[id], entries: mergedEntries(cues[id].entries, entries) };
  return { ...list, cues };
}

/**
 * Entries that give every cue of `after`, but those exempt, the look it had in `before`. Cues are mended
 * in order, so that what one gets tracks into the next.
 */
export function repairs(show: Show, before: CueList, after: CueList, exempt: ReadonlySet<Id>): Additions {
  const additions: Additions = new Map();
  const old = trackingOf(before, show);
  const places = new Map(cuesOf(before).map((cue, i) => [cue.id, i]));
  const fixtures = [...new Set(touchedFixtures(before, after, show))].flatMap((id) => show.fixtures[id] ?? []);
  let list = after;
  cuesOf(after).forEach((cue, i) => {
    const was = places.get(cue.id);
    if (was === undefined || exempt.has(cue.id)) return;
    const now = trackingOf(list, show);
    const entries: Record<ParamKey, Entry> = {};
    for (const fixture of fixtures) {
      const look = fixtureLook(show, fixture, old, was);
      if (sameLook(look, fixtureLook(show, fixture, now, i))) continue;
      for (const { key, spec } of partsOf(show, fixture)) {
        if (look === null && spec.head !== "Dimmer") continue;
        const [a, b] = [inForceAt(old, key, was), inForceAt(now, key, i)];
        const [x, y] = [a, b].map((f) => f && resolveEntry(show, key, spec, f.entry));
        const [p, q] = [
          inForceAt(old, key, was, false, "effect")?.entry.effect,
          inForceAt(now, key, i, false, "effect")?.entry.effect,
        ];
        const plays = p === undefined || q === undefined ? p !== q : !sameEffect(p, q);
        const differs = x?.value !== y?.value || x?.fn !== y?.fn;
        if (differs || plays)
          entries[key] = plainEntry(
            old,
            key,
            was,
            // An effect that goes on is stored beside a value that would end it.
            new Set([
              ...(differs ? (["value"] as const) : []),
              ...(plays || p !== undefined ? (["effect"] as const) : []),
            ]),
          );
      }
    }
    if (Object.keys(entries).length === 0) return;
    additions.set(cue.id, entries);
    list = withAdditions(list, new Map([[cue.id, entries]]));
  });
  return additions;
}
