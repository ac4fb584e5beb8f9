/** A kind of playback in a few words. */
import type { CueList } from "@/core/show/schema";
import { cuesOf } from "@/core/show/world";

const WORDS: Record<CueList["kind"], string> = {
  list: "cues",
  submaster: "submaster",
  limiter: "limiter",
  takeover: "takeover",
  effect: "effect",
};

export const kindText = (list: CueList): string => {
  const n = cuesOf(list).length;
  return list.kind === "list"
    ? `${n} ${n === 1 ? "cue" : "cues"}${list.htp ? ", highest counts" : ""}`
    : WORDS[list.kind];
};
