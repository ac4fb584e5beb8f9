/** Numbers in a line are bounded by what they mean, so that nothing is worked out for what cannot be. */
import type { MatchState } from "./grammar";

/** The highest number a fixture, group, list or cue can have. */
export const HIGHEST = 999_999;

const counted = (value: number): string => value.toLocaleString("en", { maximumFractionDigits: 3 });

/** Whether a number lies in a range; where not, it is noted for the words of the refusal. */
export function within(
  state: MatchState,
  pos: number,
  value: number,
  text: string,
  low: number,
  high: number,
): boolean {
  if (value >= low && value <= high) return true;
  state.beyond.set(pos, `${text} goes from ${counted(low)} to ${counted(high)}`);
  return false;
}
