/** Looks: what a cue shows, fixture by fixture; and which looks an edit changes (SEMANTICS 4). */
import { modelOf, specOf } from "../show/model";
import type { ParameterSpec } from "../fixture/parameters";
import { isLitBy } from "../program/light";
import { voiceOf } from "../effect/voices";
import { changedNames, pointsAt, resolveEntry, type Resolving } from "../program/resolve";
import { paramKey, splitKey, type Id, type ParamKey } from "../show/ids";
import type { Cue, CueList, Fixture, Show } from "../show/schema";
import { namedByVoice } from "../show/checking/links";
import { isLink, isStop, type Effect, type Entry } from "../show/value";
import { cuesOf } from "../show/world";
import { grouped } from "../units/grouped";
import { hashOf } from "../units/hash";
import { keysThatDiffer } from "../units/overlaid";
import { effectAt } from "./effects";
import { along } from "./changesInList";
import { inForceAt, storedIn, trackingOf, type Tracking } from "./tracking";
import { usersOf } from "./users";

/** Looks are equal when all values are within this. */
const SAME = 0.01;

interface Part {
  key: ParamKey;
  spec: ParameterSpec;
}

const partsCache = new WeakMap<Fixture, { types: Show["types"]; parts: readonly Part[] }>();

/** The parameters of a fixture with their keys. */
export function partsOf(show: Pick<Show, "types">, fixture: Fixture): readonly Part[] {
  const held = partsCache.get(fixture);
  if (held && held.types === show.types) return held.parts;
  const parts = modelOf(show, fixture).specs.map((spec) => ({ key: paramKey(fixture.id, spec.cell, spec.head), spec }));
  partsCache.set(fixture, { types: show.types, parts });
  return parts;
}

/** One fixture in one look: null while dark, else its values, with the function added as a step so that another function is another value. */
export type FixtureLook = readonly number[] | null;

/** Functions lie far apart, so that two of them never look the same. */
const FUNCTION_STEP = 1e6;

/** One fixture in the look of a cue. @param index the cue's place in its list, from 0. */
export function fixtureLook(show: Resolving, fixture: Fixture, tracking: Tracking, index: number): FixtureLook {
  const parts = partsOf(show, fixture);
  const values = parts.map(({ key, spec }) => {
    const found = inForceAt(tracking, key, index);
    const resolved = found && resolveEntry(show, key, spec, found.entry);
    return resolved ? resolved.value + FUNCTION_STEP * resolved.fn : spec.default;
  });
  const effects = effectsIn(show, parts, tracking, index);
  const { specs } = modelOf(show, fixture);
  const lit = isLitBy(specs, (k) => values[k]! > 0 || effects.has(k));
  return lit ? (effects.size > 0 ? [...values, ...effects.values()] : values) : null;
}

/** Whether a fixture is lit in a cue: only what lights it is worked out. */
function isLitAt(show: Resolving, fixture: Fixture, tracking: Tracking, index: number): boolean {
  const parts = partsOf(show, fixture);
  return isLitBy(modelOf(show, fixture).specs, (k) => {
    const { key, spec } = parts[k]!;
    const playing = effectAt(show, tracking, key, index);
    if (playing && !playing.hushed) return true;
    const found = inForceAt(tracking, key, index);
    const resolved = found && resolveEntry(show, key, spec, found.entry);
    return (resolved ? resolved.value : spec.default) > 0;
  });
}

/** The effects in force on a fixture's parameters, by their place, each told from others by a number. */
function effectsIn(
  show: Resolving,
  parts: readonly Part[],
  tracking: Tracking,
  index: number,
): ReadonlyMap<number, number> {
  const found = new Map<number, number>();
  parts.forEach((part, i) => {
    if (!tracking.columns.get(part.key)?.effects) return;
    const playing = effectAt(show, tracking, part.key, index);
    if (playing && !playing.hushed)
      found.set(i, i * FUNCTION_STEP + numberOfText(seenText(show, part, playing.entry.effect!)));
  });
  return found;
}

/** What tells an effect seen from another: its voice as it is now, the item's turn, and what its palettes say of the parameter and its waves are. */
function seenText(show: Resolving, { key, spec }: Part, effect: Effect): string {
  const sounded = voiceOf(show, effect);
  if (!sounded) return "";
  const { voice, speed } = sounded;
  const named = namedByVoice(voice).map((id) => {
    if (show.waves[id]) return show.waves[id];
    const said = show.palettes[id] && resolveEntry(show, key, spec, { attribute: spec.head, value: { palette: id } });
    return said && [said.fn, Math.round(said.value / SAME)];
  });
  return JSON.stringify([voice, speed, isStop(effect) ? 0 : [effect.at, effect.of], named]);
}

