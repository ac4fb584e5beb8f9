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

/** Parts of light as a screen has them, 0..255; in so many steps. */
const STEPS = 4096;
const SRGB = Uint8Array.from({ length: STEPS + 1 }, (_, i) => Math.round(255 * (i / STEPS) ** (1 / 2.2)));
const toSrgb = (v: number): number => SRGB[(Math.min(1, Math.max(0, v)) * STEPS + 0.5) | 0]!;

/** Linear sRGB on its way through emitters, filters and wheels. */
const rgb = new Float64Array(3);
const put = (red: number, green: number, blue: number): void => {
  rgb[0] = red;
  rgb[1] = green;
  rgb[2] = blue;
};

/** Runs for thousands of lamps in a frame: written without a thing to allocate. */
export function lightOf(lamp: Lamp, source: Source, { value, fn }: Lit): void {
  let level = lamp.away ? 0 : source.dimmer >= 0 ? value[source.dimmer]! / 100 : 1;
  if (lamp.dimmer >= 0) level *= value[lamp.dimmer]! / 100;
  // Function 0 of the shutter is open or closed; another is a strobe, drawn as open.
  if (source.shutter >= 0 && fn[source.shutter] === 0 && value[source.shutter]! < 0.5) level = 0;
  // A beam server's page 0 with pattern 0 is dark.
  if (source.pattern >= 0 && source.page >= 0 && value[source.page] === 0 && value[source.pattern] === 0) level = 0;
  if (source.emitters.length > 0) level *= mixed(source.emitters, value);
  // An incandescent source is warm.
  else if (lamp.kind === "conventional") put(1, 0.8, 0.52);
  else put(1, 1, 1);
  if (source.filters.length === 3) filtered(source, value);
  if (source.wheel >= 0 && fn[source.wheel] === 0 && source.slots.length > 0) {
    const at = Math.min(Math.max(value[source.wheel]! - 1, 0), source.slots.length - 1);
    const slot = source.slots[Math.round(at)]!;
    put(rgb[0]! * slot[0], rgb[1]! * slot[1], rgb[2]! * slot[2]);
  }
  if (source.hue >= 0) {
    const degrees = value[source.hue]!;
    put(hue(degrees, 5), hue(degrees, 3), hue(degrees, 1));
  }
  const most = Math.max(rgb[0]!, rgb[1]!, rgb[2]!);
  if (most > 0 && most < 1) level *= 0.4 + 0.6 * most;
  const lift = most > 0 ? 1 / most : 1;
  light.r = toSrgb(rgb[0]! * lift);
  light.g = toSrgb(rgb[1]! * lift);
  light.b = toSrgb(rgb[2]! * lift);
  light.level = level;
}

/** The colour emitters mix, its brightest part 1; returns how bright that is, at most 1. */
function mixed(emitters: Source["emitters"], value: Lit["value"]): number {
  let [red, green, blue] = [0, 0, 0];
  for (let k = 0; k < emitters.length; k++) {
    const emitter = emitters[k]!;
    const part = value[emitter[0]]! / 100;
    red += emitter[1] * part;
    green += emitter[2] * part;
    blue += emitter[3] * part;
  }
  red = Math.max(0, red);
  green = Math.max(0, green);
  blue = Math.max(0, blue);
  const most = Math.max(red, green, blue);
  const whole = most > 0 ? most : 1;
  put(red / whole, green / whole, blue / whole);
  return Math.min(1, most);
}

function filtered({ filters, logs }: Source, value: Lit["value"]): void {
  const c = value[filters[0]!]! / 100;
  const m = value[filters[1]!]! / 100;
  const y = value[filters[2]!]! / 100;
  const red = through(logs, c, m, y, 0);
  const green = through(logs, c, m, y, 1);
  const blue = through(logs, c, m, y, 2);
  put(
    rgb[0]! * onScreen(0, red, green, blue),
    rgb[1]! * onScreen(1, red, green, blue),
    rgb[2]! * onScreen(2, red, green, blue),
  );
}

/** A part of a pure colour: 5 red, 3 green, 1 blue. */
function hue(degrees: number, part: number): number {
  const k = (part + degrees / 60) % 6;
  return 1 - Math.max(0, Math.min(k, 4 - k, 1));
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
  const bx = Math.sin(pan) * Math.sin(tilt);
  const by = -Math.cos(pan) * Math.sin(tilt);
  const bz = -Math.cos(tilt);
  const rx = lamp.hung[0];
  const ry = lamp.hung[1];
  const rz = lamp.hung[2];
  const dx = rx[0] * bx + rx[1] * by + rx[2] * bz;
  const dy = ry[0] * bx + ry[1] * by + ry[2] * bz;
  const down = -(rz[0] * bx + rz[1] * by + rz[2] * bz);
  const across = Math.sqrt(dx * dx + dy * dy);
  const drop = Math.max(lamp.z, 0.5);
  const along = Math.min(down > 0.05 ? (drop * across) / down : REACH, REACH);
  const share = across > 1e-9 ? along / across : 0;
  aim.x = lamp.x + dx * share;
  aim.y = lamp.y + dy * share;
  aim.spread = Math.max(0.12, Math.tan((zoom * rad) / 2) * Math.sqrt(along * along + drop * drop));
}
