/** What has to be stored so that later looks stay as they were before an edit (SEMANTICS 4 and 9). */
import { resolveEntry } from "../program/resolve";
import type { Id, ParamKey } from "../show/ids";
import type { CueList, Show } from "../show/schema";
import { cuesOf } from "../show/world";
import { RELEASE, type Entry } from "../show/value";
import { fixtureLook, partsOf, sameLook, touchedFixtures } from "./looks";
import { inForceAt, trackingOf, type InForce } from "./tracking";

export type Additions = Map<Id, Record<ParamKey, Entry>>;

const plainEntry = (key: ParamKey, found: InForce | undefined): Entry =>
  found
    ? { attribute: found.entry.attribute, value: found.entry.value }
    : { attribute: key.split(".")[2]!, value: RELEASE };

/** Cue only: what the cue after `number` gets for the touched parameters it does not store itself. */
export function forNextCue(show: Show, before: CueList, number: number, touched: Iterable<ParamKey>): Additions {
  const cues = cuesOf(before);
  const index = cues.findIndex((cue) => cue.number > number + 0.0005);
  const additions: Additions = new Map();
  if (index < 0) return additions;
  const tracking = trackingOf(before, show);
  const next = cues[index]!;
  const entries: Record<ParamKey, Entry> = {};
  for (const key of touched) if (!next.entries[key]) entries[key] = plainEntry(key, inForceAt(tracking, key, index));
  additions.set(next.id, entries);
  return additions;
}

/** A list with entries added to some of its cues. */
export function withAdditions(list: CueList, additions: Additions): CueList {
  const cues = { ...list.cues };
  for (const [id, entries] of additions)
    if (cues[id]) cues[id] = { ...cues[id], entries: { ...cues[id].entries, ...entries } };
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
        if (x?.value !== y?.value || x?.fn !== y?.fn) entries[key] = plainEntry(key, a);
      }
    }
    if (Object.keys(entries).length === 0) return;
    additions.set(cue.id, entries);
    list = withAdditions(list, new Map([[cue.id, entries]]));
  });
  return additions;
}
