/** Columns of a sheet as a person likes them, and rows in order: by @tanstack/table-core. */
import {
  columnOrderingFeature,
  columnSizingFeature,
  columnVisibilityFeature,
  constructTable,
  createSortedRowModel,
  rowSortingFeature,
  tableFeatures,
} from "@tanstack/table-core";
import { storeReactivityBindings } from "@tanstack/table-core/store-reactivity-bindings";
import type { SheetView } from "@/ui/base/preferences/registry";
import { grouped } from "@/core/units/grouped";

export type { SheetView };
export interface SheetColumn {
  id: string;
  title: string;
  /** What it is, in a few words. */
  hint: string;
  width: number;
  kind: "text" | "number" | "yes" | "live";
  /** Out of sight until asked for. */
  hidden?: boolean;
  /** Always there, first. */
  fixed?: boolean;
}

export const startView = (columns: readonly SheetColumn[], byType: boolean): SheetView => ({
  order: columns.map((c) => c.id),
  hidden: columns.filter((c) => c.hidden).map((c) => c.id),
  widths: {},
  sort: null,
  byType,
});

const features = tableFeatures({
  coreReactivityFeature: storeReactivityBindings(),
  columnOrderingFeature,
  columnSizingFeature,
  columnVisibilityFeature,
  rowSortingFeature,
  sortedRowModel: createSortedRowModel(),
});

type Key = string | number;

interface Made<R> {
  columns: readonly SheetColumn[];
  rows: readonly R[];
  view: SheetView;
  keyOf(row: R, column: string): Key;
}

const tableOf = <R extends object>({ columns, rows, view, keyOf }: Made<R>) =>
  constructTable<typeof features, R>({
    features,
    data: rows,
    columns: columns.map((c) => ({
      id: c.id,
      size: c.width,
      minSize: 34,
      maxSize: 800,
      accessorFn: (row: R) => keyOf(row, c.id),
      sortFn: (a: { getValue(id: string): unknown }, b: { getValue(id: string): unknown }, id: string) => {
        const [x, y] = [a.getValue(id) as Key, b.getValue(id) as Key];
        return x < y ? -1 : x > y ? 1 : 0;
      },
    })),
    initialState: {
      columnOrder: view.order,
      columnSizing: view.widths,
      columnVisibility: Object.fromEntries(
        columns.filter((c) => !c.fixed && view.hidden.includes(c.id)).map((c) => [c.id, false]),
      ),
      sorting:
        view.sort && columns.some((c) => c.id === view.sort!.column)
          ? [{ id: view.sort.column, desc: view.sort.down }]
          : [],
    },
  });

/** All columns in their order, fixed ones first; those that are new to what is remembered come last. */
export function orderedColumns<C extends SheetColumn>(columns: readonly C[], view: SheetView): C[] {
  const byId = new Map(columns.map((c) => [c.id, c]));
  const ordered = tableOf({ columns, rows: [], view, keyOf: () => 0 })
    .getAllLeafColumns()
    .map((c) => byId.get(c.id)!);
  return [...ordered.filter((c) => c.fixed), ...ordered.filter((c) => !c.fixed)];
}

/** The columns in sight, in their order, each at the width it was given. */
export function shownColumns<C extends SheetColumn>(columns: readonly C[], view: SheetView): C[] {
  const table = tableOf({ columns, rows: [], view, keyOf: () => 0 });
  return orderedColumns(columns, view).flatMap((c) => {
    const column = table.getColumn(c.id)!;
    return column.getIsVisible() ? [{ ...c, width: column.getSize() }] : [];
  });
}

/** Rows by the sorted column, equal ones in the order given. */
export const sortedRows = <R extends object>(made: Made<R>): readonly R[] =>
  made.view.sort
    ? tableOf(made)
        .getSortedRowModel()
        .rows.map((r) => r.original)
    : made.rows;

/** A line of a sheet: a row with its place among all rows, or the head of a section. */
export type Line<R> = { row: R; index: number } | { section: string; title: string; count: number };

/** Rows under a head for each section, those of folded ones out of sight; places count through what is in sight. */
export function inSections<R>(
  rows: readonly R[],
  sectionOf: (row: R) => string,
  titleOf: (section: string) => string,
  folded: ReadonlySet<string> = new Set(),
): Line<R>[] {
  let index = 0;
  return [...grouped(rows, sectionOf)].flatMap(([section, own]): Line<R>[] => [
    { section, title: titleOf(section), count: own.length },
    ...(folded.has(section) ? [] : own.map((row) => ({ row, index: index++ }))),
  ]);
}

export const plainLines = <R>(rows: readonly R[]): Line<R>[] => rows.map((row, index) => ({ row, index }));
export const rowsIn = <R>(lines: readonly Line<R>[]): R[] => lines.flatMap((l) => ("row" in l ? [l.row] : []));

/** The rows of a sheet, and which line each of them is. */
export interface Rows<R> {
  count: number;
  at(row: number): R | undefined;
  line(row: number): number;
}

/** Of thousands without sections nothing is gone through. */
export function rowsOf<R>(lines: readonly Line<R>[]): Rows<R> {
  const last = lines.at(-1);
  if (last && "row" in last && last.index === lines.length - 1)
    return { count: lines.length, at: (row) => (lines[row] as { row: R } | undefined)?.row, line: (row) => row };
  const [all, of] = [rowsIn(lines), linesOfRows(lines)];
  return { count: all.length, at: (row) => all[row], line: (row) => of[row] ?? 0 };
}

/** Which line each row is. */
function linesOfRows(lines: readonly Line<unknown>[]): number[] {
  const made: number[] = [];
  lines.forEach((line, k) => "row" in line && made.push(k));
  return made;
}
