/** Playbacks of one cue that play by their level alone: it comes when the level leaves 0 and goes when it is 0 again. */
import { refuse } from "../../../show/refusal";
import { cuesOf } from "../../../show/world";
import { listTime } from "../../../units/units";
import { HIGHEST, LATEST, OVER } from "../../stage/layers";
import { levelShown } from "../run";
import type { Kind } from "./kind";
import { named, noCues, nothingToFlash, notRunning } from "./words";

type ByLevel = Omit<Kind, "role" | "firstLevel" | "scales" | "mixes" | "movesInBlack" | "limits" | "lays">;
/** What all that play by their level alone have in common. */
export const allLevel: ByLevel = {
  goes: false,
  go: (list) =>
    cuesOf(list).length === 0
      ? noCues(list)
      : refuse(
          `${named(list)} is a ${list.kind}: it plays by its level`,
          `Give it a level, such as: level list ${list.number} at 100`,
        ),
  back: (list, run) => (run.cue === null ? notRunning(list) : undefined),
  pause: (list, run) => (run.cue === null ? notRunning(list) : { do: "pause" }),
  assert: (list, run) => (run.cue === null ? notRunning(list) : { do: "arrive", place: 0, what: "assert" }),
  level(list, run) {
    const level = levelShown(run, list);
    if (level > 0 && run.cue === null && cuesOf(list).length > 0)
      return { do: "arrive", place: 0, what: "everything", fade: 0 };
    return level <= 0 && run.cue !== null ? { do: "drop" } : undefined;
  },
  flash: (list, _, on) => (on && cuesOf(list).length === 0 ? nothingToFlash(list) : undefined),
  due: () => listTime(Infinity),
  happen: () => undefined,
};

/** Adds its cue: where intensity is highest it counts. */
export const submaster: Kind = {
  ...allLevel,
  lays: false,
  firstLevel: 0,
  scales: true,
  mixes: false,
  movesInBlack: false,
  limits: false,
  role: (_, isIntensity) => (isIntensity ? HIGHEST : LATEST),
};

/** Crossfades its cue over everything. */
export const takeover: Kind = {
  ...allLevel,
  lays: false,
  firstLevel: 0,
  scales: false,
  mixes: false,
  movesInBlack: false,
  limits: false,
  role: () => OVER,
};

/** Gives nothing: scales what others give to the fixtures it holds. */
export const limiter: Kind = {
  ...allLevel,
  lays: false,
  firstLevel: 100,
  scales: true,
  mixes: false,
  movesInBlack: false,
  limits: true,
  role: () => LATEST,
  level: () => undefined,
};
