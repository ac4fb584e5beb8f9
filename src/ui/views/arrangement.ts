/** How a place is arranged in this window: what browsers remember of panels, sheets, columns and filters. */
import type { View } from "@/core/show/deckSchema";
import { writePref } from "../parts/usePrefs";

/** What of a browser is how its panels, sheets and shelves are arranged; nothing else is kept in a view or written by one. */
const ARRANGES: readonly RegExp[] = [
  /^bold-comet-(build|cues|run|check|rig)-(down|below|across)(-[a-z]+)*$/,
  /^bold-comet-(values|patch|palette)-view$/,
  /^bold-comet-(shelf-tab|rig-tab|lists-order|cues-shape|cues-follow)$/,
];
const isArrangement = (key: string): boolean => ARRANGES.some((of) => of.test(key));
const MOST = 60;
const LONGEST = 8000;

export function arrangementNow(place: View["place"]): { place: View["place"]; settings: Record<string, string> } {
  const settings: Record<string, string> = {};
  for (let i = 0; i < localStorage.length && Object.keys(settings).length < MOST; i++) {
    const key = localStorage.key(i)!;
    const value = localStorage.getItem(key) ?? "";
    if (isArrangement(key) && value.length <= LONGEST) settings[key] = value;
  }
  return { place, settings };
}

/** Arranges what is on the screen as it was recorded; each setting is checked by who reads it. */
export function arrange({ arrangement }: View): void {
  for (const [key, text] of Object.entries(arrangement)) {
    if (!isArrangement(key)) continue;
    try {
      writePref(key, JSON.parse(text));
    } catch {
      // What cannot be read is left as it is.
    }
  }
}
