"use client";

import { useEffect, useRef } from "react";

/** Closes something open that does not hold the focus: Escape goes to it and to nothing else. */
export function useEscape(isOpen: boolean, close: () => void): void {
  const latest = useRef(close);
  useEffect(() => void (latest.current = close));
  useEffect(() => {
    if (!isOpen) return;
    const key = (event: KeyboardEvent) => {
      if (event.key !== "Escape" || event.shiftKey) return;
      event.stopPropagation();
      latest.current();
    };
    addEventListener("keydown", key, true);
    return () => removeEventListener("keydown", key, true);
  }, [isOpen]);
}
