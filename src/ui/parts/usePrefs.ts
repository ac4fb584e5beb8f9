"use client";

import { useCallback, useState } from "react";
import type { z } from "@/core/units/zod";

/** Something remembered by this browser about how things are laid out; what does not fit its schema is forgotten. */
export function usePrefs<T>(key: string, schema: z.ZodType<T>, start: T): [T, (next: T) => void] {
  const [value, setValue] = useState<T>(() => {
    try {
      const parsed = schema.safeParse(JSON.parse(localStorage.getItem(key) ?? "null"));
      return parsed.success ? parsed.data : start;
    } catch {
      return start;
    }
  });
  const keep = useCallback((next: T) => {
    setValue(next);
    try {
      localStorage.setItem(key, JSON.stringify(next));
    } catch {
      // Without storage the layout is as it was next time: nothing of the show is lost.
    }
  }, [key]);
  return [value, keep];
}
