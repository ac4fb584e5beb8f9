/** Where a cue can go between others: its number there. */
import type { Cue } from "@/core/show/schema";

/** Cue numbers have three decimals. */
const FINEST = 0.001;

/**
 * The plainest number free before the cue at `place`: a whole one, else with as few decimals as will do.
 * @param place 0..n; n is after the last. @returns undefined where no number is left between two.
 */
export function numberBefore(cues: readonly Pick<Cue, "number">[], place: number): number | undefined {
  const below = place > 0 ? cues[place - 1]!.number : 0;
  const above = cues[place]?.number ?? Infinity;
  if (above === Infinity) return Math.floor(below) + 1;
  for (const unit of [1, 0.1, 0.01, FINEST]) {
    const middle = Math.round((below + above) / 2 / unit) * unit;
    const tries = [middle, (Math.floor(below / unit + 1e-6) + 1) * unit];
    for (const number of tries.map((v) => Math.round(v * 1000) / 1000))
      if (number > below + FINEST / 2 && number < above - FINEST / 2) return number;
  }
  return undefined;
}

/**
 * As many free numbers one after another before the cue at `place`, as plain as will do.
 * @param cues those that stay. @param taken numbers that are not free although their cues move.
 */
export function numbersBefore(
  cues: readonly Pick<Cue, "number">[],
  place: number,
  count: number,
  taken: readonly number[] = [],
): number[] | undefined {
  const below = place > 0 ? cues[place - 1]!.number : 0;
  const above = cues[place]?.number ?? Infinity;
  const isTaken = (n: number) => taken.some((t) => Math.abs(t - n) < FINEST / 2);
  for (const unit of [1, 0.1, 0.01, FINEST]) {
    const found: number[] = [];
    for (let k = Math.floor(below / unit + 1e-6) + 1; found.length < count; k++) {
      const number = Math.round(k * unit * 1000) / 1000;
      if (number >= above - FINEST / 2) break;
      if (number > below + FINEST / 2 && !isTaken(number)) found.push(number);
    }
    if (found.length === count) return found;
  }
  return undefined;
}
