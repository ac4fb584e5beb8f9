/**
 * The one writer of bytes: what goes down the wire. A channel that is a straight line over its whole range is
 * written plainly, all others by `toDmx`. Either way the bytes are those of SEMANTICS 1, "To DMX".
 */
import { rangeFor, toDmx } from "../../fixture/dmxValue";
import type { Bytes, Output } from "./output";

/** The bytes of so many universes, 512 each, all 0; what is written beyond 0..255 is clamped. */
export const createBytes = (universes: number): Bytes => new Uint8ClampedArray(universes * 512);

/** What is shown: for each parameter its value after masters and its function, and the channels that depend on it. */
export interface Shown {
  value: Float64Array;
  fn: Uint8Array;
  rig: { outputs: readonly Output[]; feeds: readonly (readonly number[])[] };
}

/** Rounding adds this first, so that half goes up and binary noise never decides (SEMANTICS 9). */
const HALF_UP = 1e-9;

export interface Plain {
  base: number;
  scale: number;
}

/** How a channel is written plainly: its byte is base + value x scale. Undefined where more is to be done. */
export function plainOf(out: Output): Plain | undefined {
  const fn = out.functions[0]!;
  const whole = fn.dmxFrom === 0 && fn.dmxTo === 255;
  if (
    out.bytes !== 1 ||
    !whole ||
    out.dimmer >= 0 ||
    out.cellDimmer >= 0 ||
    out.invert ||
    out.bend ||
    out.demands.length > 0 ||
    fn.steps ||
    fn.ranges ||
    fn.to === fn.from
  )
    return undefined;
  const perUnit = ((fn.dmxTo - fn.dmxFrom) / (fn.to - fn.from)) * out.scale;
  return { base: (out.add - fn.from) * perUnit + HALF_UP, scale: perUnit };
}

/** Writes a plain channel. @param value within its function's range, but for the degrees added at output. */
export const putPlain = (bytes: Bytes, at: number, base: number, scale: number, value: number): void =>
  void (bytes[at] = base + value * scale);

/** Writes one output of the rig. */
export function putOutput(stage: Shown, bytes: Bytes, index: number): void {
  const out = stage.rig.outputs[index]!;
  const fn = out.functions[stage.fn[out.param]!] ?? out.functions[0]!;
  let level = 1;
  if (out.dimmer >= 0) level *= stage.value[out.dimmer]! / 100;
  if (out.cellDimmer >= 0) level *= stage.value[out.cellDimmer]! / 100;
  level *= out.scale;
  if (out.dimmerBend) level = out.dimmerBend(Math.min(1, level));
  let dmx = toDmx(fn, stage.value[out.param]! + out.add, out.invert, level, out.bend);
  for (let k = 0; k < out.demands.length; k++) {
    const { param, asks } = out.demands[k]!;
    const ranges = asks[stage.fn[param]!];
    const master = ranges && rangeFor(ranges, stage.value[param]!).master;
    if (master) dmx = Math.min(master.to, Math.max(master.from, dmx));
  }
  const { at } = out;
  for (let k = at.length - 1; k >= 0; k--) {
    bytes[at[k]!] = dmx % 256;
    dmx = Math.floor(dmx / 256);
  }
}

/** Writes everything that depends on a parameter. */
export function putFeeds(stage: Shown, bytes: Bytes, param: number): void {
  const feeds = stage.rig.feeds[param]!;
  for (let k = 0; k < feeds.length; k++) putOutput(stage, bytes, feeds[k]!);
}
