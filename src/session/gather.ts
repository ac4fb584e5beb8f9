/** Changes are handed on to storage, to looks, to other windows once the page has drawn them; the steps of a drag together, some times a second. */
import { joinDiffs, type Diff } from "@/core/show/change/diff";
import type { World } from "@/core/show/world";
import type { StepKept } from "./storage/steps";

/** A change that was made: the world after it, what changed, and how it counts for undo, null where it does not. */
export interface Made {
  world: World;
  diff: Diff;
  step: StepKept | null;
}

export interface Gathering {
  /** Hands a change on within a moment. */
  take(made: Made): void;
  /** Whether something has not been handed on. */
  waits(): boolean;
  /** Hands on what waits. */
  settle(): void;
}

/** By then the page has drawn a change: where cores are few, what looks work out of it would hold that up. */
const DRAWN_MS = 60;
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
      const joins = made.step?.how === "joined" && waiting?.step?.how === "joined";
      if (!joins) settle();
      waiting = joins ? { ...made, diff: joinDiffs(waiting!.diff, made.diff) } : made;
      const wait = made.step?.how !== "joined" ? DRAWN_MS : made.diff.length > MANY ? GATHER_MANY_MS : GATHER_MS;
      timer ??= setTimeout(settle, wait);
    },
    waits: () => waiting !== undefined,
    settle,
  };
}
