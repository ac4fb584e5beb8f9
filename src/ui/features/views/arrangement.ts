/** How a place is arranged in this window: what browsers remember of panels, sheets, columns and filters. */
import type { View } from "@/core/show/deckSchema";
import { kindOf, rememberedOf } from "@/ui/base/preferences/remembered";
import { writePref } from "@/ui/base/preferences/usePrefs";

const MOST = 60;
const LONGEST = 8000;

export const arrangementNow = (place: View["place"]): { place: View["place"]; settings: Record<string, string> } => ({
  place,
  settings: rememberedOf(["arrangement"], MOST, LONGEST),
});

/** Arranges what is on the screen as it was recorded; each setting is checked by who reads it. */
export function arrange({ arrangement }: View): void {
  for (const [key, text] of Object.entries(arrangement)) {
    if (kindOf(key) !== "arrangement") continue;
    try {
      writePref(key, JSON.parse(text));
    } catch {
      // What cannot be read is left as it is.
    }
  }
}
