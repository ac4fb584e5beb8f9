/** A go pressed twice by mistake counts once. */
import { z } from "@/core/units/zod";
import type { Session } from "@/session/state";
import { usePrefs } from "@/ui/base/preferences/usePrefs";

export const GUARD = "bold-comet-go-guard";
/** A second press within this counts as the same, milliseconds. */
export const GUARD_MS = 150;
const GuardSchema = z.number().int().min(0).max(2000);

const last = new Map<string, number>();

/** How long a second press counts as the first, milliseconds. */
export const useGuard = () => usePrefs(GUARD, GuardSchema, GUARD_MS);

function guard(): number {
  try {
    const parsed = GuardSchema.safeParse(JSON.parse(localStorage.getItem(GUARD) ?? "null"));
    return parsed.success ? parsed.data : GUARD_MS;
  } catch {
    return GUARD_MS;
  }
}

/** Gives go to lists; one that has just had one from a hand is left alone. */
export function goOnce(session: Session, lists: readonly string[]): void {
  const now = performance.now();
  for (const list of lists) {
    if (now - (last.get(list) ?? -Infinity) < guard()) continue;
    last.set(list, now);
    void session.event({ kind: "go", list });
  }
}
