/** What two looks, or two versions of a show, differ in: cue by cue and parameter by parameter. */
import { isSame, lookToSign, type SignedLook } from "./signed";
import type { Id, ParamKey } from "../show/ids";
import type { Cue, CueList, Show, SignedValue } from "../show/schema";
import { cuesOf } from "../show/world";

/** One fixture that looks different: lit in one only, or lit in both with these parameters other. */
export interface Differs {
  fixture: Id;
  how: "dark" | "lit" | "values";
  values: { key: ParamKey; from: SignedValue; to: SignedValue }[];
}

/** The fixtures in which a look is another, by number of fixture. @param from the look before. @param to the look after. */
export function lookDifference(show: Pick<Show, "fixtures">, from: SignedLook, to: SignedLook): Differs[] {
  const ids = [...new Set([...Object.keys(from), ...Object.keys(to)])];
  const number = (id: Id) => show.fixtures[id]?.number ?? Infinity;
  return ids
    .sort((a, b) => number(a) - number(b))
    .flatMap((fixture): Differs[] => {
      const [was, is] = [from[fixture], to[fixture]];
      if (!was) return [{ fixture, how: "lit", values: [] }];
      if (!is) return [{ fixture, how: "dark", values: [] }];
      const values = Object.keys(is).flatMap((key) =>
        was[key] && !isSame(was[key], is[key]!) ? [{ key, from: was[key], to: is[key]! }] : [],
      );
      return values.length > 0 ? [{ fixture, how: "values", values }] : [];
    });
}

/** The look of a cue, wherever it is. */
export const lookOfCue = (show: Show, list: CueList, cue: Id): SignedLook =>
  lookToSign(
    show,
    list,
    cuesOf(list).findIndex((c) => c.id === cue),
  );

export type How = "new" | "gone" | "changed";
export interface CueChange {
  list: Id;
  cue: Id;
  how: How;
  /** Fixtures that look different. */
  look: Differs[];
  /** What else differs: its name, times ... */
  fields: string[];
}
export const COMPARED = ["palettes", "groups", "effects", "waves", "lists", "fixtures"] as const;
export interface RecordChange {
  what: (typeof COMPARED)[number];
  id: Id;
  how: How;
}

const FIELDS: Partial<Record<keyof Cue, string>> = {
  number: "number",
  name: "name",
  note: "note",
  times: "times",
  trigger: "start",
  reach: "reach",
  fresh: "fresh start",
  assert: "assert",
  then: "then",
  runs: "runs",
  meant: "meant",
  ready: "ready",
  entries: "stored values",
};
const same = (a: unknown, b: unknown): boolean => a === b || JSON.stringify(a) === JSON.stringify(b);

/** The cues of lists that both versions have in which they differ, and what each differs in. */
export function cueChanges(before: Show, after: Show): CueChange[] {
  const found: CueChange[] = [];
  for (const list of Object.values(after.lists).sort((a, b) => a.number - b.number)) {
    const old = before.lists[list.id];
    if (!old) continue;
    const all = [...cuesOf(list), ...cuesOf(old).filter((c) => !list.cues[c.id])];
    all.sort((a, b) => a.number - b.number);
    for (const { id } of all) {
      const [was, is] = [old.cues[id], list.cues[id]];
      const how: How = !was ? "new" : !is ? "gone" : "changed";
      const fields =
        was && is
          ? (Object.keys(FIELDS) as (keyof Cue)[]).filter((f) => !same(was[f], is[f])).map((f) => FIELDS[f]!)
          : [];
      const look = was && is ? lookDifference(after, lookOfCue(before, old, id), lookOfCue(after, list, id)) : [];
      if (how !== "changed" || fields.length > 0 || look.length > 0)
        found.push({ list: list.id, cue: id, how, look, fields });
    }
  }
  return found;
}

/** The records, but cues, in which two versions differ. A list counts as changed for its options alone. */
export function recordChanges(before: Show, after: Show): RecordChange[] {
  return COMPARED.flatMap((what) => {
    const [a, b] = [before[what] as Record<Id, object>, after[what] as Record<Id, object>];
    const bare = (record: object | undefined) => (what === "lists" && record ? { ...record, cues: 0 } : record);
    return [...new Set([...Object.keys(b), ...Object.keys(a)])].flatMap((id): RecordChange[] => {
      const how: How = !a[id] ? "new" : !b[id] ? "gone" : "changed";
      return how === "changed" && same(bare(a[id]), bare(b[id])) ? [] : [{ what, id, how }];
    });
  });
}
