/** What ranges of the cue sheet mean: typing, filling, pasting and emptying, as edits of the cues themselves. */
import Papa from "papaparse";
import type { Looks } from "@/core/cue/intents/cueDraft";
import { writeCue } from "@/core/cue/intents/writeCueIntent";
import { inForceAt, trackingOf } from "@/core/cue/tracking";
import { functionOf, rangeOf } from "@/core/fixture/parameters";
import { typedNumber } from "@/core/fixture/typedNumber";
import { numberAt } from "@/core/rig/standing";
import type { Intent } from "@/core/show/change/intent";
import { specOf } from "@/core/show/model";
import type { Cue, CueList, Show } from "@/core/show/schema";
import { RELEASE, type Entry } from "@/core/show/value";
import { cuesOf } from "@/core/show/world";
import { clamp } from "@/core/units/units";
import type { Session } from "@/session/state";
import { typedAmounts } from "@/ui/base/typed/typed";
import type { ParamColumn } from "./sheetColumns";

export interface TakenCue {
  cue: Cue;
  columns: readonly ParamColumn[];
}

const MOST_PASTED = 20_000;

/** A number, or a word for one, as an entry of a parameter; "r" releases it. Undefined where it means nothing there. */
function entryOf(show: Show, key: string, attribute: string, text: string): Entry | undefined {
  const word = text.trim().toLowerCase();
  if (word === "r" || word === "release" || word === "released" || word === "∅") return { attribute, value: RELEASE };
  const fn = functionOf(specOf(show, key)!, attribute);
  if (!fn) return undefined;
  const palette = /^p\s*(\d+)$/.exec(word);
  if (palette) {
    const found = Object.values(show.palettes).find((p) => p.number === Number(palette[1]));
    return found && { attribute, value: { palette: found.id } };
  }
  const [low, high] = [Math.min(fn.from, fn.to), Math.max(fn.from, fn.to)];
  const value = word === "full" ? high : word === "out" ? 0 : typedNumber(attribute, word);
  return value !== undefined && value >= low && value <= high ? { attribute, value } : undefined;
}

const attributeNow = (cue: Cue, column: ParamColumn): string => cue.entries[column.key]?.attribute ?? column.attribute;

/** What is in force in a cell as a number; undefined where it is none. */
function numberNow(show: Show, list: CueList, cue: Cue, key: string): number | undefined {
  const at = trackingOf(list, show);
  return numberAt(show, key, inForceAt(at, key, cuesOf(list).indexOf(cue))?.entry)?.value;
}

/** What is typed is added to what each cell has; it stops at the ends of its range. */
function added(show: Show, list: CueList, text: string, taken: readonly TakenCue[], looks: Looks): Intent[] {
  return taken.flatMap(({ cue, columns }) =>
    written(
      list,
      cue,
      columns.flatMap((c): [string, Entry][] => {
        const attribute = attributeNow(cue, c);
        const fn = functionOf(specOf(show, c.key)!, attribute);
        const [now, by] = [numberNow(show, list, cue, c.key), typedNumber(attribute, text)];
        if (!fn || now === undefined || by === undefined) return [];
        return [[c.key, { attribute, value: clamp(now + by, ...rangeOf(fn)) }]];
      }),
      looks,
    ),
  );
}

/**
 * The intents that type a text into a range: one value for all, "20 to 80" from the first cue to the last, or "+5", which
 * is added.
 */
export function typed(show: Show, list: CueList, line: string, taken: readonly TakenCue[], looks: Looks): Intent[] {
  const { relative, amounts: text } = typedAmounts(line);
  if (relative) return added(show, list, text, taken, looks);
  const ends = text.split(/\sto\s/i).map(Number);
  const spread = ends.length > 1 && ends.every(Number.isFinite);
  return taken.flatMap(({ cue, columns }, k) => {
    const t = taken.length > 1 ? k / (taken.length - 1) : 0;
    const part = Math.min(ends.length - 2, Math.floor(t * (ends.length - 1)));
    const at = spread ? ends[part]! + (ends[part + 1]! - ends[part]!) * (t * (ends.length - 1) - part) : 0;
    const said = spread ? String(Math.round(at * 1000) / 1000) : text;
    return written(
      list,
      cue,
      columns.flatMap((c): [string, Entry][] => {
        const entry = entryOf(show, c.key, attributeNow(cue, c), said);
        return entry ? [[c.key, entry]] : [];
      }),
      looks,
    );
  });
}

const written = (list: CueList, cue: Cue, values: [string, Entry][], looks: Looks): Intent[] =>
  values.length > 0
    ? [writeCue.of({ list: list.id, cue: cue.id, values: Object.fromEntries(values), unset: [], looks })]
    : [];

/** Takes what a range stores out of its cues. */
export const emptied = (list: CueList, taken: readonly TakenCue[], looks: Looks): Intent[] =>
  taken.flatMap(({ cue, columns }) => {
    const unset = columns.map((c) => c.key).filter((key) => cue.entries[key]);
    return unset.length > 0 ? [writeCue.of({ list: list.id, cue: cue.id, values: {}, unset, looks })] : [];
  });

/** What the first cues of a range store goes on over the ones below, over and over. */
export const filled = (list: CueList, from: readonly TakenCue[], onto: readonly TakenCue[], looks: Looks): Intent[] =>
  onto.flatMap(({ cue, columns }, k) => {
    const source = from[k % from.length]!;
    return written(
      list,
      cue,
      columns.flatMap((c): [string, Entry][] => {
        const entry = source.cue.entries[c.key];
        return entry ? [[c.key, entry]] : [];
      }),
      looks,
    );
  });

/** A block from a spreadsheet, cue for cue. @returns the intents, and how many cells meant nothing. */
export function pasted(
  show: Show,
  list: CueList,
  text: string,
  onto: readonly TakenCue[],
  looks: Looks,
): { intents: Intent[]; left: number } {
  const rows = Papa.parse<string[]>(text.trim(), { delimiter: "\t" }).data.slice(0, MOST_PASTED);
  let left = 0;
  const intents = rows.flatMap((cells, k) => {
    const row = onto[k];
    if (!row) return [];
    return written(
      list,
      row.cue,
      cells.flatMap((cell, c): [string, Entry][] => {
        const column = row.columns[c];
        const bare = cell.replace(/[•↧◇◷⌖[\]]/g, "").trim();
        if (!column || bare === "") return [];
        const entry = entryOf(show, column.key, attributeNow(row.cue, column), bare);
        if (!entry) left += 1;
        return entry ? [[column.key, entry]] : [];
      }),
      looks,
    );
  });
  return { intents, left };
}

/** Does edits as one step. */
export function edit(session: Session, intents: readonly Intent[], says: string): void {
  if (intents.length === 0)
    return session.tell(
      "nothing in that range can take it: a number within its range, full, out, p and a palette's number, or r",
      "refused",
    );
  session.act(intents, intents.length > 1 ? says : undefined);
}
