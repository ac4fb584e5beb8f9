/** How a place is arranged in this window: what browsers remember of panels, sheets, columns and filters. */
import type { View } from "@/core/show/deckSchema";
import { rememberedOf, takeOver } from "@/ui/base/preferences/remembered";

const MOST = 60;
const LONGEST = 8000;

export const arrangementNow = (place: View["place"]): { place: View["place"]; settings: Record<string, string> } => ({
  place,
  settings: rememberedOf(["arrangement"], MOST, LONGEST),
});

/** Arranges what is on the screen as it was recorded; what does not fit is left as it is. */
export function arrange({ arrangement }: View): void {
  for (const [key, text] of Object.entries(arrangement)) {
    try {
      takeOver(["arrangement"], key, JSON.parse(text));
    } catch {
      // What cannot be read is left as it is.
    }
  }
}
