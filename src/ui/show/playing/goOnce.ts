/** A go pressed twice by mistake counts once. */
import type { Session } from "@/session/state";
import { REMEMBERED } from "@/ui/base/preferences/registry";
import { recall, useRemembered } from "@/ui/base/preferences/remembered";

const last = new Map<string, number>();

/** How long a second press counts as the first, milliseconds. */
export const useGuard = () => useRemembered(REMEMBERED.goGuard);

/** Gives go to lists; one that has just had one from a hand is left alone. */
export function goOnce(session: Session, lists: readonly string[]): void {
  const now = performance.now();
  for (const list of lists) {
    if (now - (last.get(list) ?? -Infinity) < recall(REMEMBERED.goGuard)) continue;
    last.set(list, now);
    void session.event({ kind: "go", list });
  }
}
