/** What the Ask bar foresees, for whoever shows it larger; and the line of the button under the hand. */
import { create } from "zustand";
import { NOTHING, type Foresight } from "./useForesight";

interface Foreseen {
  /** The line that what is under the hand would do; null for nothing. */
  hint: string | null;
  /** The line looked at, typed or under the hand, with what it would do. */
  line: string;
  found: Foresight;
  /** Counts lines that were done from elsewhere: the bar is emptied. */
  done: number;
}

export const useForeseen = create<Foreseen>()(() => ({
  hint: null,
  line: "",
  done: 0,
  found: NOTHING,
}));

/** For a button: while the hand is on it, the Ask bar says what its line would do. */
export const hinting = (line: () => string | undefined) => {
  const on = () => useForeseen.setState({ hint: line() ?? null });
  const off = () => useForeseen.setState({ hint: null });
  return { onPointerEnter: on, onPointerLeave: off, onFocus: on, onBlur: off };
};

/** The line that is looked at was done, with later looks kept: there is nothing more to do with it. */
export const lineDone = (): void => useForeseen.setState((s) => ({ done: s.done + 1, hint: null }));
