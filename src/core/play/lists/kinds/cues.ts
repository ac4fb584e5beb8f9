/** A cue list: its cues follow one another by go and by their triggers. */
import type { Timecode } from "../../../show/deckSchema";
import type { Cue, CueList } from "../../../show/schema";
import { secondsOf } from "../../../timecode/frames";
import { cuesOf } from "../../../show/world";
import { listTime, SAME_TIME, type ListTime } from "../../../units/units";
import { HIGHEST, LATEST } from "../../stage/layers";
import { nextPlace, placeOfCue, toldPlace, type ListRun } from "../run";
import type { Kind } from "./kind";
import { followsTimecode, noCues, noSuchCue, nothingToFlash, notRunning } from "./words";

/** A list that would come round by itself in less than this, seconds, stops before it does: it would run for ever at one instant. */
const SHORTEST_ROUND = 0.01;

/** Whether going to a place is what would come anyway: its moves are then those of a plain go. Where a cue leads on by itself it is a jump. */
const comesAnyway = (list: CueList, run: ListRun, place: number): boolean =>
  placeOfCue(list, run.cue) >= 0 &&
  toldPlace(list, placeOfCue(list, run.cue)) < 0 &&
  place === nextPlace(list, { ...run, next: null });

export const cueList: Kind = {
  firstLevel: 100,
  goes: true,
  scales: true,
  mixes: false,
  movesInBlack: true,
  limits: false,
  lays: false,
  role: (list, isIntensity) => (list.htp && isIntensity ? HIGHEST : LATEST),
  go(list, standing, cue) {
    if (cuesOf(list).length === 0) return noCues(list);
    if (cue === undefined && standing.clock.paused && standing.cue !== null) return { do: "resume" };
    // A go while a flash shows the first cue begins the list.
    const run = standing.flashed ? { ...standing, cue: null } : standing;
    const place = cue === undefined ? nextPlace(list, run) : placeOfCue(list, cue);
    if (cue !== undefined && place < 0) return noSuchCue(list);
    if (place < 0) return list.end === "release" ? { do: "release" } : undefined;
    return {
      do: "arrive",
      place,
      what: cue === undefined && comesAnyway(list, run, place) ? "change" : "everything",
      byHand: true,
      ...(standing.flashed ? { afresh: true } : {}),
    };
  },
  back(list, run) {
    if (run.cue === null) return notRunning(list);
    const place = placeOfCue(list, run.cue) - 1;
    return place < 0 ? undefined : { do: "arrive", place, what: "everything", fade: list.backTime };
  },
  pause: (list, run) => (run.cue === null ? notRunning(list) : list.timecode ? followsTimecode(list) : { do: "pause" }),
  assert: (list, run) =>
    run.cue === null ? notRunning(list) : { do: "arrive", place: placeOfCue(list, run.cue), what: "assert" },
  level(list, run, was) {
    if (was === run.level) return undefined;
    if (list.fader === "crossfade") return { do: "byHand", was };
    if (list.raised === "go" && was <= 0 && run.cue === null && cuesOf(list).length > 0)
      return this.go(list, run, undefined);
    if (list.zero === "release" && run.level <= 0 && run.cue !== null) return { do: "release", time: 0 };
    return undefined;
  },
  flash(list, run, on) {
    if (on && cuesOf(list).length === 0) return nothingToFlash(list);
    if (on) return run.cue === null ? { do: "arrive", place: 0, what: "everything", fade: 0 } : undefined;
    return run.flashed ? { do: "release", time: 0 } : undefined;
  },
  /** When the next cue comes by itself. */
  due(list, run, of): ListTime {
    const timed = timedNext(list, run, of);
    // A flash shows its first cue and no more; what was brought by hand waits for the hand.
    if (run.cue === null || run.flashed || run.byHand) return listTime(timed?.at ?? Infinity);
    const next = nextPlace(list, run);
    const cue = next < 0 ? undefined : cuesOf(list)[next]!;
    const { trigger } = cue ?? {};
    if (!cue || !trigger || trigger.kind === "go" || isTimed(list, cue)) return listTime(timed?.at ?? Infinity);
    const at = Math.max((trigger.kind === "auto" ? run.arrived : run.complete) + trigger.after, run.since);
    const comesRound = run.next === null && next <= placeOfCue(list, run.cue);
    const own = comesRound && at - run.roundAt < SHORTEST_ROUND - SAME_TIME ? Infinity : at;
    return listTime(Math.min(own, timed?.at ?? Infinity));
  },
  happen(list, run, of) {
    const timed = timedNext(list, run, of);
    // Which of the two is due: the earlier; at the same time what timecode brings.
    const byItself = timed && this.due(list, { ...run, follows: false }, of) < timed.at - SAME_TIME;
    const place = timed && !byItself ? timed.place : nextPlace(list, run);
    return { do: "arrive", place, what: comesAnyway(list, run, place) ? "change" : "everything" };
  },
};

/** Whether a cue of a list comes by timecode. */
const isTimed = (list: CueList, cue: Cue): boolean => list.timecode === true && cue.at !== undefined;

/** The cue timecode brings next, and when, seconds; undefined while the list does not follow it. */
function timedNext(list: CueList, run: ListRun, of: Timecode): { place: number; at: number } | undefined {
  if (!list.timecode || !run.follows) return undefined;
  return timedCues(list, of).find((cue) => cue.at > run.timedTo + SAME_TIME);
}

/** The cues of a list that come by timecode, in order of their times, seconds. */
export const timedCues = (list: CueList, of: Timecode): { place: number; at: number }[] =>
  cuesOf(list)
    .flatMap(({ at }, place) => (at === undefined ? [] : [{ place, at: secondsOf(at, of.rate) }]))
    .sort((a, b) => a.at - b.at);

/** Whether a list would come round by itself in next to no time, and so stops. */
export function runsOnTheSpot(list: CueList): boolean {
  const cues = cuesOf(list);
  if (list.end !== "wrap" || cues.length === 0 || cues.some((cue) => cue.trigger.kind === "go")) return false;
  const waits = cues.map(({ trigger }, i) => {
    const { up, down, delayUp, delayDown } = cues.at(i - 1)!.times;
    return (
      (trigger.kind === "autoDone" ? Math.max(up + delayUp, down + delayDown) : 0) +
      (trigger.kind === "go" ? 0 : trigger.after)
    );
  });
  return waits.reduce((a, b) => a + b, 0) < SHORTEST_ROUND;
}
