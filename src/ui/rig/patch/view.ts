"use client";

import { useMemo } from "react";
import { z } from "@/core/units/zod";
import type { Fixture, Show } from "@/core/show/schema";
import { fixturesByNumber } from "@/core/show/world";
import { usePrefs } from "../../parts/usePrefs";
import { COLUMNS, columnOf, type Column } from "./columns";

const ViewSchema = z.object({
  order: z.array(z.string()).max(100),
  hidden: z.array(z.string()).max(100),
  widths: z.record(z.string(), z.number().min(30).max(800)),
  sort: z.object({ column: z.string(), down: z.boolean() }).nullable(),
  byType: z.boolean(),
});
export type View = z.infer<typeof ViewSchema>;

const START: View = {
  order: COLUMNS.map((c) => c.id),
  hidden: COLUMNS.filter((c) => c.hidden).map((c) => c.id),
  widths: {},
  sort: null,
  byType: false,
};

/** Columns, their order and widths, sorting and grouping: remembered. */
export const usePatchView = (): [View, (next: View) => void] => usePrefs("bold-comet-patch-view", ViewSchema, START);

/** All columns in their order; those that are new to what is remembered come last. */
export const orderedColumns = (view: View): Column[] => [
  ...view.order.flatMap((id) => columnOf(id) ?? []),
  ...COLUMNS.filter((c) => !view.order.includes(c.id)),
];

/** A line of the table: a fixture, or the title of a type. */
export type Line = { fixture: Fixture; index: number } | { title: string; count: number };

/** Fixtures that match the filter, sorted; with titles between them where they are grouped by type. */
export function linesOf(show: Show, view: View, filter: string): { fixtures: Fixture[]; lines: Line[] } {
  const words = filter.toLowerCase().split(/\s+/).filter(Boolean);
  const column = view.sort ? columnOf(view.sort.column) : undefined;
  const text = (f: Fixture) =>
    `${f.number} ${f.name} ${show.types[f.type]!.maker} ${show.types[f.type]!.model} ${f.mode} ${f.addresses.map((a) => `${a.universe}:${a.slot}`).join(" ")} ${f.note}`.toLowerCase();
  let fixtures = fixturesByNumber(show).filter((f) => words.length === 0 || words.every((w) => text(f).includes(w)));
  if (column) {
    const keyed = fixtures.map((f) => ({
      f,
      key:
        column.id === "addresses"
          ? addressKey(f)
          : column.kind === "number"
            ? Number(column.text(f, show))
            : column.text(f, show).toLowerCase(),
    }));
    keyed.sort((a, b) => (a.key < b.key ? -1 : a.key > b.key ? 1 : a.f.number - b.f.number));
    if (view.sort!.down) keyed.reverse();
    fixtures = keyed.map((k) => k.f);
  }
  if (!view.byType) return { fixtures, lines: fixtures.map((fixture, index) => ({ fixture, index })) };
  const groups = new Map<string, Fixture[]>();
  for (const f of fixtures) groups.set(f.type, [...(groups.get(f.type) ?? []), f]);
  const grouped = [...groups.values()].flat();
  let index = 0;
  const lines = [...groups].flatMap(([type, own]): Line[] => [
    { title: `${show.types[type]!.maker} ${show.types[type]!.model}`, count: own.length },
    ...own.map((fixture) => ({ fixture, index: index++ })),
  ]);
  return { fixtures: grouped, lines };
}
/** Unpatched ones last. */
const addressKey = (f: Fixture): number =>
  f.addresses[0] ? f.addresses[0].universe * 512 + f.addresses[0].slot : Infinity;

export function useLines(show: Show, view: View, filter: string) {
  return useMemo(() => linesOf(show, view, filter), [show.fixtures, show.types, view, filter]); // eslint-disable-line react-hooks/exhaustive-deps
}
