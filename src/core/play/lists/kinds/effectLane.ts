/** A cast effect played by its lane: go starts it, release ends it, its level scales the mix (SEMANTICS 11). */
import { refuse } from "../../../show/refusal";
import type { CueList } from "../../../show/schema";
import { cuesOf } from "../../../show/world";
import { listTime } from "../../../units/units";
import { LATEST } from "../../stage/layers";
import type { Kind } from "./kind";
import { named, notRunning } from "./words";

const nothing = (list: CueList) =>
  refuse(`${named(list)} plays no effect`, `Give it one that is cast: set list ${list.number} kind effect 1`);

export const effectLane: Kind = {
  firstLevel: 100,
  goes: true,
  scales: false,
  mixes: true,
  movesInBlack: false,
  limits: false,
  lays: false,
  role: () => LATEST,
  go: (list, run) =>
    cuesOf(list).length === 0
      ? nothing(list)
      : run.clock.paused && run.cue !== null
        ? { do: "resume" }
        : run.cue !== null && !run.flashed
          ? undefined
          : { do: "arrive", place: 0, what: "everything", byHand: true, ...(run.flashed ? { afresh: true } : {}) },
  back: (list, run) => (run.cue === null ? notRunning(list) : undefined),
  pause: (list, run) => (run.cue === null ? notRunning(list) : { do: "pause" }),
  assert: (list, run) => (run.cue === null ? notRunning(list) : { do: "arrive", place: 0, what: "assert" }),
  level: () => undefined,
  flash(list, run, on) {
    if (on && cuesOf(list).length === 0) return nothing(list);
    if (on) return run.cue === null ? { do: "arrive", place: 0, what: "everything", fade: 0 } : undefined;
    return run.flashed ? { do: "release", time: 0 } : undefined;
  },
  due: () => listTime(Infinity),
  happen: () => undefined,
};
