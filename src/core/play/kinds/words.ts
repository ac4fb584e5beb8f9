/** What playbacks refuse, in words. */
import { refuse, type Refusal } from "../../show/refusal";
import type { CueList } from "../../show/schema";

export const named = (list: CueList): string => `list ${list.number} "${list.name}"`;
export const notRunning = (list: CueList): Refusal => refuse(`${named(list)} is not running`, "Give it a go first");
export const noSuchCue = (list: CueList): Refusal => refuse(`${named(list)} has no such cue`);
export const noCues = (list: CueList): Refusal =>
  refuse(`${named(list)} has no cues`, "Hold some values and: record cue 1");
export const nothingToFlash = (list: CueList): Refusal => refuse(`${named(list)} has no cues to flash`);
