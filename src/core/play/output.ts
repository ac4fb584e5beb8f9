/** What goes out: channels at their addresses, and the bytes they are written into. */
import type { ChannelFunction } from "../fixture/type";

/** Bytes of all universes in use, 512 each, in the order of the rig's universes. Stores clamp and round to the nearest, so that nothing ever wraps. */
export type Bytes = Uint8ClampedArray;

/** A DMX channel of a fixture at one of its addresses. */
export interface Output {
  /** Parameter sent on it (pan and tilt exchanged where swapped). */
  param: number;
  functions: readonly ChannelFunction[];
  bytes: 1 | 2;
  /** Byte offset in the frame: place of the universe x 512 + slot - 1. */
  offset: number;
  /** Degrees added before the clamp. */
  add: number;
  invert: boolean;
  scale: number;
  /** Dimmer parameters that multiply it, -1 for none. */
  dimmer: number;
  cellDimmer: number;
}
