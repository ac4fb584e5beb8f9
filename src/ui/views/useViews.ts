"use client";

import { usePathname, useRouter } from "next/navigation";
import { useEffect } from "react";
import { usePlaceHref } from "../shell/placeHref";
import { useSession, useShow } from "../useSession";
import { arrange, arrangementNow } from "./arrangement";

/** Recalls views in this window when they are asked for, and tells who records one how it is arranged. */
export function useViews(): void {
  const session = useSession();
  const router = useRouter();
  const href = usePlaceHref();
  const path = usePathname();
  const shown = useShow((s) => s.shown);
  useEffect(() => {
    session.arranged(() => arrangementNow(path));
    return () => session.arranged(null);
  }, [session, path]);
  useEffect(() => {
    const view = shown.view === undefined ? undefined : session.store.getState().world.show.views[shown.view];
    if (!view) return;
    arrange(view);
    router.push(href(view.place));
  }, [shown]); // oxlint-disable-line react-hooks/exhaustive-deps
}