/** A number for a text, whole and below `FUNCTION_STEP`. */
const numberOfText = (text: string): number => hashOf(text) % FUNCTION_STEP;

/** Whether two looks of one fixture are equal: both dark, or all values within 0.01 (SEMANTICS 4). */
export function sameLook(a: FixtureLook, b: FixtureLook): boolean {
  if (a === null || b === null) return a === b;
  return a.length === b.length && a.every((v, i) => Math.abs(v - b[i]!) <= SAME);
}

/** The whole look of a cue: every lit fixture with its values. */
export function lookOf(show: Show, list: CueList, index: number): Map<Id, readonly number[]> {
  const tracking = trackingOf(list, show);
  const look = new Map<Id, readonly number[]>();
  for (const fixture of Object.values(show.fixtures)) {
    const own = fixtureLook(show, fixture, tracking, index);
    if (own) look.set(fixture.id, own);
  }
  return look;
}

/** The parameters with other entries in two versions of a list, by fixture; undefined where cues moved or reach otherwise, so that any may differ. */
function touchedKeys(old: CueList, list: CueList): Map<Id, ParamKey[]> | undefined {
  const [before, after] = [storedIn(old), storedIn(list)];
  const order = cuesOf(list);
  if (!sameShape(before, after) || cuesOf(old).some((cue, i) => order[i]?.id !== cue.id)) return undefined;
  const touched = new Map<Id, ParamKey[]>();
  const touch = (key: ParamKey) => {
    const { fixture } = splitKey(key);
    const keys = touched.get(fixture);
    if (keys) keys.push(key);
    else touched.set(fixture, [key]);
  };
  keysThatDiffer(before.columns, after.columns).forEach(touch);
  return touched;
}

/** Fixtures whose look can differ between two versions of a list. */
export const touchedFixtures = (old: CueList, list: CueList, show: Show): Iterable<Id> =>
  touchedKeys(old, list)?.keys() ?? Object.keys(show.fixtures);

/** Whether two versions have as many cues, reaching and starting afresh alike. */
export const sameShape = (a: Tracking, b: Tracking): boolean =>
  a.since.length === b.since.length &&
  a.reachEnd.every((v, i) => v === b.reachEnd[i]) &&
  a.since.every((v, i) => v === b.since[i]);

export interface Rippled {
  list: Id;
  cue: Id;
  /** Fixtures that look different there. */
  fixtures: Id[];
}

/** Whether an edit was of this very cue: what it stores, its place, its reach or its fresh start. */
const isEdited = (before: Cue, after: Cue): boolean =>
  before.entries !== after.entries ||
  before.number !== after.number ||
  before.fresh !== after.fresh ||
  JSON.stringify(before.reach) !== JSON.stringify(after.reach);

/**
 * The other cues whose look differs between two versions of a show: those that exist in both and are not
 * edited themselves. Only fixtures that the edit touched are compared.
 */
export function ripple(before: Show, after: Show): Rippled[] {
  const work = rippling(before, after);
  for (;;) {
    const { done, value } = work.next();
    if (done) return value;
  }
}

/** Whether an entry means something else in two versions of a show; worked out once for each palette and parameter. */
function givingOther(before: Show, after: Show): (key: ParamKey, entry: Entry) => boolean {
  const byPalette = new Map<Id, Map<ParamKey, boolean>>();
  return (key, entry) => {
    const { value } = entry;
    if (typeof value !== "object" || !isLink(value)) return entry.effect !== undefined;
    let known = byPalette.get(value.palette);
    if (!known) byPalette.set(value.palette, (known = new Map()));
    const held = known.get(key);
    if (held !== undefined) return held;
    const spec = specOf(after, key);
    const [x, y] = [before, after].map((show) => spec && resolveEntry(show, key, spec, entry));
    const other = x?.fn !== y?.fn || Math.abs((x?.value ?? 0) - (y?.value ?? 0)) > SAME;
    known.set(key, other);
    return other;
  };
}

/** Whether the effect of an entry looks otherwise in two versions of a show; worked out once for each entry and parameter. */
function playingOther(
  before: Show,
  after: Show,
  changed: ReadonlySet<string>,
): (key: ParamKey, entry: Entry) => boolean {
  const byEntry = new Map<Entry, Map<ParamKey, boolean>>();
  return (key, entry) => {
    let known = byEntry.get(entry);
    if (!known) byEntry.set(entry, (known = new Map()));
    const held = known.get(key);
    if (held !== undefined) return held;
    const spec = specOf(after, key);
    const [x, y] = pointsAt(key, entry).some((name) => changed.has(name))
      ? [before, after].map((show) => (spec && entry.effect ? seenText(show, { key, spec }, entry.effect) : ""))
      : [];
    known.set(key, x !== y);
    return x !== y;
  };
}

