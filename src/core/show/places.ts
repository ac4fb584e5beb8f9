/** The places of pages that hold something that goes. */
import type { Placed } from "./deckSchema";
import type { WorldDraft } from "./intent";
import type { Id } from "./ids";

/** Empties them. */
export function emptyPlaces(world: WorldDraft, what: Placed["what"], id: Id): void {
  for (const page of Object.values(world.show.pages))
    for (const [place, held] of Object.entries(page.places))
      if (held.what === what && held.id === id) delete page.places[place];
}
