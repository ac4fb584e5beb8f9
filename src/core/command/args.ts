/** The arguments of a command, typed by its syntax line. */
import type { FrameRate } from "../timecode/frames";
import type { Family } from "../fixture/attribute";
import type { Sel } from "../select/expression";
import type { Address } from "../show/schema";
import type { Building } from "./building";
import type { Spread } from "../show/spreadSchema";
import type { WaveName } from "../show/effectSchema";
import type { EndTyped, StopTyped } from "./voices";
import type { Amounts, What } from "./what";

/** What each kind of slot reads. */
export interface SlotValues {
  sel: Sel;
  attr: string;
  attrs: string[];
  what: What;
  family: Family;
  values: Amounts;
  text: string;
  count: number;
  fixture: number;
  group: number;
  palette: number;
  palettes: number[];
  /** By number or by name. */
  paletteRef: number | string;
  effect: number;
  /** By number or by name. */
  effectRef: number | string;
  /** A wave by its word, or one of the show's own by its name. */
  waveRef: WaveName | { own: string };
  /** An end of a wave; a palette by number or by name. */
  end: EndTyped;
  stops: StopTyped[];
  points: [number, number][];
  speed: number;
  /** What a spread goes by. */
  by: Spread["by"];
  families: Family[];
  groups: number[];
  list: number;
  /** Several at once. */
  lists: number[];
  /** First and last numbers. */
  ranges: [first: number, last: number][];
  universe: number;
  port: number;
  rank: number;
  priority: number;
  parts: number;
  seed: number;
  whole: number;
  plus: number;
  number: number;
  metres: number;
  degrees: number;
  seconds: number;
  times: number[];
  /** A time on timecode. */
  frames: number;
  frameRate: FrameRate;
  bpm: number;
  break: number;
  tempo: number;
  place: number;
  macro: number;
  page: number;
  view: number;
  texts: string[];
  percent: number;
  twice: number;
  rate: number;
  cue: number;
  /** `#rrggbb` in small letters; several spread. */
  colours: string[];
  kelvins: number[];
  host: string;
  hosts: string[];
  steps: number[];
  address: Address;
  type: string;
  mode: string;
  /** What each setting of a holding line does. */
  settings: ((building: Building) => void)[];
  numbers: number[];
  bytes: number[];
  /** Fixture and cell numbers as they are written. */
  items: string[];
  /** A line within the line, as it is written. */
  line: string;
}

type Opened<T extends string, D extends string> = T extends `[${infer R}` | `(${infer R}` ? Opened<R, `${D}.`> : [T, D];
type Closed<T extends string, D extends string> = T extends `${infer R}]` | `${infer R})`
  ? D extends `.${infer E}`
    ? Closed<R, E>
    : never
  : [T, D];

/** One word of a syntax line: a slot, or a word that may be typed. Only what stands in no brackets must be there. */
type Part<T extends string, D extends string> = T extends "|" | ""
  ? never
  : T extends `<${infer N}:${infer K}>`
    ? { slot: N; kind: K; must: D extends "" ? true : false }
    : T extends `<${infer N}>`
      ? { slot: N; kind: N; must: D extends "" ? true : false }
      : { word: T };

type Parts<S extends string, D extends string = "", Found = never> = S extends `${infer Head} ${infer Rest}`
  ? Opened<Head, D> extends [infer T extends string, infer E extends string]
    ? Closed<T, E> extends [infer U extends string, infer F extends string]
      ? Parts<Rest, F, Found | Part<U, E>>
      : never
    : never
  : Opened<S, D> extends [infer T extends string, infer E extends string]
    ? Closed<T, E> extends [infer U extends string, string]
      ? Found | Part<U, E>
      : never
    : never;

type Value<K> = K extends keyof SlotValues ? SlotValues[K] : { "no slot is called": K };
type Slots<P, Must extends boolean> = Extract<P, { must: Must }>;
type Words<P> = P extends { word: infer W extends string } ? W : never;
type SlotNames<P> = P extends { slot: infer N extends string } ? N : never;

type Of<P> = {
  [S in Slots<P, true> as S extends { slot: infer N extends string } ? N : never]: S extends { kind: infer K }
    ? Value<K>
    : never;
} & {
  [S in Slots<P, false> as S extends { slot: infer N extends string } ? N : never]?:
    | (S extends { kind: infer K } ? Value<K> : never)
    | undefined;
} & { [W in Exclude<Words<P>, SlotNames<P>>]?: true };

/**
 * What is read by a syntax line: each slot by its name, and `true` for each word that was typed. A slot may bear the
 * name of the word before it.
 */
export type ArgsOf<S extends string> = Of<Parts<S>>;

/** What was read by a syntax line that is not known here. */
export type Args = Record<string, unknown>;
