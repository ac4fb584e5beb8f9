/** An effect as it plays on one parameter: its voice, with low, high and stops as numbers of that parameter. */
import { functionOf, rangeOf, type ParameterSpec } from "../../fixture/parameters";
import { stopFor } from "../../effect/casting";
import { between, CODES, holdOf, standBetween } from "../../effect/stops";
import { placeInCycle, voiceOf } from "../../effect/voices";
import { drawnAt, noiseAt, noiseSeed, offsetOf, waveAt, within } from "../../effect/wave";
import { numberOf, resolveEntry, type Resolving } from "../../program/resolve";
import { hasStops, type Drawn, type Effect, type Voice, type WaveName } from "../../show/effectSchema";
import { splitKey, type ParamKey } from "../../show/ids";
import { isFrom, isStop } from "../../show/effectSchema";
import type { Show } from "../../show/schema";
import type { Entry } from "../../show/value";
import { clamp } from "../../units/units";

/** The stops of a voice as numbers of one parameter. */
export interface PlayedStops {
  /** NaN where a stop says nothing. */
  values: Float64Array;
  fns: Uint8Array;
  holds: Float64Array;
  codes: Uint8Array;
}

export interface Playing {
  /** What it plays, by which it is known again. */
  effect: Effect;
  voice: Voice;
  /** Cycles a second, and where the item stands beside them. */
  speed: number;
  offset: number;
  bounce: boolean;
  /** The share of the cycle that it takes. */
  share: number;
  shape: WaveName | "drawn" | "stops";
  drawn: Drawn | undefined;
  seed: number;
  /** Whether it moves around what lies underneath. */
  around: boolean;
  /** The value, or what is added to it, at the wave's 0, and from there to its 1. */
  low: number;
  span: number;
  /** The range of its function. */
  min: number;
  max: number;
  fn: number;
  stops: PlayedStops | undefined;
  /** By function: whether it mixes, or switches half way. */
  mixes: readonly boolean[];
}

/** What the effect of an entry plays on a parameter; undefined where it says nothing there. @param mixes by function. */
export function playingOf(
  show: Resolving,
  key: ParamKey,
  spec: ParameterSpec,
  mixes: readonly boolean[],
  { attribute, effect }: Entry,
): Playing | undefined {
  const sounded = voiceOf(show, effect);
  if (!sounded || !effect || isStop(effect)) return undefined;
  const { voice, speed } = sounded;
  const made = hasStops(voice) ? stopsOf(show, key, spec, voice) : waveOf(show, key, spec, voice, attribute);
  if (!made) return undefined;
  const { fixture, cell } = splitKey(key);
  const [min, max] = rangeOf(spec.functions[made.fn]!);
  return {
    effect,
    voice,
    speed,
    offset: offsetOf(voice, placeInCycle(voice, effect)),
    bounce: voice.direction === "bounce" && made.shape !== "random",
    share: voice.width / 100,
    seed: noiseSeed(show.seed, isFrom(effect) ? effect.voice : 0, `${fixture}.${cell}`),
    min,
    max,
    mixes,
    ...made,
  };
}

type Made = Pick<Playing, "shape" | "drawn" | "around" | "low" | "span" | "fn" | "stops">;

function waveOf(
  show: Resolving,
  key: ParamKey,
  spec: ParameterSpec,
  voice: Exclude<Voice, { stops: unknown }>,
  attribute: string,
): Made | undefined {
  const fn = spec.functions.findIndex((f) => f.attribute === attribute);
  if (fn < 0) return undefined;
  const { wave, range } = voice;
  const drawn =
    typeof wave === "string" ? undefined : "drawn" in wave ? wave.drawn : trackOf(show, wave.own, wave.track);
  if (typeof wave !== "string" && !drawn) return undefined;
  const shape = typeof wave === "string" ? wave : "drawn";
  if ("size" in range)
    return {
      shape,
      drawn,
      fn,
      around: true,
      low: range.centre - range.size,
      span: 2 * range.size,
      stops: undefined,
    };
  const [low, high] = [range.low, range.high].map((value) => numberOf(show, key, attribute, value));
  if (low === undefined || high === undefined) return undefined;
  return { shape, drawn, fn, around: false, low, span: high - low, stops: undefined };
}

/** A track of a wave of the show's own; the second of one that has none is its first. */
function trackOf(show: Pick<Show, "waves">, id: string, track: 1 | 2): Drawn | undefined {
  const own = show.waves[id];
  return own && { points: (track === 2 ? own.second : undefined) ?? own.points, join: own.join };
}

function stopsOf(
  show: Resolving,
  key: ParamKey,
  spec: ParameterSpec,
  voice: Extract<Voice, { stops: unknown }>,
): Made | undefined {
  const { of, stops } = voice;
  const resolved = stops.map((stop) => {
    const said = stopFor(show as Show, key, spec, of, stop);
    return said && functionOf(spec, said.attribute) ? resolveEntry(show, key, spec, said) : undefined;
  });
  const first = resolved.find((r) => r !== undefined);
  if (!first) return undefined;
  return {
    shape: "stops",
    drawn: undefined,
    fn: first.fn,
    around: false,
    low: 0,
    span: 0,
    stops: {
      values: Float64Array.from(resolved, (r) => r?.value ?? NaN),
      fns: Uint8Array.from(resolved, (r) => r?.fn ?? 0),
      holds: Float64Array.from(stops, holdOf),
      codes: Uint8Array.from(stops, (s) => CODES[s.curve]),
    },
  };
}

/** The wave of an effect after so many cycles, 0 to 1. */
export function heightOf(playing: Playing, cycles: number): number {
  const x = cycles + playing.offset;
  if (playing.shape === "random") return noiseAt(playing.seed, Math.floor(x), within(x, false, playing.share));
  const u = within(x, playing.bounce, playing.share);
  return playing.shape === "drawn"
    ? drawnAt(playing.drawn!, u)
    : playing.shape === "stops"
      ? u
      : waveAt(playing.shape, u);
}

let playedFn = 0;
/** The function of the value last played. */
export const lastFn = (): number => playedFn;

/**
 * The value an effect gives after so many cycles.
 * @param base what lies underneath, in function `baseFn`: shown where a stop says nothing. @param level 0..1: of an
 * intensity, what its list's level leaves of it, or of what it adds.
 */
export function playedAt(playing: Playing, cycles: number, base: number, baseFn: number, level: number): number {
  playedFn = playing.fn;
  if (playing.stops) return betweenStops(playing, playing.stops, cycles, base, baseFn, level);
  const moved = playing.low + playing.span * heightOf(playing, cycles);
  return playing.around
    ? clamp(base + moved * level, playing.min, playing.max)
    : clamp(moved, playing.min, playing.max) * level;
}

function betweenStops(
  { offset, bounce, share, mixes }: Playing,
  { values, fns, holds, codes }: PlayedStops,
  cycles: number,
  base: number,
  baseFn: number,
  level: number,
): number {
  standBetween(holds, codes, within(cycles + offset, bounce, share), bounce);
  const { from, to, p } = between;
  const a = Number.isNaN(values[from]!);
  const b = Number.isNaN(values[to]!);
  const aFn = a ? baseFn : fns[from]!;
  const bFn = b ? baseFn : fns[to]!;
  const aValue = a ? base : values[from]! * level;
  const bValue = b ? base : values[to]! * level;
  if (p > 0 && p < 1 && aFn === bFn && mixes[aFn] === true) {
    playedFn = aFn;
    return aValue + (bValue - aValue) * p;
  }
  const first = p < 0.5;
  playedFn = first ? aFn : bFn;
  return first ? aValue : bValue;
}
