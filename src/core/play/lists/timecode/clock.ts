/** Timecode as it runs: where it stands at any stage time (SEMANTICS 11). */
import { framesIn, MOST_FRAMES, secondsOf } from "../../../timecode/frames";
import type { Timecode } from "../../../show/deckSchema";
import { clamp, stageTime, type StageTime } from "../../../units/units";

export interface TimecodeClock {
  /** Frames at the anchor. */
  base: number;
  /** Stage time of the anchor. */
  anchor: StageTime;
  /** 1 forward, -1 backward, 0 standing. */
  speed: 1 | 0 | -1;
  /** It comes from outside: it is lost when it is not heard of. */
  outside: boolean;
  /** Stage time at which it was last heard. */
  heard: StageTime;
}

/** Standing at 0. */
export const newTimecode = (now: StageTime): TimecodeClock => ({
  base: 0,
  anchor: now,
  speed: 0,
  outside: false,
  heard: now,
});

/** The stage time at which a source that is not heard of any more is given up; Infinity where there is none. */
export const givenUpAt = ({ outside, speed, heard }: TimecodeClock, { freewheel }: Timecode): StageTime =>
  stageTime(outside && speed !== 0 ? heard + freewheel : Infinity);

/** Frames at a stage time. */
export function framesAt(clock: TimecodeClock, of: Timecode, now: StageTime): number {
  const until = Math.min(now, givenUpAt(clock, of));
  return clamp(clock.base + framesIn(Math.max(0, until - clock.anchor), of.rate) * clock.speed, 0, MOST_FRAMES);
}

/** Seconds of it at a stage time. */
export const secondsAt = (clock: TimecodeClock, of: Timecode, now: StageTime): number =>
  secondsOf(framesAt(clock, of, now), of.rate);
