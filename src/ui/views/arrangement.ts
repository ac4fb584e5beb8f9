/** How a place is arranged in this window: what browsers remember of panels, sheets, columns and filters. */
import type { View } from "@/core/show/deckSchema";
import { writePref } from "../parts/usePrefs";

/** What is the browser's own and no arrangement. */
const NOT = /keys$|-guard$|-dim$|-lines$|consent|browser|backup|recent/;
const BEGINS = "bold-comet-";
const MOST = 60;
const LONGEST = 8000;

export function arrangementNow(place: View["place"]): { place: View["place"]; settings: Record<string, string> } {
  const settings: Record<string, string> = {};
  for (let i = 0; i < localStorage.length && Object.keys(settings).length < MOST; i++) {
    const key = localStorage.key(i)!;
    const value = localStorage.getItem(key) ?? "";
    if (key.startsWith(BEGINS) && !NOT.test(key) && value.length <= LONGEST) settings[key] = value;
  }
  return { place, settings };
}

/** Arranges what is on the screen as it was recorded; each setting is checked by who reads it. */
export function arrange({ arrangement }: View): void {
  for (const [key, text] of Object.entries(arrangement)) {
    if (!key.startsWith(BEGINS) || NOT.test(key)) continue;
    try {
      writePref(key, JSON.parse(text));
    } catch {
      // What cannot be read is left as it is.
    }
  }
}
