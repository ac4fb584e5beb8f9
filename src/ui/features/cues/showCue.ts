/** A cue that another place wants seen in Cues. */
import { create } from "zustand";

interface Shown {
  list: string | null;
  cue: string | null;
}

export const useShownCue = create<Shown>()(() => ({ list: null, cue: null }));

/** Cues shows this one when it is next in sight. */
export const showCue = (list: string, cue: string): void => useShownCue.setState({ list, cue });
