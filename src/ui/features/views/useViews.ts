"use client";

import { useEffect } from "react";
import { usePlace, usePlaces } from "@/ui/show/addresses/places";
import { useSession, useShow } from "@/ui/show/useSession";
import { arrange, arrangementNow } from "./arrangement";

/** Recalls views in this window when they are asked for, and tells who records one how it is arranged. */
export function useViews(): void {
  const session = useSession();
  const { go } = usePlaces();
  const place = usePlace();
  const shown = useShow((s) => s.shown);
  useEffect(() => {
    session.arranged(() => arrangementNow(place));
    return () => session.arranged(null);
  }, [session, place]);
  useEffect(() => {
    const view = shown.view === undefined ? undefined : session.store.getState().world.show.views[shown.view];
    if (!view) return;
    arrange(view);
    go(view.place);
  }, [shown]); // oxlint-disable-line react-hooks/exhaustive-deps
}
