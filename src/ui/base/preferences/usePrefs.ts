"use client";

import { useCallback, useEffect, useState } from "react";
import type { z } from "@/core/units/zod";

const CHANGED = "bold-comet-pref";

/** Remembers something for whoever shows it now or later. */
export function writePref(key: string, value: unknown): void {
  try {
    localStorage.setItem(key, JSON.stringify(value));
  } catch {
    // Without storage the layout is as it was next time: nothing of the show is lost.
  }
  dispatchEvent(new CustomEvent(CHANGED, { detail: key }));
}

/** Something remembered by this browser about how things are laid out; what does not fit its schema is forgotten. */
export function usePrefs<T>(key: string, schema: z.ZodType<T>, start: T): [T, (next: T) => void] {
  const read = (): T => {
    try {
      const parsed = schema.safeParse(JSON.parse(localStorage.getItem(key) ?? "null"));
      return parsed.success ? parsed.data : start;
    } catch {
      return start;
    }
  };
  const [value, setValue] = useState<T>(read);
  useEffect(() => {
    const look = (event: Event) => (event as CustomEvent<string>).detail === key && setValue(read);
    addEventListener(CHANGED, look);
    return () => removeEventListener(CHANGED, look);
  }, [key]); // oxlint-disable-line react-hooks/exhaustive-deps
  const keep = useCallback(
    (next: T) => {
      setValue(next);
      writePref(key, next);
    },
    [key],
  );
  return [value, keep];
}
