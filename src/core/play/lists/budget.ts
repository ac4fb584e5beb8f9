/**
 * How much may happen by itself: at one instant, and in a second. Cues that follow each other, lines that cues run and
 * macros can lead to themselves without end; whatever does is stopped and named, and all else plays on.
 */
import { SAME_TIME, stageTime, type StageTime } from "../../units/units";

/** What may lead to itself: a list (by its id), or a macro (by its number). */
export type Actor = { list: string; cues: number } | { macro: number };

/** So often at one instant; a list besides once for each of its cues, which may all follow at once. */
const AN_INSTANT = 60;
/** So often in a second of the stage's time: a list's cues, and macros, which cost more. */
const LISTS_A_SECOND = 2000;
const MACROS_A_SECOND = 100;
/** All together at one instant; past it whoever has done more than a few things is stopped. */
const ALL_AN_INSTANT = 1000;
const A_FEW = 8;

export interface Budget {
  instant: StageTime;
  second: number;
  all: number;
  instants: Map<string, number>;
  seconds: Map<string, number>;
  /** Whether whoever owns the clock has been kept waiting too long in real time. */
  isLate?: () => boolean;
}

export const newBudget = (): Budget => ({
  instant: stageTime(-1),
  second: -1,
  all: 0,
  instants: new Map(),
  seconds: new Map(),
});

const count = (of: Map<string, number>, key: string): number => {
  const now = (of.get(key) ?? 0) + 1;
  of.set(key, now);
  return now;
};

/** Counts something that happens by itself at stage time `now`. @returns whether it is too much. */
export function isTooMuch(budget: Budget, now: StageTime, actor: Actor): boolean {
  if (Math.abs(now - budget.instant) > SAME_TIME) {
    budget.instant = now;
    budget.all = 0;
    budget.instants.clear();
  }
  if (Math.floor(now) !== budget.second) {
    budget.second = Math.floor(now);
    budget.seconds.clear();
  }
  const isList = "list" in actor;
  const key = isList ? actor.list : `macro ${actor.macro}`;
  budget.all += 1;
  const [atOnce, lately] = [count(budget.instants, key), count(budget.seconds, key)];
  return (
    atOnce > AN_INSTANT + (isList ? actor.cues : 0) ||
    lately > (isList ? LISTS_A_SECOND : MACROS_A_SECOND) ||
    (atOnce > A_FEW && (budget.all > ALL_AN_INSTANT || budget.isLate?.() === true))
  );
}
