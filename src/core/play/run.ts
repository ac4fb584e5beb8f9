/** A list as it is being played. */
import type { CueList } from "../show/schema";
import type { ParamKey } from "../show/ids";
import { cuesOf } from "../show/world";
import { listTime, sequence, type ListTime, type Sequence, type StageTime } from "../units/units";
import type { BlackMove } from "./black/plan";
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
  /** Stage times of the last taps. */
  taps: StageTime[];
  /** Flash is held; and it was released when the flash came. */
  flash: boolean;
  flashed: boolean;
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

/** The level in effect. */
export const levelShown = (run: ListRun): number => (run.flash ? 100 : run.level);

/** @param level the one its kind begins with, percent. */
export const newRun = (list: CueList, slot: number, now: StageTime, level: number): ListRun => ({
  id: list.id,
  slot,
  cue: null,
  next: null,
  left: null,
  carried: false,
  clock: newClock(now),
  effects: newClock(now),
  level,
  taps: [],
  flash: false,
  flashed: false,
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
  if (here < 0) return list.resume ? Math.max(0, placeOfCue(list, run.left)) : 0;
  const told = toldPlace(list, here);
  if (told >= 0) return told;
  if (here + 1 < cues.length) return here + 1;
  return list.end === "wrap" ? 0 : -1;
}

/** 0..1: how far the present cue is, 1 when complete. */
export function cueProgress(run: ListRun, now: StageTime): number {
  if (run.cue === null) return 1;
  const length = run.complete - run.arrived;
  return length <= 0 ? 1 : Math.max(0, Math.min(1, (listTimeAt(run.clock, now) - run.arrived) / length));
}
