/** What goes out: channels at their addresses, and the bytes they are written into. */
import type { Bend } from "../../fixture/dimmerCurve";
import type { ChannelFunction, Range } from "../../fixture/type";

/** Bytes of all universes in use, 512 each, in the order of the rig's universes. Stores clamp and round to the nearest, so that nothing ever wraps. */
export type Bytes = Uint8ClampedArray;

/**
 * What a parameter asks of this channel.
 * @property asks for each of its functions its ranges, of which the one a value is of asks for its master; null where none does.
 */
export interface Demand {
  param: number;
  asks: readonly (readonly Range[] | null)[];
}

/** A DMX channel of a fixture at one of its addresses. */
export interface Output {
  /** Parameter sent on it (pan and tilt exchanged where swapped). */
  param: number;
  functions: readonly ChannelFunction[];
  bytes: 1 | 2 | 3 | 4;
  /** Byte offset in the frame of its coarse byte: place of the universe x 512 + slot - 1. */
  offset: number;
  /** Offsets of all its bytes, coarse first. */
  at: readonly number[];
  /** Degrees added before the clamp. */
  add: number;
  invert: boolean;
  scale: number;
  /** Of a dimmer: its curve and preheat. */
  bend: Bend | null;
  /** Of an emitter behind a virtual dimmer: the curve of that. */
  dimmerBend: Bend | null;
  /** Channels whose functions work only while this one stands in a range: their parameter, and the range for each of their functions. */
  demands: readonly Demand[];
  /** Dimmer parameters that multiply it, -1 for none. */
  dimmer: number;
  cellDimmer: number;
}
