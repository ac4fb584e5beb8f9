/** A voice as something to draw: its height along the cycle, its range, and the places of its items. */
import { attributeInfo, withUnit } from "@/core/fixture/attribute";
import { functionOf, rangeOf } from "@/core/fixture/parameters";
import { castVoice, drivenBy } from "@/core/effect/casting";
import { placeInCycle } from "@/core/effect/voices";
import { drawnAt, noiseAt, offsetOf, waveAt, within } from "@/core/effect/wave";
import { numberOf } from "@/core/program/resolve";
import { hasStops, isStop, type Drawn, type End, type Voice, type WaveVoice } from "@/core/show/effectSchema";
import { splitItem, type Item } from "@/core/show/ids";
import { targetsOf } from "@/core/show/model";
import type { Show } from "@/core/show/schema";

/** The points of a wave that was drawn; undefined for one by its word. */
export function pointsOf(show: Pick<Show, "waves">, { wave }: WaveVoice): Drawn | undefined {
  if (typeof wave === "string") return undefined;
  if ("drawn" in wave) return wave.drawn;
  const own = show.waves[wave.own];
  return own && { points: (wave.track === 2 ? own.second : undefined) ?? own.points, join: own.join };
}

/** The height of a wave at a place in the cycle as it is drawn, its rest included. @returns 0..1. */
export function heightAt(show: Pick<Show, "waves">, voice: WaveVoice, x: number, cycle = 0): number {
  const u = within(Math.min(x, 1 - 1e-9), false, voice.width / 100);
  const drawn = pointsOf(show, voice);
  if (drawn) return drawnAt(drawn, u);
  return voice.wave === "random" ? noiseAt(11, cycle, u) : waveAt(voice.wave as "sine", u);
}

export interface Dot {
  item: Item;
  label: string;
  offset: number;
  /** How many others run with it. */
  more: number;
}

const MOST_DOTS = 64;

/** The items of a voice with where each stands beside the cycle's start. */
export function dotsOf(show: Show, voice: Voice, items: readonly Item[]): Dot[] {
  const entries = castVoice(show, items, voice, (turn) => ({ plays: voice, ...turn }));
  const dots: Dot[] = [];
  for (const item of items) {
    if (dots.length >= MOST_DOTS) break;
    const key = drivenBy(show, item, voice)[0]?.key;
    const effect = key === undefined ? undefined : entries[key]?.effect;
    if (!effect || isStop(effect)) continue;
    const { fixture, cell } = splitItem(item);
    const label = `${show.fixtures[fixture]?.number ?? "?"}${cell > 0 ? `.${cell}` : ""}`;
    const offset = offsetOf(voice, placeInCycle(voice, effect));
    // Those that run as one are one dot.
    const same = dots.find((d) => d.offset === offset);
    if (same) same.more += 1;
    else dots.push({ item, label, offset, more: 0 });
  }
  return dots;
}

export interface Scale {
  /** What the picture spans, in the attribute's unit. */
  from: number;
  to: number;
  /** The values at the wave's 0 and 1. */
  low: number;
  high: number;
  text(value: number): string;
}

const endNumber = (show: Show, item: Item | undefined, attribute: string, end: End): number => {
  if (typeof end === "number") return end;
  const key = item === undefined ? undefined : targetsOf(show, item, attribute)[0]?.key;
  return (key !== undefined ? numberOf(show, key, attribute, end) : undefined) ?? 0;
};

/** What a wave's picture spans: the range of its attribute; around what lies underneath, a little more than it moves. */
export function scaleOf(show: Show, voice: WaveVoice, items: readonly Item[]): Scale {
  const { attribute, range } = voice;
  const text = (value: number) => withUnit(Math.round(value * 10) / 10, attribute);
  const target = items.map((i) => targetsOf(show, i, attribute)[0]).find((t) => t !== undefined);
  const fn = target && functionOf(target.spec, attribute);
  const [low, high] = fn ? rangeOf(fn) : attributeInfo(attribute).unit === "°" ? [-180, 180] : [0, 100];
  if ("size" in range) {
    const most = Math.min(
      (high - low) / 2,
      Math.max(10, niceAbove((Math.abs(range.size) + Math.abs(range.centre)) * 1.25)),
    );
    return {
      from: -most,
      to: most,
      low: range.centre - range.size,
      high: range.centre + range.size,
      text: (v) => `${v > 0 ? "+" : ""}${text(v)}`,
    };
  }
  const first = items.find((i) => targetsOf(show, i, attribute).length > 0);
  return {
    from: low,
    to: high,
    low: endNumber(show, first, attribute, range.low),
    high: endNumber(show, first, attribute, range.high),
    text,
  };
}

/** 1, 2 or 5 times a power of ten: the next above. */
function niceAbove(value: number): number {
  const power = 10 ** Math.floor(Math.log10(Math.max(value, 1e-6)));
  return ([1, 2, 5, 10].find((n) => n * power >= value) ?? 10) * power;
}

/** The path of a wave as an SVG path, for a picture of that size. */
export function pathOf(show: Pick<Show, "waves">, voice: Voice, width: number, height: number): string {
  if (hasStops(voice)) return "";
  const steps = 80;
  return Array.from({ length: steps + 1 }, (_, i) => {
    const x = i / steps;
    const y = heightAt(show, voice, x);
    return `${i === 0 ? "M" : "L"}${(x * width).toFixed(1)} ${((1 - y) * height).toFixed(1)}`;
  }).join(" ");
}
