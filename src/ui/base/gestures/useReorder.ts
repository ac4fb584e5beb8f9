"use client";

import { useEffect, useRef, useState, type PointerEvent } from "react";

/** A mouse drags once it has moved so far, pixels; a finger once it has rested so long, so that lists still scroll. */
const MOVED = 5;
const RESTED_MS = 350;
const TREMBLES = 8;

interface Drag {
  id: string;
  from: [number, number];
  pointer: number;
  /** A finger has rested, or a mouse is at it: what moves now is dragged. */
  ready: boolean;
  moved: boolean;
  timer: ReturnType<typeof setTimeout> | undefined;
}

const underneath = (x: number, y: number): string | undefined =>
  (document.elementFromPoint(x, y) as HTMLElement | null)?.closest<HTMLElement>("[data-reorder]")?.dataset.reorder;

/**
 * Things of a list put in another order by dragging them, with mouse, pen or finger.
 * @param onMove what was dragged, and what it was let go over.
 */
export function useReorder(onMove: (id: string, onto: string) => void) {
  const drag = useRef<Drag | null>(null);
  const [seen, setSeen] = useState<{ id: string; over: string | undefined } | null>(null);
  const moved = useRef(onMove);
  moved.current = onMove;

  useEffect(() => {
    const end = () => {
      clearTimeout(drag.current?.timer);
      drag.current = null;
      setSeen(null);
    };
    const move = (event: globalThis.PointerEvent) => {
      const now = drag.current;
      if (!now || event.pointerId !== now.pointer) return;
      const far = Math.hypot(event.clientX - now.from[0], event.clientY - now.from[1]);
      if (!now.ready) return far > TREMBLES ? end() : undefined;
      if (!now.moved && far < MOVED) return;
      now.moved = true;
      setSeen({ id: now.id, over: underneath(event.clientX, event.clientY) });
    };
    const up = (event: globalThis.PointerEvent) => {
      const now = drag.current;
      if (!now || event.pointerId !== now.pointer) return;
      end();
      if (!now.moved) return;
      // What is let go of is not pressed.
      const swallow = (click: MouseEvent) => (click.stopPropagation(), click.preventDefault());
      addEventListener("click", swallow, { capture: true, once: true });
      setTimeout(() => removeEventListener("click", swallow, { capture: true }));
      const onto = underneath(event.clientX, event.clientY);
      if (onto !== undefined && onto !== now.id) moved.current(now.id, onto);
    };
    const still = (event: TouchEvent) => {
      if (drag.current?.ready) event.preventDefault();
    };
    const escape = (event: KeyboardEvent) => {
      if (event.key !== "Escape" || !drag.current?.moved) return;
      event.stopPropagation();
      end();
    };
    addEventListener("pointermove", move);
    addEventListener("pointerup", up);
    addEventListener("pointercancel", end);
    addEventListener("touchmove", still, { passive: false });
    addEventListener("keydown", escape, true);
    return () => {
      clearTimeout(drag.current?.timer);
      removeEventListener("pointermove", move);
      removeEventListener("pointerup", up);
      removeEventListener("pointercancel", end);
      removeEventListener("touchmove", still);
      removeEventListener("keydown", escape, true);
    };
  }, []);

  /** For each thing: what makes it one to drag and to let go over. */
  return (id: string) => ({
    "data-reorder": id,
    "data-dragged": seen?.id === id,
    "data-over": seen !== null && seen.over === id && seen.id !== id,
    onPointerDown(event: PointerEvent<HTMLElement>) {
      const at = event.target as HTMLElement;
      // Menus and dialogs of a thing lie elsewhere on the page.
      if (event.button !== 0 || drag.current || !event.currentTarget.contains(at) || at.closest("input")) return;
      const begun: Drag = {
        id,
        from: [event.clientX, event.clientY],
        pointer: event.pointerId,
        ready: event.pointerType === "mouse",
        moved: false,
        timer: undefined,
      };
      // A finger's events stay with what it touched; those of the list under it are looked up.
      if (!begun.ready) begun.timer = setTimeout(() => (begun.ready = true), RESTED_MS);
      drag.current = begun;
    },
  });
}
