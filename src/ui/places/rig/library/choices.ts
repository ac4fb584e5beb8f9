/** What the library browser shows: makers, models and modes that a search and a footprint leave. */
import { LIBRARY, libraryType } from "@/core/fixture/library/library";
import { footprint, type FixtureType, type Mode } from "@/core/fixture/type";
import type { Show } from "@/core/show/schema";

export interface Shelf {
  title: string;
  types: FixtureType[];
}

/** All types: the show's own version of one wins over the library's. */
export const allTypes = (show: Pick<Show, "types">): FixtureType[] => [
  ...Object.values(show.types),
  ...LIBRARY.filter((t) => !show.types[t.id]),
];

/** A type that did not ship with the product. */
export const isOwn = (type: FixtureType): boolean => libraryType(type.id) === undefined;

const text = (type: FixtureType): string =>
  `${type.maker} ${type.model} ${type.id} ${type.kind} ${type.modes.map((m) => m.name).join(" ")}`.toLowerCase();
export const modesLeft = (type: FixtureType, slots: number | null): Mode[] =>
  type.modes.filter((m) => slots === null || footprint(m) === slots);

/** Shelves in order: in this show, recently patched, then each maker. Empty ones are left out. */
export function shelves(
  show: Pick<Show, "types">,
  recent: readonly string[],
  search: string,
  slots: number | null,
): Shelf[] {
  const words = search.toLowerCase().split(/\s+/).filter(Boolean);
  const left = allTypes(show).filter((t) => words.every((w) => text(t).includes(w)) && modesLeft(t, slots).length > 0);
  const sorted = (types: FixtureType[]) => types.sort((a, b) => a.model.localeCompare(b.model, "en"));
  const makers = [...new Set(left.map((t) => t.maker))].sort((a, b) => a.localeCompare(b, "en"));
  return [
    { title: "In this show", types: sorted(left.filter((t) => show.types[t.id])) },
    { title: "Recently patched", types: recent.flatMap((id) => left.find((t) => t.id === id) ?? []) },
    ...makers.map((maker) => ({ title: maker || "No maker", types: sorted(left.filter((t) => t.maker === maker)) })),
  ].filter((shelf) => shelf.types.length > 0);
}

/** The first entry that begins with what was typed, from the present one on; -1 for none. */
export function jumpTo(names: readonly string[], typed: string, from: number): number {
  const begins = names.map((n) => n.toLowerCase().startsWith(typed.toLowerCase()));
  const next = begins.findIndex((b, i) => b && (typed.length === 1 ? i > from : i >= from));
  return next >= 0 ? next : begins.indexOf(true);
}
