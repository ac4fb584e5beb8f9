/** Timecode as frames at a true rate, and as hours, minutes, seconds and frames (SMPTE 12M). */

/** Frames a second as they are called; 29.97 drop-frame leaves out two numbers in each minute but every tenth. */
export const FRAME_RATES = ["24", "25", "29.97df", "30"] as const;
export type FrameRate = (typeof FRAME_RATES)[number];

const NOMINAL: Record<FrameRate, number> = { "24": 24, "25": 25, "29.97df": 30, "30": 30 };
/** SMPTE 12M: 30,000 frames in 1,001 seconds. */
const TRUE: Record<FrameRate, number> = { "24": 24, "25": 25, "29.97df": 30_000 / 1001, "30": 30 };

/** The most a day of it has, frames. */
export const MOST_FRAMES = 24 * 3600 * 30;

/** Frames counted in a second of the label. */
export const nominalRate = (rate: FrameRate): number => NOMINAL[rate];
/** Seconds that pass in so many frames, from 0 up, parts of frames included. */
export const secondsOf = (frames: number, rate: FrameRate): number => frames / TRUE[rate];
/** Frames that pass in so many seconds. */
export const framesIn = (seconds: number, rate: FrameRate): number => seconds * TRUE[rate];

export interface Label {
  hours: number;
  minutes: number;
  seconds: number;
  /** Of the second, parts of frames included. */
  frames: number;
}

/** Frames since 0:00:00:00 of a label. Numbers that drop-frame leaves out count as the next that there is. */
export function framesOfLabel({ hours, minutes, seconds, frames }: Label, rate: FrameRate): number {
  const nominal = NOMINAL[rate];
  const count = ((hours * 60 + minutes) * 60 + seconds) * nominal + frames;
  if (rate !== "29.97df") return count;
  const total = hours * 60 + minutes;
  const dropped = 2 * (total - Math.floor(total / 10));
  const missing = minutes % 10 !== 0 && seconds === 0 && frames < 2;
  return count - dropped + (missing ? 2 - frames : 0);
}

/** The label of a count of frames, within a day. */
export function labelOfFrames(count: number, rate: FrameRate): Label {
  const nominal = NOMINAL[rate];
  const whole = Math.floor(count + 1e-9);
  let number = whole;
  if (rate === "29.97df") {
    const [tens, rest] = [Math.floor(whole / 17_982), whole % 17_982];
    number += 18 * tens + (rest >= 1800 ? 2 * Math.floor((rest - 1800) / 1798) + 2 : 0);
  }
  const all = Math.floor(number / nominal);
  return {
    hours: Math.floor(all / 3600) % 24,
    minutes: Math.floor(all / 60) % 60,
    seconds: all % 60,
    frames: (number % nominal) + Math.max(0, count - whole),
  };
}

/** Frames of a time as it is written: "1:02:03.5", "2:03:04:12" with frames, "2:03" minutes and seconds; undefined where it is none. */
export function framesOfText(text: string, rate: FrameRate): number | undefined {
  const found = /^(?:(?:(\d{1,2}):)?(\d{1,2}):)?(\d{1,5}(?:\.\d+)?)$/.exec(text);
  const exact = /^(\d{1,2}):(\d{1,2}):(\d{1,2})[:;](\d{1,2}(?:\.\d+)?)$/.exec(text);
  const [hours, minutes, seconds, frames] = exact
    ? exact.slice(1).map(Number)
    : found
      ? [Number(found[1] ?? 0), Number(found[2] ?? 0), Math.floor(Number(found[3])), 0]
      : [];
  if (hours === undefined || minutes === undefined || seconds === undefined || frames === undefined) return undefined;
  if (hours > 23 || (text.includes(":") && (minutes > 59 || seconds > 59)) || frames >= NOMINAL[rate]) return undefined;
  const part = found ? (Number(found[3]) - seconds) * NOMINAL[rate] : frames;
  const label = {
    hours: hours + Math.floor((minutes + Math.floor(seconds / 60)) / 60),
    minutes: (minutes + Math.floor(seconds / 60)) % 60,
    seconds: seconds % 60,
    frames: Math.round(part * 1e6) / 1e6,
  };
  return label.hours > 23 ? undefined : framesOfLabel(label, rate);
}

const two = (n: number): string => String(n).padStart(2, "0");

/** A count of frames as hours, minutes, seconds and frames: "0:01:02:15". */
export function textOfFrames(count: number, rate: FrameRate): string {
  const { hours, minutes, seconds, frames } = labelOfFrames(Math.max(0, count), rate);
  return `${hours}:${two(minutes)}:${two(seconds)}:${two(Math.floor(frames + 1e-6))}`;
}

/** The same as a line writes it, with parts of seconds: "0:01:02.5". */
export function lineOfFrames(count: number, rate: FrameRate): string {
  const { hours, minutes, seconds, frames } = labelOfFrames(Math.max(0, count), rate);
  const part = Number((frames / NOMINAL[rate]).toFixed(6));
  return `${hours}:${two(minutes)}:${seconds < 10 ? "0" : ""}${Number((seconds + part).toFixed(6))}`;
}
