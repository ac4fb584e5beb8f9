"use client";

import { useRef, type KeyboardEvent, type PointerEvent, type WheelEvent } from "react";

interface Scrub {
  /** What one pixel changes. */
  perPixel: number;
  /** Called with each change; `first` begins a new step of undo. */
  onChange(by: number, first: boolean): void;
  /** A press without a drag. */
  onPress?(): void;
}

const STILL = 3;
const PAUSE_MS = 700;

/** Scrubbing on a number: drag, wheel, arrows; shift is ten times finer. */
export function useScrub({ perPixel, onChange, onPress }: Scrub) {
  const drag = useRef<{ x: number; moved: boolean } | null>(null);
  const lastNudge = useRef(0);
  const fine = (event: { shiftKey: boolean }) => (event.shiftKey ? 0.1 : 1);
  const nudge = (by: number, stamp: number) => {
    onChange(by, stamp - lastNudge.current > PAUSE_MS);
    lastNudge.current = stamp;
  };
  return {
    onPointerDown(event: PointerEvent<HTMLElement>) {
      if (event.button !== 0) return;
      event.currentTarget.setPointerCapture(event.pointerId);
      drag.current = { x: event.clientX, moved: false };
    },
    onPointerMove(event: PointerEvent<HTMLElement>) {
      const now = drag.current;
      if (!now) return;
      const by = event.clientX - now.x;
      if (!now.moved && Math.abs(by) < STILL) return;
      onChange(by * perPixel * fine(event), !now.moved);
      drag.current = { x: event.clientX, moved: true };
    },
    onPointerUp() {
      if (drag.current && !drag.current.moved) onPress?.();
      drag.current = null;
    },
    onPointerCancel() {
      drag.current = null;
    },
    onWheel(event: WheelEvent<HTMLElement>) {
      nudge(-Math.sign(event.deltaY || event.deltaX) * perPixel * 4 * fine(event), event.timeStamp);
    },
    onKeyDown(event: KeyboardEvent<HTMLElement>) {
      const way = { ArrowUp: 1, ArrowRight: 1, ArrowDown: -1, ArrowLeft: -1 }[event.key];
      if (way === undefined) return;
      event.preventDefault();
      nudge(way * perPixel * 2 * fine(event), event.timeStamp);
    },
  };
}
