/** A source of MIDI timecode: what it has sent by any time of its own clock. */
import { framesIn, MOST_FRAMES, type FrameRate } from "./frames";
import { fullFrame, quarterFrame } from "./mtc";

export interface TimecodeSource {
  rate: FrameRate;
  /** Frames where it was set going or put, and the seconds of its clock then. */
  base: number;
  since: number;
  runs: boolean;
  /** Quarter frames sent since. */
  sent: number;
}

export const newSource = (rate: FrameRate): TimecodeSource => ({ rate, base: 0, since: 0, runs: false, sent: 0 });

/** Where it is, frames. @param now seconds of its clock. */
export const sourceAt = ({ rate, base, since, runs }: TimecodeSource, now: number): number =>
  Math.min(MOST_FRAMES - 1, base + (runs ? framesIn(Math.max(0, now - since), rate) : 0));

/** Put elsewhere, standing or running on from there. @returns the message that says so. */
export function locateSource(of: TimecodeSource, frames: number, now: number, runs = of.runs): number[] {
  Object.assign(of, { base: Math.max(0, Math.min(MOST_FRAMES - 1, Math.floor(frames))), since: now, runs, sent: 0 });
  return fullFrame(of.base, of.rate);
}

/**
 * The quarter frames that are due by now and not yet sent: four a frame, eight tell the frame at which their first
 * began (MIDI 1.0, MIDI Time Code). After a time without being asked the ones that are long past are left out.
 */
export function dueMessages(of: TimecodeSource, now: number): number[][] {
  if (!of.runs) return [];
  const due = Math.floor(framesIn(Math.max(0, now - of.since), of.rate) * 4) + 1;
  if (due - of.sent > 32) of.sent = due - (due % 8);
  const found: number[][] = [];
  for (; of.sent < due; of.sent++) {
    const told = of.base + Math.floor(of.sent / 8) * 2;
    if (told < MOST_FRAMES) found.push(quarterFrame(told, of.rate, of.sent % 8));
  }
  return found;
}
