/** The places of pages that hold something that goes. */
import type { Placed } from "./deckSchema";
import type { WorldDraft } from "./change/intent";
import type { Id } from "./ids";
import type { Show } from "./schema";

/** The numbers of the pages that have it, in order. */
export const pagesWith = ({ pages }: Pick<Show, "pages">, what: Placed["what"], id: Id): number[] =>
  Object.values(pages)
    .filter((page) => Object.values(page.places).some((held) => held.what === what && held.id === id))
    .map((page) => page.number)
    .sort((a, b) => a - b);

/** "on page 2", "on pages 1, 3"; empty where it is on none. */
export const pagesText = (pages: readonly number[]): string =>
  pages.length === 0 ? "" : `on ${pages.length === 1 ? "page" : "pages"} ${pages.join(", ")}`;

/** Empties them. */
export function emptyPlaces(world: WorldDraft, what: Placed["what"], id: Id): void {
  for (const page of Object.values(world.show.pages))
    for (const [place, held] of Object.entries(page.places))
      if (held.what === what && held.id === id) delete page.places[place];
}
