/** A kind of playback in a few words. */
import { hasManyCues, type CueList } from "@/core/show/schema";
import { cuesOf } from "@/core/show/world";
import { plural } from "@/core/units/plural";

const WORDS: Record<CueList["kind"], string> = {
  list: "cues",
  submaster: "submaster",
  limiter: "limiter",
  takeover: "takeover",
  effect: "effect",
  chase: "chase",
  morph: "morph",
};

export const kindText = (list: CueList): string => {
  const n = cuesOf(list).length;
  const cues = plural(n, "cue");
  if (list.kind === "list")
    return `${cues}${list.htp ? ", highest counts" : ""}${list.timecode ? ", on timecode" : ""}`;
  return hasManyCues(list) ? `${WORDS[list.kind]} of ${n}` : WORDS[list.kind];
};
