/** Settings of cues and lists as the command language writes them, after `set list N cue N` and `set list N`. */
import { familyWord, type Family } from "../../fixture/attribute";
import { lineOfFrames } from "../../timecode/frames";
import { exact, onOff, quote, selText } from "../../show/words/lineText";
import type { Bend, Cue, CueList, CueTimes, Reach, Show, Trigger } from "../../show/schema";
import { cuesOf } from "../../show/world";
import type { Timing } from "../../show/value";

type Times = Partial<Omit<CueTimes, "families" | "curve">>;

/** Cue times: "fade 4 delay 1", or each way where the two differ. */
export function timesLine({ up, down, delayUp, delayDown }: Times): string {
  const both = (word: string, rising: number | undefined, falling: number | undefined, ways: [string, string]) =>
    rising !== undefined && rising === falling
      ? [`${word} ${exact(rising)}`]
      : [rising, falling].flatMap((time, k) => (time === undefined ? [] : [`${ways[k]!} ${exact(time)}`]));
  return [
    ...both("fade", up, down, ["up", "down"]),
    ...both("delay", delayUp, delayDown, ["updelay", "downdelay"]),
  ].join(" ");
}

/** How a cue starts: "manual", "auto 2", "auto done 2"; seconds. */
export const triggerLine = (trigger: Trigger): string =>
  trigger.kind === "go" ? "manual" : `auto ${trigger.kind === "autoDone" ? "done " : ""}${exact(trigger.after)}`;

/** A reach that ends in a cue of the list is so many cues more. */
function reachLine(reach: Reach | null, list: CueList | undefined, cue: string): string {
  if (reach === null) return "reach off";
  if ("upTo" in reach) return `reach ${exact(reach.upTo)}`;
  if ("more" in reach) return `reach +${reach.more}`;
  const order = list ? cuesOf(list).map((c) => c.id) : [];
  return `reach +${order.indexOf(reach.cue) - order.indexOf(cue)}`;
}

interface CueChange extends Partial<Pick<Cue, "name" | "note" | "trigger" | "reach" | "fresh" | "assert">> {
  times?: Times;
  curve?: "linear" | Bend | undefined;
  then?: string | null | undefined;
  runs?: string | undefined;
  meant?: readonly string[] | undefined;
  blackMoves?: { on: boolean | null; fixtures?: readonly string[] | undefined } | undefined;
  ready?: boolean | null | undefined;
  place?: number | null | undefined;
  at?: number | null | undefined;
  family?: ({ name: Family; off?: true | undefined } & Timing) | undefined;
}

const onOffList = (on: boolean | null): string => (on === null ? "list" : onOff(on));

/** One line each. @param list the one the cue is of. */
export function settingLines(change: CueChange, show: Show, list: CueList | undefined, cue: string): string[] {
  const { curve, then, runs, meant, blackMoves, ready } = change;
  const { name, note, times = {}, trigger, reach, fresh, assert, family } = change;
  const { up, down, delayUp, delayDown } = times;
  const own = [family?.delay, family?.fade].map((t, k) => t !== undefined && `${k ? "fade" : "delay"} ${exact(t)}`);
  return [
    name !== undefined && `name ${quote(name)}`,
    note !== undefined && `note ${quote(note)}`,
    ...(up === down ? [timesLine({ up, down })] : [timesLine({ up }), timesLine({ down })]),
    ...(delayUp === delayDown
      ? [timesLine({ delayUp, delayDown })]
      : [timesLine({ delayUp }), timesLine({ delayDown })]),
    trigger && triggerLine(trigger),
    reach !== undefined && reachLine(reach, list, cue),
    fresh !== undefined && `fresh ${onOff(fresh)}`,
    assert !== undefined && `assert ${onOff(assert)}`,
    curve && `curve ${curve}`,
    then !== undefined && (then === null ? "then on" : `then cue ${exact(list?.cues[then]?.number ?? 0)}`),
    runs !== undefined && `runs ${quote(runs)}`,
    meant && `meant ${meant.length === 0 ? "none" : selText(show, meant)}`,
    blackMoves &&
      `blackmoves ${onOffList(blackMoves.on)}${blackMoves.fixtures ? ` ${selText(show, blackMoves.fixtures)}` : ""}`,
    ready !== undefined && `ready ${onOffList(ready)}`,
    change.place !== undefined && `place ${change.place === null ? "off" : exact(change.place)}`,
    change.at !== undefined && `at ${change.at === null ? "off" : lineOfFrames(change.at, show.timecode.rate)}`,
    family && [familyWord(family.name), family.off && "cue time", ...own].filter(Boolean).join(" "),
  ].filter((line): line is string => typeof line === "string" && line !== "");
}

/** What a list can be changed in; null takes away. */
export type ListChange = Partial<
  Omit<CueList, "id" | "number" | "cues" | "effect" | "fader" | "raised" | "zero" | "timecode" | "tempo"> & {
    fader: "level" | "crossfade" | undefined;
    raised: "go" | "wait" | undefined;
    zero: "release" | "hold" | undefined;
    timecode: boolean | undefined;
    tempo: number | null | undefined;
  }
>;

/** One line each. */
export function optionLines(change: ListChange): string[] {
  const { fadeIn, blackMoves, blackTime, ready, bpm, share, direction, fader, raised, zero, timecode, tempo } = change;
  const { name, kind, htp, letGo, bowOut, resume, wrapDrop, priority, backTime, releaseTime, end } = change;
  return [
    name !== undefined && `name ${quote(name)}`,
    kind !== undefined && `kind ${kind === "list" ? "cues" : kind}`,
    fadeIn !== undefined && `fade ${exact(fadeIn)}`,
    htp !== undefined && `htp ${onOff(htp)}`,
    letGo !== undefined && `overtaken ${letGo ? "letgo" : "return"}`,
    bowOut !== undefined && `bowout ${onOff(bowOut)}`,
    resume !== undefined && `restart ${resume ? "left" : "first"}`,
    wrapDrop !== undefined && `wrapdrop ${onOff(wrapDrop)}`,
    priority !== undefined && `priority ${priority}`,
    backTime !== undefined && `backtime ${exact(backTime)}`,
    releaseTime !== undefined && `releasetime ${exact(releaseTime)}`,
    end !== undefined && `end ${end}`,
    blackMoves !== undefined && `blackmoves ${onOff(blackMoves)}`,
    blackTime !== undefined && `blacktime ${exact(blackTime)}`,
    ready !== undefined && `ready ${onOff(ready)}`,
    bpm !== undefined && `bpm ${exact(bpm)}`,
    share !== undefined && `share ${exact(share)}`,
    direction !== undefined && `direction ${direction}`,
    tempo !== undefined && `tempo ${tempo ?? "own"}`,
    fader !== undefined && `fader ${fader}`,
    raised !== undefined && `raised ${raised}`,
    zero !== undefined && `zero ${zero}`,
    timecode !== undefined && `timecode ${onOff(timecode)}`,
  ].filter((line): line is string => typeof line === "string");
}
