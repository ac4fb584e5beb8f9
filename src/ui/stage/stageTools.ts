"use client";

import type { ParamKey } from "@/core/show/ids";
import type { Entry } from "@/core/show/value";
import { createStore, useStore } from "zustand";

/** What hands do on the stage of this window: none of it is the show's. */
interface StageTools {
  /** Shown as a room in three dimensions, not from above. */
  room: boolean;
  /** What a drag over the floor means. */
  area: "marquee" | "lasso";
  /** Presses and drags aim the selected movers at the floor. */
  aiming: boolean;
  /** A press says by which point of the plan the selection is put in order: out from it, or around it. */
  ordering: "centre" | "around" | null;
  /** A trial of the spread: the step that lights up on the picture; null while there is none. */
  trial: number | null;
  /** The step that lights up is shown full and open on the output too. */
  outside: boolean;
  /** How long each step of the trial stands, seconds. */
  pace: number;
  /** What the thing under the hand would hold: shown on the picture alone. */
  tried: { says: string; held: Readonly<Record<ParamKey, Entry>> } | null;
}

const tools = createStore<StageTools>(() => ({
  room: false,
  area: "marquee",
  aiming: false,
  ordering: null,
  trial: null,
  outside: false,
  pace: 0.5,
  tried: null,
}));

export const useStageTools = <T>(pick: (state: StageTools) => T): T => useStore(tools, pick);
export const setStageTools = (change: Partial<StageTools>): void => tools.setState(change);

/** The stage as a room, or from above again. */
export const toggleRoom = (): void => tools.setState((now) => ({ room: !now.room }));

/** Whether a pointer is down on the plan: Space then moves the plan instead of giving go. */
let pressed = false;
export const isPressed = (): boolean => pressed;
export const setPressed = (on: boolean): void => void (pressed = on);

/** Ends aiming, ordering and trials. Returns whether there was one to end. */
export function endStageTools(): boolean {
  const { aiming, ordering, trial } = tools.getState();
  tools.setState({ aiming: false, ordering: null, trial: null });
  return aiming || ordering !== null || trial !== null;
}
