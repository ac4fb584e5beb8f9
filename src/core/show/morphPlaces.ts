/** Where the cues of a morph lie along its level (SEMANTICS 11). */
import type { CueList } from "./schema";
import { cuesOf } from "./world";

/** Percent, one for each cue in order: given, else 100 k / n. */
export function morphPlaces(list: CueList): number[] {
  const cues = cuesOf(list);
  return cues.map((cue, k) => cue.place ?? (100 * (k + 1)) / cues.length);
}

/**
 * The places nearest to some that do not rise: those that stand below what follows stay, the others are spread evenly
 * between them. @param places percent, in the order of their cues. @returns as many, rising, the last at most 100.
 */
export function risingPlaces(places: readonly number[]): number[] {
  const kept = places.map((place, k) => (places.slice(k + 1).every((later) => later > place) ? place : undefined));
  const made: number[] = [];
  for (let k = 0; k < places.length; k++) {
    const low = made[k - 1] ?? 0;
    const ahead = kept.findIndex((place, i) => i >= k && place !== undefined && place > low);
    const [end, steps] = ahead < 0 ? [100, places.length - k] : [kept[ahead]!, ahead - k + 1];
    made.push(low + (end - low) / steps);
  }
  return made;
}
