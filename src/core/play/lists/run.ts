/** A list as it is being played. */
import type { CueList } from "../../show/schema";
import type { ParamKey } from "../../show/ids";
import { cuesOf } from "../../show/world";
import { listTime, sequence, type ListTime, type Sequence, type StageTime } from "../../units/units";
import type { BlackMove } from "../arrive/black/plan";
import type { KeptLayer } from "../stage/silent";
import { randomFrom } from "../../units/random";
import { listTimeAt, newClock, type ListClock } from "./clock";

export interface ListRun {
  id: string;
  slot: number;
  /** The cue it stands in; null when released. */
  cue: string | null;
  /** Where the next go goes, if told. */
  next: string | null;
  /** The cue it stood in when it was released. */
  left: string | null;
  /** It came round its end and what tracked was not dropped. */
  carried: boolean;
  clock: ListClock;
  /** Of its effects: held as its own clock is, but of no rate. */
  effects: ListClock;
  level: number;
  /** Of its times, 1 as written. */
  rate: number;
  /** Its clock counts beats: a chase that runs. */
  beats: boolean;
  /** Of a chase: beats a minute as they were tapped, null where they are the list's; the list time its beat began at; the stage time of its last step; which way a bounce goes; how many steps have come. */
  bpm: number | null;
  beatAt: ListTime;
  steppedAt: StageTime;
  way: 1 | -1;
  steps: number;
  /** Feeds what is random in it. */
  seed: number;
  /** Of a list run by hand: the end its way starts at, null before it is moved; and the way into the next cue while it is under way. */
  end: 0 | 100 | null;
  hand: ByHand | null;
  /** It came where it stands by hand: no automatic cue follows. */
  byHand: boolean;
  /** Of a list on timecode: its clock is tied to what runs; it stands as it would had it run there; the last time looked at. */
  follows: boolean;
  synced: boolean;
  timedTo: ListTime;
  /** Stage times of the last taps. */
  taps: StageTime[];
  /** Flash is held; and it was released when the flash came. */
  flash: boolean;
  flashed: boolean;
  /** How it stood when a flash came while it was being released: the release goes on there. */
  releasing: ByHand["before"] | null;
  /** List time of the arrival in the present cue, and when its last move is complete. */
  arrived: ListTime;
  complete: ListTime;
  /** List time of the last arrival in the first cue. */
  roundAt: ListTime;
  /** List time of the last edit or plan: what that made due comes then, never earlier. */
  since: ListTime;
  /** What it moves in black where it stands; and of what was passed over at its go, what is still to come on top. */
  black: BlackMove[];
  blackStamps: Set<ParamKey>;
  /** The event that brought it where it stands: what it takes up later counts from there. */
  stamp: Sequence;
}

/** The way into a cue by hand: from where, how long its moves take at the most, and all as it was before. */
export interface ByHand {
  /** List time at its beginning, and the longest delay + fade. */
  start: ListTime;
  longest: number;
  before: Pick<
    ListRun,
    "cue" | "next" | "left" | "carried" | "clock" | "arrived" | "complete" | "roundAt" | "since" | "stamp" | "byHand"
  > & { layers: KeptLayer[] };
}

/** The level in effect: by hand it is travel, and the list gives all of itself. */
export const levelShown = (run: ListRun, list: Pick<CueList, "kind" | "fader">): number =>
  run.flash || (list.kind === "list" && list.fader === "crossfade") ? 100 : run.level;

/** @param level the one its kind begins with, percent. @param seed of the show. */
export const newRun = (list: CueList, slot: number, now: StageTime, level: number, seed: number): ListRun => ({
  id: list.id,
  slot,
  cue: null,
  next: null,
  left: null,
  carried: false,
  clock: newClock(now),
  effects: newClock(now),
  level,
  rate: 1,
  beats: false,
  bpm: null,
  beatAt: listTime(0),
  steppedAt: now,
  way: 1,
  steps: 0,
  seed: seed + list.number * 7919,
  end: null,
  hand: null,
  byHand: false,
  follows: false,
  synced: false,
  timedTo: listTime(-1),
  taps: [],
  flash: false,
  flashed: false,
  releasing: null,
  arrived: listTime(0),
  complete: listTime(0),
  roundAt: listTime(-1),
  since: listTime(0),
  black: [],
  blackStamps: new Set(),
  stamp: sequence(0),
});

const places = new WeakMap<CueList["cues"], ReadonlyMap<string, number>>();

/** The place of a cue in its list, -1 for none. */
export function placeOfCue(list: CueList, cue: string | null): number {
  if (cue === null) return -1;
  let known = places.get(list.cues);
  if (!known) places.set(list.cues, (known = new Map(cuesOf(list).map(({ id }, i) => [id, i]))));
  return known.get(cue) ?? -1;
}

/** The place a cue says its next go leads to, -1 where it says nothing. */
export function toldPlace(list: CueList, place: number): number {
  const then = cuesOf(list)[place]?.then;
  return then === undefined ? -1 : placeOfCue(list, then);
}

/** The place a go would lead to, -1 where it would do nothing. */
export function nextPlace(list: CueList, run: ListRun): number {
  const cues = cuesOf(list);
  if (cues.length === 0) return -1;
  if (run.next !== null) {
    const told = placeOfCue(list, run.next);
    if (told >= 0) return told;
  }
  const here = placeOfCue(list, run.cue);
  if (list.kind === "chase" && here >= 0) return nextStep(list, run, here).place;
  if (here < 0) return list.resume ? Math.max(0, placeOfCue(list, run.left)) : 0;
  const told = toldPlace(list, here);
  if (told >= 0) return told;
  if (here + 1 < cues.length) return here + 1;
  return list.end === "wrap" ? 0 : -1;
}

/** A step of a chase: where it goes, and how it stands then. */
export interface Step {
  place: number;
  way: 1 | -1;
  steps: number;
}

/** The step after the one at a place, by the direction of its list. */
export function nextStep(list: CueList, { way, steps, seed }: ListRun, here: number): Step {
  const n = cuesOf(list).length;
  const after = steps + 1;
  const round = (place: number) => ((place % n) + n) % n;
  if (n <= 1) return { place: 0, way: 1, steps: after };
  switch (list.direction ?? "forward") {
    case "forward":
      return { place: round(here + 1), way: 1, steps: after };
    case "backward":
      return { place: round(here - 1), way: 1, steps: after };
    case "bounce": {
      const goes = here + way < 0 || here + way >= n ? (way === 1 ? -1 : 1) : way;
      return { place: here + goes, way: goes, steps: after };
    }
    case "random":
      // Any but the one it stands in.
      return {
        place: round(here + 1 + Math.floor(randomFrom(seed + after * 2_654_435_761)() * (n - 1))),
        way: 1,
        steps: after,
      };
  }
}

/** The step before: against the direction, round the ends too. */
export function lastStep(list: CueList, { way, steps }: Pick<ListRun, "way" | "steps">, here: number): Step {
  const n = cuesOf(list).length;
  const against = list.direction === "backward" || (list.direction === "bounce" && way === -1) ? 1 : -1;
  return { place: (here + against + n) % n, way, steps };
}

/** 0..1: how far the present cue is, 1 when complete. */
export function cueProgress(run: ListRun, now: StageTime): number {
  if (run.cue === null) return 1;
  const length = run.complete - run.arrived;
  return length <= 0 ? 1 : Math.max(0, Math.min(1, (listTimeAt(run.clock, now) - run.arrived) / length));
}
