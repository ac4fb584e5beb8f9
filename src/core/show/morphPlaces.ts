/** Where the cues of a morph lie along its level (SEMANTICS 11). */
import type { CueList } from "./schema";
import { cuesOf } from "./world";

/** Percent, one for each cue in order: given, else 100 k / n. */
export function morphPlaces(list: CueList): number[] {
  const cues = cuesOf(list);
  return cues.map((cue, k) => cue.place ?? (100 * (k + 1)) / cues.length);
}
