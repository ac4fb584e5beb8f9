/** What a lamp looks like now: its colour and how bright, from the shared frame. */
import { SOURCE_BANDS, type Logs } from "@/core/colour/filter";
import type { Lit } from "./lit";
import type { Lamp, Source } from "./plan";
import { screenRgb } from "./screen";

/** Written by `lightOf`: sRGB 0..255 at full, and brightness 0..1. Kept outside so that painting allocates nothing. */
export const light = { r: 0, g: 0, b: 0, level: 0 };

/** Each band of the source on a screen, for so much light of all three that white is 1 1 1. */
const BANDS = SOURCE_BANDS.map(screenRgb);
const WHITE = [0, 1, 2].map((part) => BANDS.reduce((sum, band) => sum + band[part]!, 0));
/** What filters leave of a band: 0 red, 1 green, 2 blue. */
const through = (logs: Logs, c: number, m: number, y: number, band: number): number =>
  Math.exp(c * logs[0]![band]! + m * logs[1]![band]! + y * logs[2]![band]!);
/** A part of the light on a screen, from what is left of the bands. */
const onScreen = (part: number, red: number, green: number, blue: number): number =>
  Math.max(0, (red * BANDS[0]![part]! + green * BANDS[1]![part]! + blue * BANDS[2]![part]!) / WHITE[part]!);

const toSrgb = (v: number): number => Math.round(255 * Math.min(1, Math.max(0, v)) ** (1 / 2.2));

/** An incandescent source, in linear sRGB. */
const WARM: [number, number, number] = [1, 0.8, 0.52];

export function lightOf(lamp: Lamp, source: Source, half: Lit): void {
  const value = half.value;
  let level = lamp.away ? 0 : source.dimmer >= 0 ? value[source.dimmer]! / 100 : 1;
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
    [r, g, b] = [Math.max(0, r), Math.max(0, g), Math.max(0, b)];
    const most = Math.max(r, g, b);
    level *= Math.min(1, most);
    if (most > 0) [r, g, b] = [r / most, g / most, b / most];
  }
  if (source.filters.length === 3) {
    const [c, m, y] = [
      value[source.filters[0]!]! / 100,
      value[source.filters[1]!]! / 100,
      value[source.filters[2]!]! / 100,
    ];
    const { logs } = source;
    const [red, green, blue] = [through(logs, c, m, y, 0), through(logs, c, m, y, 1), through(logs, c, m, y, 2)];
    r *= onScreen(0, red, green, blue);
    g *= onScreen(1, red, green, blue);
    b *= onScreen(2, red, green, blue);
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

export const aimOf = (lamp: Lamp, { value }: Lit): void =>
  aimAt(lamp, value[lamp.pan]!, value[lamp.tilt]!, lamp.zoom >= 0 ? value[lamp.zoom]! : 16);

/** The beam of core/patch/room, written out so that a frame allocates nothing; it ends on the floor or at its reach. Degrees. */
export function aimAt(lamp: Lamp, panned: number, tilted: number, zoom: number): void {
  const rad = Math.PI / 180;
  const pan = panned * rad;
  const tilt = tilted * rad;
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
