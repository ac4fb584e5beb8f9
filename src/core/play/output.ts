/** The DMX frame: what goes down the wire. */
import { toDmx } from "../dmx/convert";
import type { Stage } from "./stage";

/** Bytes of all universes in use, 512 each, in the order of `rig.universes`. */
export const createFrame = (universes: number): Uint8Array => new Uint8Array(universes * 512);

/** Writes one output of the rig into the frame. */
export function writeOutput(stage: Stage, frame: Uint8Array, index: number): void {
  const out = stage.rig.outputs[index]!;
  const fn = out.functions[stage.fn[out.param]!] ?? out.functions[0]!;
  let factor = out.scale;
  if (out.dimmer >= 0) factor *= stage.value[out.dimmer]! / 100;
  if (out.cellDimmer >= 0) factor *= stage.value[out.cellDimmer]! / 100;
  const dmx = toDmx(fn, stage.value[out.param]! + out.add, out.invert, factor);
  if (out.bytes === 2) {
    frame[out.offset] = dmx >> 8;
    frame[out.offset + 1] = dmx & 255;
  } else frame[out.offset] = dmx;
}
