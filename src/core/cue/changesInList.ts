/** Something about parameters along a list, asked only where what is in force of them may change. */
import type { ParamKey } from "../show/ids";
import type { Tracking } from "./tracking";

/**
 * By the place of each cue, 1 where it holds. Between the cues that store something of the keys, start afresh or
 * end a reach it stays what it is.
 * @param trackings versions of a list with the same cues. @param cues how many there are.
 */
export function along(
  trackings: readonly Tracking[],
  keys: Iterable<ParamKey>,
  cues: number,
  holds: (place: number) => boolean,
): Uint8Array {
  const asked = new Uint8Array(cues);
  asked[0] = 1;
  for (const { turns, columns } of trackings) {
    for (let i = 0; i < cues; i++) if (turns[i]) asked[i] = 1;
    for (const key of keys) for (const at of columns.get(key)?.at ?? []) asked[at] = 1;
  }
  const found = new Uint8Array(cues);
  let last = 0;
  for (let i = 0; i < cues; i++) {
    if (asked[i]) last = holds(i) ? 1 : 0;
    found[i] = last;
  }
  return found;
}
