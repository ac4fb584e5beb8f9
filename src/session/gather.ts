/** The steps of a drag are handed on together, some times a second: to storage, to looks, to other windows. */
import { joinDiffs, type Diff } from "@/core/show/diff";
import type { World } from "@/core/show/world";
import type { StepKept } from "./storage/steps";

/** A change that was made: the world after it, what changed, and how it counts for undo, null where it does not. */
export interface Made {
  world: World;
  diff: Diff;
  step: StepKept | null;
}

export interface Gathering {
  /** Hands a change on: at once, or where it goes on with the step before, within a moment. */
  take(made: Made): void;
  /** Whether something has not been handed on. */
  waits(): boolean;
  /** Hands on what waits. */
  settle(): void;
}

const GATHER_MS = 100;
/** Thousands of changes take long to write: they are handed on less often. */
const MANY = 1000;
const GATHER_MANY_MS = 300;

export function createGathering(pass: (made: Made) => void): Gathering {
  let waiting: Made | undefined;
  let timer: ReturnType<typeof setTimeout> | undefined;
  const settle = (): void => {
    clearTimeout(timer);
    timer = undefined;
    const made = waiting;
    waiting = undefined;
    if (made) pass(made);
  };
  return {
    take(made) {
      if (made.step?.how !== "joined") {
        settle();
        return pass(made);
      }
      waiting = waiting ? { ...made, diff: joinDiffs(waiting.diff, made.diff) } : made;
      timer ??= setTimeout(settle, made.diff.length > MANY ? GATHER_MANY_MS : GATHER_MS);
    },
    waits: () => waiting !== undefined,
    settle,
  };
}
