/** One history of show edits and held values; not selection, not playing. */
import { applyDiff, invertDiff, joinDiffs, type Change, type Diff } from "./diff";
import type { World } from "../world";

export interface Step {
  says: string;
  diff: Diff;
}

export interface History {
  readonly done: readonly Step[];
  readonly undone: readonly Step[];
}

export const EMPTY_HISTORY: History = { done: [], undone: [] };
const LIMIT = 1000;

/** Whether a change is undone by undo: the show, what is held and what is parked. */
export const isRemembered = (change: Change): boolean =>
  change.path[0] === "show" ||
  (change.path[0] === "hands" &&
    (change.path[1] === "held" || change.path[1] === "keptOut" || change.path[1] === "parked"));

/** The history after a step; unchanged where the diff holds nothing to undo. */
export function remember(history: History, says: string, diff: Diff): History {
  const kept = diff.filter(isRemembered);
  if (kept.length === 0) return history;
  return { done: [...history.done, { says, diff: kept }].slice(-LIMIT), undone: [] };
}

/** Joins a step to the last one: a drag is one step however many events it made. */
export function extendLast(history: History, diff: Diff): History {
  const last = history.done.at(-1);
  const kept = diff.filter(isRemembered);
  if (!last || kept.length === 0) return history;
  return { done: [...history.done.slice(0, -1), { says: last.says, diff: joinDiffs(last.diff, kept) }], undone: [] };
}

/** The history once its last step is undone; undefined where there is none. */
export function undone(history: History): History | undefined {
  const step = history.done.at(-1);
  return step && { done: history.done.slice(0, -1), undone: [...history.undone, step] };
}

/** The history once the step undone last is done again; undefined where there is none. */
export function redone(history: History): History | undefined {
  const step = history.undone.at(-1);
  return step && { done: [...history.done, step], undone: history.undone.slice(0, -1) };
}

interface Moved {
  world: World;
  diff: Diff;
  history: History;
  says: string;
}

/** Undoes the last step; undefined where there is none. */
export function undo(world: World, history: History): Moved | undefined {
  const [step, next] = [history.done.at(-1), undone(history)];
  return step && next && finish(world, invertDiff(step.diff), next, step.says);
}

/** Does the step undone last again; undefined where there is none. */
export function redo(world: World, history: History): Moved | undefined {
  const [step, next] = [history.undone.at(-1), redone(history)];
  return step && next && finish(world, step.diff, next, step.says);
}

function finish(world: World, diff: Diff, history: History, says: string): Moved {
  const hands = withoutLost(applyDiff(world, diff));
  return { world: hands.world, diff: [...diff, ...hands.diff], history, says };
}

/** Drops from the selection what no longer exists, so that a later fixture with the same id is not selected unasked. */
function withoutLost(world: World): { world: World; diff: Diff } {
  const { selection, last } = world.hands;
  const there = (value: string) => world.show.fixtures[value.split(".")[0]!] !== undefined;
  const diff: Change[] = [];
  if (!selection.every(there))
    diff.push({ path: ["hands", "selection"], from: selection, to: selection.filter(there) });
  if (!last.every(there)) diff.push({ path: ["hands", "last"], from: last, to: last.filter(there) });
  if (world.hands.stepping && !world.hands.stepping.whole.every(there))
    diff.push({ path: ["hands", "stepping"], from: world.hands.stepping, to: null });
  if (!world.show.lists[world.hands.armed]) {
    const first = Object.keys(world.show.lists)[0] ?? "";
    diff.push({ path: ["hands", "armed"], from: world.hands.armed, to: first });
  }
  return { world: diff.length ? applyDiff(world, diff) : world, diff };
}
