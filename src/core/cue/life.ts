/** A fixture's life through a list: where it is lit, and what its other parameters stand at (SEMANTICS 8). */
import { isIntensity, isLitBy } from "../program/light";
import { resolveEntry, type Resolved, type Resolving } from "../program/resolve";
import { splitKey, type Id, type ParamKey } from "../show/ids";
import { modelOf } from "../show/model";
import type { CueList, Fixture, Show } from "../show/schema";
import { cuesOf } from "../show/world";
import { effectAt } from "./effects";
import { partsOf } from "./looks";
import { inForceAt, trackingOf, type Column, type Tracking } from "./tracking";

/** A parameter that is another than in the cue before. */
export interface Change {
  key: ParamKey;
  from: Resolved;
  to: Resolved;
}

export interface Life {
  /** Places at which it begins or ceases to be lit, from 0: lit in the first cue counts as beginning there. */
  turns: readonly number[];
  /** By the place of the cue: what of its other parameters changes there, intensity left out. */
  changes: ReadonlyMap<number, readonly Change[]>;
  /** How many cues there are. */
  cues: number;
}

type Living = Resolving & Pick<Show, "types" | "fixtures">;

const SAME = 0.01;
const isOther = (a: Resolved, b: Resolved): boolean => a.fn !== b.fn || Math.abs(a.value - b.value) > SAME;

interface Kept {
  columns: readonly (Column | undefined)[];
  fixture: Fixture;
  about: readonly unknown[];
  life: Life;
}
const kept = new Map<Id, Map<Id, Kept>>();
/** Lists whose lives are kept at once. */
const MOST = 64;

/** What a life depends on besides the fixture's own columns. */
const aboutOf = (show: Living, { reachEnd, since }: Tracking): unknown[] => [
  show.palettes,
  show.types,
  show.effects,
  show.waves,
  JSON.stringify([reachEnd.map((v) => (v === Infinity ? -1 : v)), since]),
];

const abouts = new WeakMap<Tracking, { show: Living; made: unknown[] }>();
function aboutKept(show: Living, tracking: Tracking): unknown[] {
  const known = abouts.get(tracking);
  if (known?.show === show) return known.made;
  const made = aboutOf(show, tracking);
  abouts.set(tracking, { show, made });
  return made;
}

/** The life of a fixture in a list; worked out again only where its own entries, or what they point at, have changed. */
export function lifeOf(show: Living, list: CueList, fixture: Fixture): Life {
  const tracking = trackingOf(list, show);
  const about = aboutKept(show, tracking);
  const columns = partsOf(show, fixture).map(({ key }) => tracking.columns.get(key));
  let ofList = kept.get(list.id);
  if (!ofList) {
    if (kept.size >= MOST) kept.clear();
    kept.set(list.id, (ofList = new Map()));
  }
  const known = ofList.get(fixture.id);
  if (
    known &&
    known.fixture === fixture &&
    known.about.every((v, i) => v === about[i]) &&
    known.columns.length === columns.length &&
    known.columns.every((c, i) => c === columns[i])
  )
    return known.life;
  const life = live(show, fixture, tracking, cuesOf(list).length);
  ofList.set(fixture.id, { columns, fixture, about, life });
  return life;
}

function live(show: Living, fixture: Fixture, tracking: Tracking, cues: number): Life {
  const parts = partsOf(show, fixture);
  const { specs } = modelOf(show, fixture);
  /** Which parameters have an entry at a place; everything may change at a turn. */
  const touched = new Map<number, Set<number>>();
  parts.forEach(({ key }, i) => {
    for (const at of tracking.columns.get(key)?.at ?? []) {
      const set = touched.get(at);
      if (set) set.add(i);
      else touched.set(at, new Set([i]));
    }
  });
  const used = parts.flatMap(({ key }, i) => (tracking.columns.has(key) ? [i] : []));
  tracking.turns.forEach((turn, at) => turn && touched.set(at, new Set(used)));
  const values = parts.map(({ spec }): Resolved => ({ value: spec.default, fn: 0 }));
  const shines = parts.map(({ spec }) => spec.default > 0);
  const turns: number[] = [];
  const changes = new Map<number, Change[]>();
  let lit = false;
  for (const at of [...touched.keys(), 0].sort((a, b) => a - b)) {
    if (at >= cues) break;
    const own: Change[] = [];
    for (const i of touched.get(at) ?? []) {
      const { key, spec } = parts[i]!;
      const found = inForceAt(tracking, key, at);
      const now = (found && resolveEntry(show, key, spec, found.entry)) ?? { value: spec.default, fn: 0 };
      if (isIntensity(spec)) {
        const playing = effectAt(show, tracking, key, at);
        shines[i] = now.value > 0 || (playing !== undefined && !playing.hushed);
      } else if (at > 0 && isOther(values[i]!, now)) own.push({ key, from: values[i]!, to: now });
      values[i] = now;
    }
    const shown = isLitBy(specs, (k) => shines[k]!);
    if (shown !== lit && turns.at(-1) !== at) turns.push(at);
    lit = shown;
    if (own.length > 0) changes.set(at, own);
  }
  return { turns, changes, cues };
}

/** Whether a life is lit at a place. */
export function isLitIn({ turns }: Life, place: number): boolean {
  let [low, high] = [0, turns.length];
  while (low < high) {
    const mid = (low + high) >> 1;
    if (turns[mid]! <= place) low = mid + 1;
    else high = mid;
  }
  return low % 2 === 1;
}

/** The first place after `place` at which a life is lit, -1 where it is lit no more. */
export function nextLitIn(life: Life, place: number): number {
  if (place + 1 >= life.cues) return -1;
  if (isLitIn(life, place + 1)) return place + 1;
  const next = life.turns.find((at, i) => i % 2 === 0 && at > place);
  return next ?? -1;
}

/** The last place before `place` at which a life was lit, -1 where it was not. */
export function lastLitIn(life: Life, place: number): number {
  for (let at = place - 1; at >= 0; at--) if (isLitIn(life, at)) return at;
  return -1;
}

/** The fixtures a list says anything of. */
export function usedIn(show: Pick<Show, "fixtures">, tracking: Tracking): Fixture[] {
  const ids = new Set<Id>();
  for (const key of tracking.columns.keys()) ids.add(splitKey(key).fixture);
  return [...ids].flatMap((id) => show.fixtures[id] ?? []);
}
