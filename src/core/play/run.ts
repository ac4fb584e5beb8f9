/** A list as it is being played. */
import type { CueList } from "../show/schema";
import { cuesOf } from "../show/world";
import { listTime, SAME_TIME, sequence, stageTime, type ListTime, type Sequence, type StageTime } from "../units/units";
import { listTimeAt, newClock, stageTimeAt, type ListClock } from "./clock";

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
  level: number;
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
  /** The event that brought it where it stands: what it takes up later counts from there. */
  stamp: Sequence;
}

/** A list that would come round by itself in less than this, seconds, stops before it does: it would run for ever at one instant. */
const SHORTEST_ROUND = 0.01;

/** The level a playback begins with: what adds or takes over begins at nothing. */
export const firstLevel = (kind: CueList["kind"]): number => (kind === "submaster" || kind === "takeover" ? 0 : 100);

/** The level in effect. */
export const levelShown = (run: ListRun): number => (run.flash ? 100 : run.level);

export const newRun = (list: CueList, slot: number, now: StageTime): ListRun => ({
  id: list.id,
  slot,
  cue: null,
  next: null,
  left: null,
  carried: false,
  clock: newClock(now),
  level: firstLevel(list.kind),
  flash: false,
  flashed: false,
  arrived: listTime(0),
  complete: listTime(0),
  roundAt: listTime(-1),
  since: listTime(0),
  stamp: sequence(0),
});

export const placeOfCue = (list: CueList, cue: string | null): number =>
  cue === null ? -1 : cuesOf(list).findIndex((c) => c.id === cue);

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
  if (here + 1 < cues.length) return here + 1;
  return list.end === "wrap" ? 0 : -1;
}

/** The list time at which the next cue comes by itself, Infinity where it waits for a go. */
export function automaticAt(list: CueList, run: ListRun): ListTime {
  // A flash shows its first cue and no more.
  if (run.cue === null || run.flashed) return listTime(Infinity);
  const next = nextPlace(list, run);
  const trigger = next < 0 ? undefined : cuesOf(list)[next]!.trigger;
  if (!trigger || trigger.kind === "go") return listTime(Infinity);
  const due = Math.max((trigger.kind === "auto" ? run.arrived : run.complete) + trigger.after, run.since);
  const comesRound = run.next === null && next <= placeOfCue(list, run.cue);
  return listTime(comesRound && due - run.roundAt < SHORTEST_ROUND - SAME_TIME ? Infinity : due);
}

/** Whether a list would come round by itself in next to no time, and so stops. */
export function runsOnTheSpot(list: CueList): boolean {
  const cues = cuesOf(list);
  if (list.end !== "wrap" || list.kind !== "list" || cues.length === 0 || cues.some((cue) => cue.trigger.kind === "go"))
    return false;
  const waits = cues.map(({ trigger }, i) => {
    const { up, down, delayUp, delayDown } = cues.at(i - 1)!.times;
    return (
      (trigger.kind === "autoDone" ? Math.max(up + delayUp, down + delayDown) : 0) +
      (trigger.kind === "go" ? 0 : trigger.after)
    );
  });
  return waits.reduce((a, b) => a + b, 0) < SHORTEST_ROUND;
}

/** The stage time of the list's next own event. */
export const dueAt = (list: CueList, run: ListRun): StageTime => {
  const at = automaticAt(list, run);
  return at === Infinity ? stageTime(Infinity) : stageTimeAt(run.clock, at);
};

/** 0..1: how far the present cue is, 1 when complete. */
export function cueProgress(run: ListRun, now: StageTime): number {
  if (run.cue === null) return 1;
  const length = run.complete - run.arrived;
  return length <= 0 ? 1 : Math.max(0, Math.min(1, (listTimeAt(run.clock, now) - run.arrived) / length));
}
