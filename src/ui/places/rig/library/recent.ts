"use client";

import { z } from "@/core/units/zod";
import { usePrefs } from "@/ui/base/preferences/usePrefs";

const MOST = 8;

/** Ids of the types patched last in this browser, the last one first. */
export function useRecentTypes(): [readonly string[], (id: string) => void] {
  const [recent, setRecent] = usePrefs("bold-comet-recent-types", z.array(z.string()).max(MOST), []);
  return [recent, (id) => setRecent([id, ...recent.filter((r) => r !== id)].slice(0, MOST))];
}
