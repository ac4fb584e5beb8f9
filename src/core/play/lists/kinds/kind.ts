/**
 * What a kind of playback is: one card for each. A card decides, from the list and how it stands, what is to
 * be done; it does nothing itself. Whoever plays carries its deeds out.
 */
import type { Refusal } from "../../../show/refusal";
import type { CueList } from "../../../show/schema";
import type { ListTime } from "../../../units/units";
import type { Timecode } from "../../../show/deckSchema";
import type { ListRun, Step } from "../run";

/**
 * everything: all that is in force moves (a jump, back, the first go); change: what the cue stores or
 * changes; assert: nothing moves, all that is in force is stamped.
 */
export type Moving = "everything" | "change" | "assert";

/** What is to be done with a playback; undefined for nothing. */
export type Deed =
  | {
      do: "arrive";
      /** Place of the cue in the list. */
      place: number;
      what: Moving;
      /** One fade for all moves, seconds, instead of the cue's times. */
      fade?: number;
      /** That fade is in seconds, whatever the list's clock counts. */
      seconds?: true;
      /** A hand gave it go: those that bow out are released. */
      byHand?: true;
      /** As if it had not run before. */
      afresh?: true;
      /** Of a chase: how it stands then; its beat starts again. */
      step?: Step;
    }
  /** Released, over its release time or the time given, seconds. */
  | { do: "release"; time?: number }
  /** Off the stage at once. */
  | { do: "drop" }
  | { do: "resume" }
  | { do: "pause" }
  /** Its level is the way into the next cue, or back out of it. */
  | { do: "byHand"; was: number }
  /** What it gives is laid by its level anew. */
  | { do: "lay" };

export type Answer = Deed | Refusal | undefined;

export interface Kind {
  /** The level it begins with, percent. */
  firstLevel: number;
  /** Whether it plays by go and release: *release all* releases it. */
  goes: boolean;
  /** Whether its level scales the intensity that it holds. */
  scales: boolean;
  /** Whether its level scales the mix of its effects. */
  mixes: boolean;
  /** Whether what is dark in it moves beforehand to where it will next be lit. */
  movesInBlack: boolean;
  /** Whether its level limits what others give to what it holds. */
  limits: boolean;
  /** How what it gives counts: LATEST, HIGHEST or OVER. */
  role(list: CueList, isIntensity: boolean): number;
  go(list: CueList, run: ListRun, cue?: string): Answer;
  back(list: CueList, run: ListRun): Answer;
  pause(list: CueList, run: ListRun): Answer;
  assert(list: CueList, run: ListRun): Answer;
  /** Whether its looks are laid by its level, and not by going into cues. */
  lays: boolean;
  /** Its level, or a flash, is another now. @param was the level before, percent. */
  level(list: CueList, run: ListRun, was: number): Answer;
  /** A flash begins or ends. */
  flash(list: CueList, run: ListRun, on: boolean): Answer;
  /** The list time at which it next does something by itself, Infinity where it does not. */
  due(list: CueList, run: ListRun, of: Timecode): ListTime;
  /** What it does then. */
  happen(list: CueList, run: ListRun, of: Timecode): Answer;
}
