/** Playbacks and cues in a few words, for lanes and pads. */
import { cuesOf } from "@/core/show/world";
import type { Cue, CueList, Show } from "@/core/show/schema";
import { plain } from "@/core/units/units";
import type { Playing } from "@/engine/messages";

type Run = Playing["runs"][string] | undefined;

/** How a cue starts, where it does so by itself. */
export function startsText(cue: Cue): string {
  const { trigger } = cue;
  if (trigger.kind === "auto") return `by itself after ${plain(trigger.after)} s`;
  return trigger.kind === "autoDone" ? `by itself ${plain(trigger.after)} s after it is complete` : "";
}

/** How a playback stands. */
export function standsText(show: Show, list: CueList, run: Run): string {
  const cue = run?.cue ? list.cues[run.cue] : undefined;
  if (list.kind === "effect") {
    const effect = list.effect === undefined ? undefined : show.effects[list.effect];
    return !effect
      ? "plays nothing"
      : run?.cue
        ? `∿ ${effect.number} ${effect.name}`
        : run?.fading
          ? "releasing"
          : "released";
  }
  if (list.kind === "morph") {
    const n = cuesOf(list).length;
    return `morph · ${n} looks${cue ? ` · near ${plain(cue.number, 3)} ${cue.name}` : ""}`;
  }
  if (list.kind === "chase") {
    const cues = cuesOf(list);
    const step = cue ? cues.indexOf(cue) + 1 : 0;
    return cue
      ? `step ${step} of ${cues.length}${cue.name ? ` · ${cue.name}` : ""}`
      : run?.fading
        ? "releasing"
        : `chase · ${cues.length} steps`;
  }
  if (list.kind === "submaster") return "submaster · highest wins";
  if (list.kind === "takeover") return "takeover · over every list";
  if (list.kind === "limiter") return "limiter · scales what it holds";
  return cue ? `${plain(cue.number, 3)} ${cue.name}` : run?.fading ? "releasing" : "released";
}

/** What comes next on it. */
export function nextText(list: CueList, run: Run): string {
  const next = run?.next ? list.cues[run.next] : undefined;
  if (list.kind === "chase")
    return `${plain(run?.bpm ?? list.bpm ?? 60, 1)} bpm${run?.tapped ? " tapped" : ""} · ${list.direction ?? "forward"}${list.tempo === undefined ? "" : ` · tempo ${list.tempo}`}`;
  if (list.kind === "morph" || list.kind === "submaster" || list.kind === "takeover" || list.kind === "limiter")
    return "by its level";
  if (list.kind === "effect") return "level scales the mix";
  if (run?.byHand !== null && run?.byHand !== undefined) return `by hand, ${plain(run.byHand * 100, 0)} % of the way`;
  return next
    ? `next ${plain(next.number, 3)} ${next.name}`
    : run?.cue
      ? "end of list"
      : cuesOf(list).length === 0
        ? "no cues yet"
        : "";
}

/** Options that are not the usual ones, each a few letters with its meaning. */
export function optionMarks(list: CueList): { mark: string; means: string }[] {
  const of = (on: unknown, mark: string, means: string) => (on ? [{ mark, means }] : []);
  return [
    ...of(list.htp, "HTP", "Its intensity counts where it is highest"),
    ...of(
      list.priority !== 0,
      `P ${list.priority}`,
      `Priority ${list.priority}: higher wins over lower, whatever came last`,
    ),
    ...of(list.fader === "crossfade", "hand", "The lane is the way into the next cue"),
    ...of(list.raised, "↑ go", "Leaving 0 gives go"),
    ...of(list.zero, "0 ⏏", "Reaching 0 releases at once"),
    ...of(list.timecode, "TC", "Its cues with a time come by timecode"),
    ...of(list.bowOut, "bows out", "Is released when a hand gives go to another list"),
    ...of(list.letGo, "drops", "Drops a parameter once another list takes it"),
    ...of(list.end === "wrap" && list.kind === "list", "↻", "Goes round to the first cue"),
  ];
}

/** Whether it has the stage for what it holds, by form. */
export const HAS = {
  all: { mark: "●", means: "It has the stage for all that it holds" },
  some: { mark: "◐", means: "It has the stage for some of what it holds; Why on a number tells what lies over it" },
  none: { mark: "○", means: "It has the stage for nothing" },
} as const;
