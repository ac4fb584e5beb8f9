/** A chase: its cues are steps that come with the beat (SEMANTICS 11). Its clock counts beats while it runs. */
import type { CueList } from "../../../show/schema";
import { cuesOf } from "../../../show/world";
import { listTime, type ListTime } from "../../../units/units";
import { LATEST } from "../../stage/layers";
import { lastStep, nextStep, placeOfCue, type ListRun, type Step } from "../run";
import type { Kind } from "./kind";
import { noCues, noSuchCue, nothingToFlash, notRunning } from "./words";

export const BPM = 60;
export const SHARE = 100;

/** Beats a minute of a chase, its rate left out. */
export const bpmOf = (list: CueList, run: Pick<ListRun, "bpm">): number => run.bpm ?? list.bpm ?? BPM;
/** How long its moves take, beats. */
export const fadeOf = (list: CueList): number => (list.share ?? SHARE) / 100;

/** The step a beat brings: where it was told to go, else the next by its direction. */
export function beatOf(list: CueList, run: ListRun): Step {
  const told = placeOfCue(list, run.next);
  if (told >= 0) return { place: told, way: run.way, steps: run.steps };
  return nextStep(list, run, placeOfCue(list, run.cue));
}

export const chase: Kind = {
  firstLevel: 100,
  goes: true,
  scales: true,
  mixes: false,
  movesInBlack: false,
  limits: false,
  lays: false,
  role: () => LATEST,
  go(list, standing, cue) {
    if (cuesOf(list).length === 0) return noCues(list);
    if (cue === undefined && standing.clock.paused && standing.cue !== null) return { do: "resume" };
    const first = standing.cue === null || standing.flashed;
    const afresh = standing.flashed ? { afresh: true as const } : {};
    const place = cue === undefined ? -1 : placeOfCue(list, cue);
    if (cue !== undefined && place < 0) return noSuchCue(list);
    const begins = first && list.resume ? Math.max(0, placeOfCue(list, standing.left)) : 0;
    const step: Step =
      place >= 0
        ? { place, way: first ? 1 : standing.way, steps: standing.steps }
        : first
          ? { place: begins, way: 1, steps: standing.steps }
          : beatOf(list, standing);
    return {
      do: "arrive",
      place: step.place,
      what: cue === undefined ? "change" : "everything",
      fade: fadeOf(list),
      step,
      byHand: true,
      ...afresh,
    };
  },
  back(list, run) {
    if (run.cue === null) return notRunning(list);
    const step = lastStep(list, run, placeOfCue(list, run.cue));
    return { do: "arrive", place: step.place, what: "everything", fade: fadeOf(list), step };
  },
  pause: (list, run) => (run.cue === null ? notRunning(list) : { do: "pause" }),
  assert: (list, run) =>
    run.cue === null
      ? notRunning(list)
      : { do: "arrive", place: placeOfCue(list, run.cue), what: "assert", fade: fadeOf(list) },
  level: () => undefined,
  flash(list, run, on) {
    if (on && cuesOf(list).length === 0) return nothingToFlash(list);
    if (on) return run.cue === null ? { do: "arrive", place: 0, what: "everything", fade: 0 } : undefined;
    return run.flashed ? { do: "release", time: 0 } : undefined;
  },
  due: (list, run): ListTime =>
    listTime(
      run.cue === null || run.flashed || cuesOf(list).length === 0 ? Infinity : Math.max(run.beatAt + 1, run.since),
    ),
  happen(list, run) {
    const step = beatOf(list, run);
    return { do: "arrive", place: step.place, what: "change", fade: fadeOf(list), step };
  },
};
