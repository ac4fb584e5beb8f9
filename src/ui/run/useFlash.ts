"use client";

import { useCallback, useEffect, useRef } from "react";
import { useSession } from "../useSession";

/**
 * Flashes a list while it is held here. Where the hand cannot let go any more (the button is gone, the window leaves or
 * is covered by another), it is let go of.
 */
export function useFlash(list: string): (on: boolean) => void {
  const session = useSession();
  const holds = useRef(false);
  const flash = useCallback(
    (on: boolean) => {
      if (holds.current === on) return;
      holds.current = on;
      void session.event({ kind: "flash", list, on });
    },
    [session, list],
  );
  useEffect(() => {
    const end = () => flash(false);
    const events = ["blur", "pagehide"] as const;
    for (const event of events) addEventListener(event, end);
    return () => {
      for (const event of events) removeEventListener(event, end);
      end();
    };
  }, [flash]);
  return flash;
}
