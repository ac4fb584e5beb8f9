"use client";

/** The cue that is looked at and edited blind: the stage picture shows it, the stage goes on. */
import { create } from "zustand";

interface Blind {
  list: string | null;
  cue: string | null;
  /** The live stage is looked at meanwhile. */
  peeks: boolean;
}

export const useBlind = create<Blind>()(() => ({ list: null, cue: null, peeks: false }));

export const openBlind = (list: string, cue: string): void => useBlind.setState({ list, cue, peeks: false });
export const leaveBlind = (): void => useBlind.setState({ list: null, cue: null, peeks: false });
