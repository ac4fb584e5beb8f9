/** What a first go would otherwise wait for, done beforehand. */
import { trackingOf } from "../cue/tracking";
import type { Show } from "../show/schema";

/** Works out how every list tracks: an edit changes only what it touches. */
export function prepareLists(show: Show): void {
  for (const list of Object.values(show.lists)) trackingOf(list, show);
}