/** The same in small pieces, so that whoever works it out can listen in between. */
export function* rippling(before: Show, after: Show): Generator<undefined, Rippled[]> {
  const found: Rippled[] = [];
  const sameTypes = before.types === after.types;
  const sameRig = before.fixtures === after.fixtures && sameTypes;
  const moved = new Set(
    sameRig ? [] : Object.keys(after.fixtures).filter((id) => !sameTypes || before.fixtures[id] !== after.fixtures[id]),
  );
  const changed = changedNames(before, after);
  const names = [...changed];
  const givesOther = givingOther(before, after);
  const playsOther = playingOther(before, after, changed);
  /** Whether what is in force for a parameter in one version is not what it is in the other. */
  const othersBy = (key: ParamKey, was: number, is: number, a: Tracking, b: Tracking): boolean => {
    const [old, now] = [inForceAt(a, key, was)?.entry, inForceAt(b, key, is)?.entry];
    if (old !== now || (old !== undefined && givesOther(key, old))) return true;
    if (!a.columns.get(key)?.effects && !b.columns.get(key)?.effects) return false;
    const [played, plays] = [
      inForceAt(a, key, was, false, "effect")?.entry,
      inForceAt(b, key, is, false, "effect")?.entry,
    ];
    return played !== plays || (plays !== undefined && playsOther(key, plays));
  };
  for (const list of Object.values(after.lists)) {
    const old = before.lists[list.id];
    if (!old || (old.cues === list.cues && sameRig && names.length === 0)) continue;
    const [a, b] = [trackingOf(old, before), trackingOf(list, after)];
    const linked = grouped(new Set([...usersOf(a, names), ...usersOf(b, names)]), (key) => splitKey(key).fixture);
    const keys = touchedKeys(old, list);
    const fixtures = [
      ...new Set([...(keys?.keys() ?? Object.keys(after.fixtures)), ...moved, ...linked.keys()]),
    ].filter((id) => before.fixtures[id] && after.fixtures[id]);
    const places = new Map(cuesOf(old).map((cue, i) => [cue.id, i]));
    const alongs = new Map<Id, { other: Uint8Array; lit: Uint8Array | null }>();
    if (keys)
      for (const [id, follows] of linked) {
        const fixture = after.fixtures[id];
        if (!fixture || !before.fixtures[id]) continue;
        if (alongs.size % 50 === 49) yield;
        const count = cuesOf(list).length;
        const other = along([a, b], follows, count, (i) => follows.some((key) => othersBy(key, i, i, a, b)));
        const dims = partsOf(after, fixture).flatMap(({ key }) => (key.endsWith(".Dimmer") ? [key] : []));
        // With the same intensity it looks different where it is lit at all.
        const lit = follows.some((key) => key.endsWith(".Dimmer"))
          ? null
          : along([b], dims, count, (i) => isLitAt(after, fixture, b, i));
        alongs.set(id, { other, lit });
      }
    for (const [i, cue] of cuesOf(list).entries()) {
      yield;
      const was = places.get(cue.id);
      if (was === undefined || isEdited(old.cues[cue.id]!, cue)) continue;
      const differ = fixtures.filter((id) => {
        const fixture = after.fixtures[id]!;
        // The very same entries in force give the same look: the quick way for nearly all cues.
        const may =
          moved.has(id) ||
          (keys ? (keys.get(id) ?? []) : partsOf(after, fixture).map(({ key }) => key)).some(
            (key) =>
              inForceAt(a, key, was)?.entry !== inForceAt(b, key, i)?.entry ||
              inForceAt(a, key, was, false, "effect")?.entry !== inForceAt(b, key, i, false, "effect")?.entry,
          );
        const own = alongs.get(id);
        if (!may && own) {
          if (own.other[i] === 0) return false;
          if (own.lit) return own.lit[i] === 1;
        } else if (!may) {
          const follows = linked.get(id) ?? [];
          if (!follows.some((key) => othersBy(key, was, i, a, b))) return false;
          if (!follows.some((key) => key.endsWith(".Dimmer"))) return isLitAt(after, fixture, b, i);
        }
        return !sameLook(fixtureLook(before, before.fixtures[id]!, a, was), fixtureLook(after, fixture, b, i));
      });
      if (differ.length > 0) found.push({ list: list.id, cue: cue.id, fixtures: differ });
    }
  }
  return found;
}
