"use client";

import { useMemo } from "react";
import type { Fixture, Show } from "@/core/show/schema";
import { fixturesByNumber } from "@/core/show/world";
import { inSections, plainLines, sortedRows, startView, type Line, type SheetView } from "@/ui/base/sheet/view";
import { REMEMBERED } from "@/ui/base/preferences/registry";
import { useRemembered } from "@/ui/base/preferences/remembered";
import { COLUMNS, columnOf } from "./columns";

/** Columns, their order and widths, sorting and grouping: remembered. */
export function usePatchView(): [SheetView, (next: SheetView) => void] {
  const [view, setView] = useRemembered(REMEMBERED.patchView);
  return [view ?? START, setView];
}

const START = startView(COLUMNS, false);

/** What a column is sorted by; unpatched fixtures come last. */
const keyOf = (show: Show) => (f: Fixture, id: string) => {
  const [address] = f.addresses;
  if (id === "addresses") return address ? address.universe * 512 + address.slot : Infinity;
  const column = columnOf(id)!;
  return column.kind === "number" ? Number(column.text(f, show)) : column.text(f, show).toLowerCase();
};

/** Fixtures that match the filter, sorted; with titles between them where they are grouped by type. */
export function linesOf(show: Show, view: SheetView, filter: string): Line<Fixture>[] {
  const words = filter.toLowerCase().split(/\s+/).filter(Boolean);
  const text = (f: Fixture) =>
    `${f.number} ${f.name} ${show.types[f.type]!.maker} ${show.types[f.type]!.model} ${f.mode} ${f.addresses.map((a) => `${a.universe}:${a.slot}`).join(" ")} ${f.note}`.toLowerCase();
  const matching = fixturesByNumber(show).filter((f) => words.length === 0 || words.every((w) => text(f).includes(w)));
  const rows = sortedRows({ columns: COLUMNS, rows: matching, view, keyOf: keyOf(show) });
  return view.byType
    ? inSections(
        rows,
        (f) => f.type,
        (type) => `${show.types[type]!.maker} ${show.types[type]!.model}`,
      )
    : plainLines(rows);
}

export function useLines(show: Show, view: SheetView, filter: string) {
  return useMemo(() => linesOf(show, view, filter), [show.fixtures, show.types, view, filter]); // oxlint-disable-line react-hooks/exhaustive-deps
}
