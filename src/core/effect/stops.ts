/** Stops: where a cycle stands between them (SEMANTICS 7). */
import type { Stop } from "../show/effectSchema";
import { smooth } from "./wave";

/** Rests at the end of a cycle are just before it: what is reached there stays. */
const LAST = 1 - 1e-12;

/** The share of its part that a stop is held. */
export const holdOf = ({ hold, curve }: Pick<Stop, "hold" | "curve">): number =>
  (hold ?? (curve === "snap" ? 100 : 0)) / 100;

/** Curves as numbers, for the arrays of a tick. */
export const CODES: Record<Stop["curve"], number> = { snap: 0, linear: 1, smooth: 2 };

// The place between two stops, kept outside so that a tick allocates nothing.
export const between = { from: 0, to: 0, p: 0 };

/**
 * Where a cycle stands: which stops it is between, and how far, in `between`.
 * @param holds the share of its part each is held, 0 to 1. @param codes how each goes over into the next.
 * @param u the place in the cycle, 0 to 1: 1 rests at what was reached. @param bounce the last stop holds its whole part.
 */
export function standBetween(holds: ArrayLike<number>, codes: ArrayLike<number>, u: number, bounce: boolean): void {
  const n = holds.length;
  const x = (u >= 1 ? LAST : u) * n;
  const i = Math.min(Math.floor(x), n - 1);
  between.from = i;
  between.to = i + 1 < n ? i + 1 : 0;
  const hold = holds[i]!;
  const part = x - i;
  if ((bounce && i === n - 1) || part < hold || hold >= 1) {
    between.p = 0;
    return;
  }
  const p = (part - hold) / (1 - hold);
  between.p = codes[i] === CODES.snap ? 1 : codes[i] === CODES.linear ? p : smooth(p);
}
