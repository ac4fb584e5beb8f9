/** What the Ask bar foresees, for whoever shows it larger; and the line of the button under the hand. */
import { create } from "zustand";
import type { Foresight } from "./useForesight";

interface Foreseen {
  /** The line that what is under the hand would do; null for nothing. */
  hint: string | null;
  /** The line looked at, typed or under the hand, with what it would do. */
  line: string;
  found: Foresight;
}

export const useForeseen = create<Foreseen>()(() => ({
  hint: null,
  line: "",
  found: { says: "", refused: false, known: false, ripple: [], signed: [] },
}));

/** For a button: while the hand is on it, the Ask bar says what its line would do. */
export const hinting = (line: () => string | undefined) => {
  const on = () => useForeseen.setState({ hint: line() ?? null });
  const off = () => useForeseen.setState({ hint: null });
  return { onPointerEnter: on, onPointerLeave: off, onFocus: on, onBlur: off };
};

/** The line that does the same and keeps later looks; undefined where there is no such. */
export function keeping(line: string): string | undefined {
  const text = line.trim();
  if (/\b(cueonly|keeplooks)\b/i.test(text)) return undefined;
  if (/^(delete|move) .*\btrack$/i.test(text)) return text.replace(/\btrack$/i, "keeplooks");
  if (/^(record|update|copy) (list \S+ )?cue /i.test(text)) return `${text} keeplooks`;
  if (/^set (list \S+ )?cue .* (at|released|unset|delay|fade) /i.test(`${text} `)) return `${text} keeplooks`;
  return undefined;
}
