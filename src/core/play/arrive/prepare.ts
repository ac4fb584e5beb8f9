/** What a first go would otherwise wait for, done beforehand. */
import { lifeOf, usedIn } from "../../cue/life";
import { trackingOf } from "../../cue/tracking";
import type { Show } from "../../show/schema";
import { cuesOf } from "../../show/world";
import { movesDark } from "./black/move";

/** Works out how every list tracks: an edit changes only what it touches. */
export function prepareLists(show: Show): void {
  for (const list of Object.values(show.lists)) trackingOf(list, show);
}

/** What a first go would have to work out of where dark fixtures move, fixture by fixture: done between ticks, it keeps none waiting. */
export function* preparing(show: Show): Generator<void> {
  for (const list of Object.values(show.lists)) {
    const some = list.blackMoves || cuesOf(list).some((c) => c.blackMoves || c.blackMovesOf);
    if (!some || !movesDark(list)) continue;
    for (const fixture of usedIn(show, trackingOf(list, show))) {
      lifeOf(show, list, fixture);
      yield;
    }
  }
}
