/** What typing, pasting and filling do to a range of cells: plain functions over rows and columns. */
import Papa from "papaparse";
import type { FixtureChange } from "@/core/patch/intents";
import type { Fixture, Show } from "@/core/show/schema";
import { normal, type Range } from "@/ui/base/sheet/range";
import type { Column } from "./columns";

export type Changes = Map<string, FixtureChange>;
export interface Put {
  changes: Changes;
  /** Why some of it could not be done. */
  trouble: string | undefined;
}

const merge = (changes: Changes, fixtures: readonly Fixture[], made: readonly FixtureChange[]): void =>
  fixtures.forEach((f, k) => changes.set(f.id, { ...changes.get(f.id), ...made[k] }));

/** A text typed over rows of one column. */
export function typeInto(text: string, column: Column, fixtures: readonly Fixture[], show: Show): Put {
  const changes: Changes = new Map();
  if (!column.put) return { changes, trouble: `${column.title} is not changed here` };
  const made = column.put(text, fixtures, show);
  if (typeof made === "string") return { changes, trouble: made };
  merge(changes, fixtures, made);
  return { changes, trouble: undefined };
}

/** The cells of a range as text for a spreadsheet. */
export const copyCells = (fixtures: readonly Fixture[], columns: readonly Column[], show: Show): string =>
  Papa.unparse(
    fixtures.map((f) => columns.map((c) => c.text(f, show))),
    { delimiter: "\t", newline: "\n", quotes: false },
  );

/**
 * Cells from a spreadsheet, laid down from a range's first cell. One cell fills the whole range, so that
 * a start counts on; a block goes as far as there are rows and columns.
 */
export function pasteCells(
  text: string,
  range: Range,
  rows: readonly Fixture[],
  columns: readonly Column[],
  show: Show,
): Put {
  const block = Papa.parse<string[]>(text.replace(/\r?\n$/, ""), { delimiter: "\t" }).data;
  const { r1, c1, r2, c2 } = normal(range);
  const changes: Changes = new Map();
  const trouble: string[] = [];
  if (block.length === 1 && block[0]!.length === 1) {
    for (let c = c1; c <= c2; c++) {
      const put = typeInto(block[0]![0]!, columns[c]!, rows.slice(r1, r2 + 1), show);
      put.changes.forEach((change, id) => changes.set(id, { ...changes.get(id), ...change }));
      if (put.trouble) trouble.push(put.trouble);
    }
    return { changes, trouble: trouble[0] };
  }
  block.forEach((cells, i) => {
    const fixture = rows[r1 + i];
    if (!fixture) return;
    cells.forEach((cell, k) => {
      const column = columns[c1 + k];
      if (!column?.put || cell === column.text(fixture, show)) return;
      const made = column.put(cell, [{ ...fixture, ...changes.get(fixture.id) }], show);
      if (typeof made === "string") trouble.push(made);
      else merge(changes, [fixture], made);
    });
  });
  if (block.length > rows.length - r1)
    trouble.push(`${block.length - (rows.length - r1)} pasted rows have no fixture to go to`);
  return {
    changes,
    trouble: trouble[0] && trouble.length > 1 ? `${trouble[0]} (and ${trouble.length - 1} more)` : trouble[0],
  };
}

/** What a range's cells become when its lower edge is dragged on to a row: numbers and addresses count on, evenly spaced numbers go on evenly, all else repeats. */
export function fillDown(
  range: Range,
  to: number,
  rows: readonly Fixture[],
  columns: readonly Column[],
  show: Show,
): Put {
  const { r1, r2, c1, c2 } = normal(range);
  const changes: Changes = new Map();
  const source = rows.slice(r1, r2 + 1);
  const target = rows.slice(r2 + 1, to + 1);
  let trouble: string | undefined;
  for (const column of columns.slice(c1, c2 + 1)) {
    if (!column.put) continue;
    const counts = column.id === "number" || column.id === "addresses";
    if (counts && column.text(source[0]!, show) !== "") {
      const made = column.put(column.text(source[0]!, show).split(" ")[0]!, [...source, ...target], show);
      if (typeof made !== "string") merge(changes, target, made.slice(source.length));
      continue;
    }
    const numbers =
      column.kind === "number" && source.length > 1 ? source.map((f) => Number(column.text(f, show))) : [];
    const step = numbers.length > 1 ? numbers[1]! - numbers[0]! : 0;
    const even = numbers.length > 1 && numbers.every((n, i) => i === 0 || Math.abs(n - numbers[i - 1]! - step) < 1e-6);
    target.forEach((fixture, i) => {
      const text = even
        ? String(Math.round((numbers.at(-1)! + step * (i + 1)) * 1000) / 1000)
        : column.text(source[i % source.length]!, show);
      const put = typeInto(text, column, [fixture], show);
      trouble ??= put.trouble;
      put.changes.forEach((change, id) => changes.set(id, { ...changes.get(id), ...change }));
    });
  }
  return { changes, trouble };
}
