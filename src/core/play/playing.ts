/** An effect as it plays on one parameter: its voice, with low and high as numbers of that parameter. */
import { phaseOf, waveAt } from "../effect/wave";
import { numberOf, type Resolving } from "../program/resolve";
import type { ParamKey } from "../show/ids";
import { isStop, type Entry, type Wave } from "../show/value";

export interface Playing {
  wave: Wave;
  low: number;
  high: number;
}

/** What the effect of an entry plays on a parameter; undefined where it says nothing there. */
export function playingOf(show: Resolving, key: ParamKey, { attribute, effect }: Entry): Playing | undefined {
  if (!effect || isStop(effect)) return undefined;
  const [low, high] = [effect.low, effect.high].map((value) => numberOf(show, key, attribute, value));
  return low === undefined || high === undefined ? undefined : { wave: effect, low, high };
}

/** The value an effect gives, so many seconds after its start. */
export function playedAt({ wave, low, high }: Playing, seconds: number): number {
  const u = phaseOf(wave, (seconds * wave.bpm) / 60, wave.place);
  return low + (high - low) * waveAt(wave.wave, u);
}
