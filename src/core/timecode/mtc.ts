/** MIDI timecode: quarter-frame and full-frame messages, written and read (MIDI 1.0 Detailed Specification, MIDI Time Code). */
import { framesOfLabel, labelOfFrames, nominalRate, type FrameRate, type Label } from "./frames";

/** The rates by their two bits. */
const RATES: readonly FrameRate[] = ["24", "25", "29.97df", "30"];
const QUARTER = 0xf1;

/** A full-frame message: where it stands or goes to. @param frames whole, at the rate. */
export function fullFrame(frames: number, rate: FrameRate): number[] {
  const { hours, minutes, seconds, frames: of } = labelOfFrames(Math.floor(frames), rate);
  return [0xf0, 0x7f, 0x7f, 0x01, 0x01, (RATES.indexOf(rate) << 5) | hours, minutes, seconds, Math.floor(of), 0xf7];
}

/** One of the eight quarter-frame messages that tell a frame over the time of two. @param piece 0 to 7. */
export function quarterFrame(frames: number, rate: FrameRate, piece: number): number[] {
  const { hours, minutes, seconds, frames: of } = labelOfFrames(Math.floor(frames), rate);
  const values = [Math.floor(of), seconds, minutes, (RATES.indexOf(rate) << 5) | hours];
  const value = values[piece >> 1]!;
  return [QUARTER, (piece << 4) | (piece % 2 === 0 ? value & 0x0f : value >> 4)];
}

/** What was heard: where it is in frames at a rate, and which way it goes. */
export interface HeardTimecode {
  frames: number;
  speed: 1 | 0 | -1;
}

export interface MtcReader {
  pieces: (number | undefined)[];
  last: number;
}

/** A reader that has heard nothing yet. */
export const newMtcReader = (): MtcReader => ({ pieces: Array<number | undefined>(8).fill(undefined), last: -1 });

/** The same label counted at another rate, its part of a second kept. */
const countAt = (label: Label, from: FrameRate, to: FrameRate): number =>
  framesOfLabel({ ...label, frames: (label.frames * nominalRate(to)) / nominalRate(from) }, to);

/** Frames since midnight from the four numbers of a message; undefined where they are no time. */
function counted(
  hoursAndRate: number,
  minutes: number,
  seconds: number,
  frames: number,
  to: FrameRate,
): number | undefined {
  const rate = RATES[(hoursAndRate >> 5) & 3]!;
  const hours = hoursAndRate & 0x1f;
  if (hours > 23 || minutes > 59 || seconds > 59 || frames >= nominalRate(rate)) return undefined;
  return countAt({ hours, minutes, seconds, frames }, rate, to);
}

/**
 * Reads one message. Quarter frames tell a frame only when all eight have come, a frame and three quarters late: that is made good.
 * @param to the rate that frames are counted at. @returns where it is then; undefined where nothing whole was heard.
 */
export function readMtc(reader: MtcReader, bytes: ArrayLike<number>, to: FrameRate): HeardTimecode | undefined {
  if (bytes[0] === 0xf0 && bytes[1] === 0x7f && bytes[3] === 0x01 && bytes[4] === 0x01 && bytes.length >= 10) {
    const frames = counted(bytes[5]!, bytes[6]!, bytes[7]!, bytes[8]!, to);
    reader.pieces.fill(undefined);
    reader.last = -1;
    return frames === undefined ? undefined : { frames, speed: 0 };
  }
  if (bytes[0] !== QUARTER || bytes.length < 2) return undefined;
  const piece = (bytes[1]! >> 4) & 7;
  const forward = reader.last < 0 || piece === (reader.last + 1) % 8;
  const backward = reader.last >= 0 && piece === (reader.last + 7) % 8;
  // One that was lost in between: the eight begin again.
  if (!forward && !backward) reader.pieces.fill(undefined);
  reader.pieces[piece] = bytes[1]! & 0x0f;
  reader.last = piece;
  const whole = backward ? piece === 0 : piece === 7;
  if (!whole || reader.pieces.some((p) => p === undefined)) return undefined;
  const of = (k: number) => reader.pieces[2 * k]! | (reader.pieces[2 * k + 1]! << 4);
  const frames = counted(of(3), of(2), of(1), of(0), to);
  const rate = RATES[(of(3) >> 5) & 3]!;
  reader.pieces.fill(undefined);
  if (frames === undefined) return undefined;
  const late = (1.75 / nominalRate(rate)) * nominalRate(to);
  return { frames: Math.max(0, backward ? frames : frames + late), speed: backward ? -1 : 1 };
}
