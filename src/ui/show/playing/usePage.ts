"use client";

import { useEffect } from "react";
import type { Page } from "@/core/show/deckSchema";
import { pagesByNumber } from "@/core/show/world";
import { REMEMBERED } from "@/ui/base/preferences/registry";
import { useRemembered } from "@/ui/base/preferences/remembered";
import { useShow } from "@/ui/show/useSession";

/** The page of the deck this window shows; undefined while the show has none. */
export function usePage(): [page: Page | undefined, pages: readonly Page[], choose: (id: string) => void] {
  const pages = pagesByNumber(useShow((s) => s.world.show));
  const [chosen, choose] = useRemembered(REMEMBERED.page);
  const shown = useShow((s) => s.shown);
  useEffect(() => {
    if (shown.page !== undefined) choose(shown.page);
  }, [shown, choose]);
  return [pages.find((p) => p.id === chosen) ?? pages[0], pages, choose];
}
