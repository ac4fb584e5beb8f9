/** What a lamp looks like now: its colour and how bright, from the shared frame. */
import type { Half } from "@/engine/frame";
import type { Lamp, Source } from "./plan";

/** Written by `lightOf`: sRGB 0..255 at full, and brightness 0..1. Kept outside so that painting allocates nothing. */
export const light = { r: 0, g: 0, b: 0, level: 0 };

const toSrgb = (v: number): number => Math.round(255 * Math.min(1, Math.max(0, v)) ** (1 / 2.2));

/** An incandescent source, in linear sRGB. */
const WARM: [number, number, number] = [1, 0.8, 0.52];

export function lightOf(lamp: Lamp, source: Source, half: Half): void {
  const value = half.value;
  let level = source.dimmer >= 0 ? value[source.dimmer]! / 100 : 1;
  if (lamp.dimmer >= 0) level *= value[lamp.dimmer]! / 100;
  // Function 0 of the shutter is open or closed; another is a strobe, drawn as open.
  if (source.shutter >= 0 && half.fn[source.shutter] === 0 && value[source.shutter]! < 0.5) level = 0;
  let [r, g, b] = lamp.kind === "conventional" && source.emitters.length === 0 ? WARM : [1, 1, 1];
  if (source.emitters.length > 0) {
    r = g = b = 0;
    for (const [param, er, eg, eb] of source.emitters) {
      const part = value[param]! / 100;
      r += er * part;
      g += eg * part;
      b += eb * part;
    }
    const most = Math.max(r, g, b);
    level *= Math.min(1, most);
    if (most > 0) [r, g, b] = [r / most, g / most, b / most];
  }
  if (source.filters.length === 3) {
    r *= 1 - value[source.filters[0]!]! / 100;
    g *= 1 - value[source.filters[1]!]! / 100;
    b *= 1 - value[source.filters[2]!]! / 100;
  }
  if (source.wheel >= 0 && half.fn[source.wheel] === 0 && source.slots.length > 0) {
    const at = Math.min(Math.max(value[source.wheel]! - 1, 0), source.slots.length - 1);
    const slot = source.slots[Math.round(at)]!;
    r *= slot[0];
    g *= slot[1];
    b *= slot[2];
  }
  if (source.hue >= 0) [r, g, b] = hue(value[source.hue]!);
  const most = Math.max(r, g, b);
  if (most > 0 && most < 1) level *= 0.4 + 0.6 * most;
  const lift = most > 0 ? 1 / most : 1;
  light.r = toSrgb(r * lift);
  light.g = toSrgb(g * lift);
  light.b = toSrgb(b * lift);
  light.level = level;
}

function hue(degrees: number): [number, number, number] {
  const part = (n: number) => {
    const k = (n + degrees / 60) % 6;
    return 1 - Math.max(0, Math.min(k, 4 - k, 1));
  };
  return [part(5), part(3), part(1)];
}

/** Written by `aimOf`: where a mover's beam meets the floor (or ends), metres, and its half width there. */
export const aim = { x: 0, y: 0, spread: 0 };
const REACH = 9;

/** The beam of core/patch/room, written out so that a frame allocates nothing; it ends on the floor or at its reach. */
export function aimOf(lamp: Lamp, half: Half): void {
  const rad = Math.PI / 180;
  const pan = half.value[lamp.pan]! * rad;
  const tilt = half.value[lamp.tilt]! * rad;
  const zoom = lamp.zoom >= 0 ? half.value[lamp.zoom]! : 16;
  const [bx, by, bz] = [Math.sin(pan) * Math.sin(tilt), -Math.cos(pan) * Math.sin(tilt), -Math.cos(tilt)];
  const [rx, ry, rz] = lamp.hung;
  const dx = rx[0] * bx + rx[1] * by + rx[2] * bz;
  const dy = ry[0] * bx + ry[1] * by + ry[2] * bz;
  const down = -(rz[0] * bx + rz[1] * by + rz[2] * bz);
  const across = Math.hypot(dx, dy);
  const drop = Math.max(lamp.z, 0.5);
  const along = Math.min(down > 0.05 ? (drop * across) / down : REACH, REACH);
  const share = across > 1e-9 ? along / across : 0;
  aim.x = lamp.x + dx * share;
  aim.y = lamp.y + dy * share;
  aim.spread = Math.max(0.12, Math.tan((zoom * rad) / 2) * Math.hypot(along, drop));
}
