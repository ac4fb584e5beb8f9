/** What playbacks refuse, in words. */
import { refuse, type Refusal } from "../../../show/refusal";
import type { CueList } from "../../../show/schema";

/** A list in words. */
export const named = (list: CueList): string => `list ${list.number} "${list.name}"`;
/** The refusal of what only a running list can do. */
export const notRunning = (list: CueList): Refusal => refuse(`${named(list)} is not running`, "Give it a go first");
/** The refusal of a cue that is gone. */
export const noSuchCue = (list: CueList): Refusal => refuse(`${named(list)} has no such cue`);
/** The refusal of what needs a cue. */
export const noCues = (list: CueList): Refusal =>
  refuse(`${named(list)} has no cues`, "Hold some values and: record cue 1");
/** The refusal of a flash without a cue. */
export const nothingToFlash = (list: CueList): Refusal => refuse(`${named(list)} has no cues to flash`);
/** The refusal of what a list on timecode does not do. */
export const followsTimecode = (list: CueList): Refusal =>
  refuse(`${named(list)} follows timecode`, "Stop the timecode: timecode stop");
