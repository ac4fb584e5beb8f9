"use client";

/** Working blind: on the stage as it would be with what is held, or on the look of a cue that was opened; the stage goes on. */
import { create } from "zustand";
import type { StageView } from "@/engine/view";

interface Blind {
  /** The cue that is looked at in place of the stage. */
  list: string | null;
  cue: string | null;
  /** The live stage is looked at meanwhile. */
  peeks: boolean;
  /** What the hands see in place of the live stage; null while they see that. */
  view: StageView | null;
  /** Frames around pictures in sight that say so. */
  frames: number;
}

export const useBlind = create<Blind>()(() => ({ list: null, cue: null, peeks: false, view: null, frames: 0 }));

export const openBlind = (list: string, cue: string): void => useBlind.setState({ list, cue, peeks: false });
export const leaveBlind = (): void => useBlind.setState({ list: null, cue: null, peeks: false });

/** What the hands see: the live stage, or what they work on blind. */
export const seenByHands = (live: StageView): StageView => useBlind.getState().view ?? live;

/** Says, while it is in sight, that a frame around the picture tells of it. */
export function countFrame(): () => void {
  const by = (n: number) => useBlind.setState((s) => ({ frames: s.frames + n }));
  by(1);
  return () => by(-1);
}
