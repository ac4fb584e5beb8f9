/** Units behind numbers as people type them: "20 rpm", "1 Hz", "30°", "50 %", "3200 K", "2 m", "3 s", in any case. */
import type { MatchState } from "./grammar";

const UNITS: Readonly<Record<string, string>> = {
  percent: "%",
  deg: "°",
  degrees: "°",
  hz: "Hz",
  rpm: "rpm",
  k: "K",
  m: "m",
  s: "s",
  sec: "s",
  seconds: "s",
  bpm: "bpm",
};

/** Of what a slot reads, by its words. */
const OF_SLOTS: Readonly<Record<string, string>> = {
  seconds: "s",
  metres: "m",
  degrees: "°",
  percent: "%",
  "beats a minute": "bpm",
};

export interface Measured {
  unit: string;
  /** The place behind it. */
  pos: number;
}

/** The unit behind the number at a place, glued to it or a word of its own; undefined where there is none. */
export function unitBehind({ tokens }: MatchState, pos: number): Measured | undefined {
  const glued = /[%°Kk]$/.exec(tokens[pos]?.text ?? "")?.[0];
  if (glued && tokens[pos]!.kind === "number") return { unit: UNITS[glued.toLowerCase()] ?? glued, pos: pos + 1 };
  const next = tokens[pos + 1];
  const unit = next?.kind === "word" ? UNITS[next.text.toLowerCase()] : undefined;
  return unit === undefined ? undefined : { unit, pos: pos + 2 };
}

/** The same where it is the unit of what a slot reads. @param text the slot in words. */
export function ownUnitBehind(state: MatchState, pos: number, text: string): Measured | undefined {
  const found = OF_SLOTS[text] === undefined ? undefined : unitBehind(state, pos);
  return found?.unit === OF_SLOTS[text] ? found : undefined;
}
