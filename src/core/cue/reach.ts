/** Reaches of "so many more cues" (SEMANTICS 9): they take in cues recorded later while there are fewer, then keep the cue they end at. */
import { isDraft } from "immer";
import type { Id } from "../show/ids";
import type { Cue, CueList, Reach } from "../show/schema";
import { asItWas, plainly } from "../show/change/plainly";
import { cuesOf } from "../show/world";

/** A reach over the `more` next cues of a list. */
export function reachMore(list: CueList, cue: Id, more: number): Reach {
  const order = cuesOf(list);
  const end = order[order.findIndex((c) => c.id === cue) + more];
  return end ? { cue: end.id } : { more };
}

const isOpen = ({ reach }: Cue): boolean => reach !== null && "more" in reach;

/** Whether a reach may be open: of the cues that were there, of those added, or of those put in their place. */
function hasOpen(list: CueList, put: readonly Id[]): boolean {
  const was = asItWas(list);
  if (!was || cuesOf(was).some(isOpen)) return true;
  const added = Object.keys(list.cues).filter((id) => !was.cues[id]);
  return [...added, ...put].some((id) => list.cues[id] && isOpen(list.cues[id]));
}

/** Ends the reaches that have as many cues after them as they cover. Changes the list. @param put cues that were replaced. */
export function settleReaches(list: CueList, put: readonly Id[] = []): void {
  if (!hasOpen(list, put)) return;
  const order = cuesOf(isDraft(list) ? plainly(list) : { ...list, cues: { ...list.cues } });
  order.forEach(({ id, reach }, place) => {
    if (!reach || !("more" in reach)) return;
    const end = order[place + reach.more];
    if (end) list.cues[id]!.reach = { cue: end.id };
  });
}

/** Where what a cue stores ends, in words: a number, or "+2"; null where it reaches all later cues. */
export function reachText(list: CueList, { reach }: Pick<Cue, "reach">): string | null {
  if (!reach) return null;
  if ("upTo" in reach) return String(reach.upTo);
  return "more" in reach ? `+${reach.more}` : String(list.cues[reach.cue]?.number ?? "?");
}
