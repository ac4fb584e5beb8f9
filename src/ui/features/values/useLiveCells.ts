"use client";

import { useEffect, useRef, type RefObject } from "react";
import type { Half } from "@/engine/frame";
import { halfOf, type StageView } from "@/engine/view";
import { seenByHands } from "@/ui/show/blind";
import { useSession, useStageFrame } from "@/ui/show/useSession";
import { cellOf, type Layer } from "./cells";

/** Writes what is live into the cells in sight, on frames on which the stage or what is held is new. React draws none of it. */
export function useLiveCells(sheet: RefObject<HTMLElement | null>, layer: Layer, names: boolean): void {
  const session = useSession();
  const waiting = useRef(0);
  const paint = (half: Half, view: StageView) => {
    const { world } = session.store.getState();
    for (const element of sheet.current?.querySelectorAll<HTMLElement>("[data-attribute]") ?? []) {
      const { id, attribute } = element.dataset as { id: string; attribute: string };
      const { text, form } = cellOf(world, half, view, id, attribute, layer, names);
      if (element.textContent !== text) element.textContent = text;
      if (element.dataset.form !== form) element.dataset.form = form;
    }
  };
  const latest = useRef(paint);
  useEffect(() => {
    latest.current = paint;
  });
  useStageFrame(paint, `${layer} ${names}`, seenByHands);
  useEffect(() => {
    const soon = () => {
      waiting.current ||= requestAnimationFrame(() => {
        waiting.current = 0;
        const { view: live } = session.store.getState();
        const view = live && seenByHands(live);
        if (view) latest.current(halfOf(view), view);
      });
    };
    soon();
    const stop = session.store.subscribe((now, before) => now.world !== before.world && soon());
    // Rows that come into sight are empty until they are written.
    const seen = new MutationObserver((changes) => {
      if (changes.some((c) => c.type === "childList" && [...c.addedNodes].some((n) => n instanceof HTMLElement)))
        soon();
    });
    if (sheet.current) seen.observe(sheet.current, { childList: true, subtree: true });
    return () => {
      stop();
      seen.disconnect();
      cancelAnimationFrame(waiting.current);
      waiting.current = 0;
    };
  }, [session, sheet]);
}
