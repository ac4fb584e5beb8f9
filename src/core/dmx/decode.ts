/** From the bytes of the wire back to values: what a node received, shown as a stage. */
import { unbent } from "../fixture/dimmerCurve";
import type { ChannelFunction } from "../fixture/type";
import type { Output } from "../play/stage/output";
import type { Rig } from "../play/stage/rig";
import { clamp } from "../units/units";

/** Physical value of a DMX value in a function: the other way round of `toDmx`. */
export function fromDmx(fn: ChannelFunction, dmx: number, invert = false): number {
  if (fn.steps && fn.steps.length > 0)
    return (fn.steps.find((s) => dmx >= s.dmxFrom && dmx <= s.dmxTo) ?? fn.steps[0]!).value;
  if (fn.ranges) {
    const { ranges } = fn;
    const range = ranges.find((r) => dmx >= r.dmxFrom && dmx <= r.dmxTo) ?? ranges[0]!;
    const share = range.dmxTo === range.dmxFrom ? 0 : (dmx - range.dmxFrom) / (range.dmxTo - range.dmxFrom);
    return range.from + (invert ? 1 - share : share) * (range.to - range.from);
  }
  const norm = fn.dmxTo === fn.dmxFrom ? 0 : clamp((dmx - fn.dmxFrom) / (fn.dmxTo - fn.dmxFrom), 0, 1);
  return fn.from + (invert ? 1 - norm : norm) * (fn.to - fn.from);
}

/**
 * Values and functions of all parameters as a frame of bytes shows them. Virtual dimmers are in the
 * emitters already and count as full; a parameter without an address keeps its default.
 * @param bytes 512 for each of the rig's universes. @param value, fn one for each parameter.
 */
export function decodeFrame(rig: Rig, bytes: Uint8Array, value: Float64Array, fn: Uint8Array): void {
  for (let p = 0; p < rig.size; p++) {
    value[p] = rig.specs[p]!.virtual ? 100 : rig.defaults[p]!;
    fn[p] = 0;
  }
  for (const out of rig.outputs) decodeOutput(out, bytes, value, fn);
}

function decodeOutput(out: Output, bytes: Uint8Array, value: Float64Array, fn: Uint8Array): void {
  const dmx = out.at.reduce((sum, at) => sum * 256 + bytes[at]!, 0);
  const which = out.functions.findIndex((f) => dmx >= f.dmxFrom && dmx <= f.dmxTo);
  const found = out.functions[Math.max(0, which)]!;
  const shown = fromDmx(found, dmx, out.invert) - out.add;
  value[out.param] = out.bend ? unbent(out.bend, shown / 100) * 100 : shown;
  fn[out.param] = Math.max(0, which);
}
