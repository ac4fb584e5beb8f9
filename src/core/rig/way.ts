/** What is stored of a fixture on its way from one type to another, and how it remembers what it was. */
import type { Id, ParamKey } from "../show/ids";
import type { Entry } from "../show/value";
import type { Side } from "./sides";

/** What became of something in a swap. */
export interface Fate {
  attribute: string;
  kind: "same" | "near" | "lost";
  /** How far off, in words; for what is near. */
  how?: string;
  /** How far off a colour is, in u'v'. */
  off?: number;
}

export interface Swapping {
  fixture: Id;
  from: Side;
  to: Side;
  /** The sides of types that the fixture was of before, for what is silent. */
  typeOf(id: string): Side["type"] | undefined;
  /** Takes down what became of an entry. */
  note(fate: Fate): void;
  /** Colours worked out before between these sides; thousands of entries are of the same few. */
  colours?: Map<string, ColourMade>;
}

/** A colour of one side as the other one makes it, by place ("0.ColorAdd_R"); off by so much, in u'v'. */
export interface ColourMade {
  values: ReadonlyMap<string, { attribute: string; value: number }>;
  off: number;
}

/** A number that a parameter of the old side stands at where these entries are; undefined where nothing says. */
export type Standing = (key: ParamKey) => { attribute: string; value: number } | undefined;

export const unmarked = ({ of: _of, was: _was, ...entry }: Entry): Entry => entry;

/** What stood in an entry's place on a type, where it was made from that. */
export const before = ({ was, time }: Entry): Entry | undefined =>
  was?.attribute === undefined
    ? undefined
    : {
        attribute: was.attribute,
        ...(was.value === undefined ? {} : { value: was.value }),
        ...(was.effect === undefined ? {} : { effect: was.effect }),
        ...(time ? { time } : {}),
      };

/** The mark of what stood in the place of an entry; the first type counts, however many it has been since. @param there what stands there. */
export const wasOf = (key: ParamKey, there: Entry | undefined, type: string): NonNullable<Entry["was"]> =>
  there?.was ?? {
    of: type,
    ...(there && {
      place: key.slice(key.indexOf(".") + 1),
      attribute: there.attribute,
      ...(there.value === undefined ? {} : { value: there.value }),
      ...(there.effect === undefined ? {} : { effect: there.effect }),
    }),
  };

/** Entries on their way: what is alive on the old type, by key, and what is made of it. */
export interface Way {
  alive: ReadonlyMap<ParamKey, Entry>;
  made: Record<ParamKey, Entry>;
}
