"use client";

import { MOST_RECENT, REMEMBERED } from "@/ui/base/preferences/registry";
import { useRemembered } from "@/ui/base/preferences/remembered";

/** Ids of the types patched last in this browser, the last one first. */
export function useRecentTypes(): [readonly string[], (id: string) => void] {
  const [recent, setRecent] = useRemembered(REMEMBERED.recentTypes);
  return [recent, (id) => setRecent([id, ...recent.filter((r) => r !== id)].slice(0, MOST_RECENT))];
}
