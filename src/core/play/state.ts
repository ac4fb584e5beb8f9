/** The state of a player: plain data that the parts of it work on. */
import type { Id } from "../show/ids";
import type { World } from "../show/world";
import type { ListTime, Sequence, StageTime } from "../units/units";
import type { Budget } from "./lists/budget";
import type { Layers } from "./stage/layers";
import type { Bytes } from "./stage/output";
import type { Rig } from "./stage/rig";
import type { ListRun } from "./lists/run";
import type { SilentLayer } from "./stage/silent";
import type { Stage } from "./stage/stage";
import type { TimecodeClock } from "./lists/timecode/clock";

/** An arrival whose moves are not all started. */
export interface Unfinished {
  run: ListRun;
  /** Started piece by piece; ends with the largest delay + fade. */
  work: Iterator<undefined, number>;
  /** When it came: on the stage's clock and on its list's. */
  at: StageTime;
  listAt: ListTime;
  /** Whether it settles when the cue is complete. */
  completes: boolean;
  /** Fixtures whose moves in the dark are meant, with the longest of each. */
  meant: ReadonlyMap<Id, number>;
}

/** A level, or the grand master, on its way to a value. */
export interface Ramp {
  /** The list whose level moves; null for the grand master. */
  list: string | null;
  /** Percent. */
  from: number;
  to: number;
  /** Stage time it began at, and how long it takes, seconds. */
  at: StageTime;
  seconds: number;
}

/** The rest of a macro, after a wait. */
export interface Waiting {
  at: StageTime;
  /** The macro's number, and the lines that are left. */
  macro: number;
  lines: string[];
}

export interface Player {
  /** The world as it was given, and as it is played: with effect lanes as lists of one cue. */
  given: World;
  world: World;
  rig: Rig;
  layers: Layers;
  stage: Stage;
  /** What leaves, 512 bytes for each of the rig's universes; and the writer's view of the same memory. */
  frame: Uint8Array;
  bytes: Bytes;
  runs: Map<string, ListRun>;
  /** Layers of parameters that the present modes lack: they come back with one that has them. */
  silent: SilentLayer[];
  /** The runs by list number. */
  order: ListRun[];
  /** The stage time at which moves in black are to be looked at again. */
  blackNext: StageTime;
  /** Levels on their way to a value. */
  ramps: Ramp[];
  timecode: TimecodeClock;
  /** What a macro has still to run, at its stage time. */
  waiting: Waiting[];
  /** Runs the line of a cue, where somebody can read lines. */
  runLine?: (line: string) => void;
  /** Goes on with a macro, where somebody can. */
  goOn?: (rest: Pick<Waiting, "macro" | "lines">) => void;
  /** Told in words what was stopped or refused of what happens by itself. */
  tell?: (text: string) => void;
  /** What has happened by itself, so that nothing does without end. */
  budget: Budget;
  /** Whether arrivals may be left to be finished in pieces (`arrive.ts`), by whoever owns the clock. */
  inPieces: boolean;
  unfinished: Unfinished | undefined;
  /** Stage time, seconds, of the last thing done. */
  now: StageTime;
  /** Sequence number of the last event. */
  sequence: Sequence;
  /** Changes whenever parameters or universes are laid out anew. */
  generation: number;
}
