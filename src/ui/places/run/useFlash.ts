"use client";

import { useCallback, useEffect, useRef } from "react";
import { useSession } from "@/ui/show/useSession";

/**
 * What lasts while it is held here. Where the hand cannot let go any more (the button is gone, the window leaves or is
 * covered by another), it is let go of.
 * @param change begins it, or ends it.
 */
export function useWhileHeld(change: (on: boolean) => void): (on: boolean) => void {
  const holds = useRef(false);
  const latest = useRef(change);
  useEffect(() => void (latest.current = change));
  const set = useCallback((on: boolean) => {
    if (holds.current === on) return;
    holds.current = on;
    latest.current(on);
  }, []);
  useEffect(() => {
    const end = () => set(false);
    const events = ["blur", "pagehide"] as const;
    for (const event of events) addEventListener(event, end);
    return () => {
      for (const event of events) removeEventListener(event, end);
      end();
    };
  }, [set]);
  return set;
}

/** Flashes a list while it is held here. */
export function useFlash(list: string): (on: boolean) => void {
  const session = useSession();
  return useWhileHeld((on) => void session.event({ kind: "flash", list, on }));
}
