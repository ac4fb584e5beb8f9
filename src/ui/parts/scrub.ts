"use client";

import { useEffect, useRef, type KeyboardEvent, type PointerEvent, type WheelEvent } from "react";

interface Scrub {
  /** What one pixel changes, and one press of an arrow. */
  perPixel: number;
  perKey?: number;
  /** Called with each change; `first` begins a new step of undo, `fine` is with shift. */
  onChange(by: number, first: boolean, fine: boolean): void;
  /** A press without a drag. */
  onPress?(): void;
}

const STILL = 3;
const PAUSE_MS = 700;

/** A number takes the wheel only once it has the focus: a list scrolled under the pointer must not change what it shows. */
const hasFocus = (element: Element): boolean => element.contains(document.activeElement);

/** Keeps the page still while the wheel turns a number. Once for the whole app. */
export function useStillPage(): void {
  useEffect(() => {
    const hold = (event: globalThis.WheelEvent) => {
      const number = (event.target as Element | null)?.closest?.("[data-scrub]");
      if (number && hasFocus(number)) event.preventDefault();
    };
    document.addEventListener("wheel", hold, { passive: false });
    return () => document.removeEventListener("wheel", hold);
  }, []);
}

/** Scrubbing on a number: drag, and while it has the focus wheel and arrows; shift is ten times finer. */
export function useScrub({ perPixel, perKey = perPixel * 2, onChange, onPress }: Scrub) {
  const drag = useRef<{ x: number; moved: boolean } | null>(null);
  const lastNudge = useRef(0);
  const fine = (event: { shiftKey: boolean }) => (event.shiftKey ? 0.1 : 1);
  const nudge = (by: number, { timeStamp, shiftKey }: { timeStamp: number; shiftKey: boolean }) => {
    onChange(by, timeStamp - lastNudge.current > PAUSE_MS, shiftKey);
    lastNudge.current = timeStamp;
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
      onChange(by * perPixel * fine(event), !now.moved, event.shiftKey);
      drag.current = { x: event.clientX, moved: true };
    },
    onPointerUp() {
      if (drag.current && !drag.current.moved) onPress?.();
      drag.current = null;
    },
    onPointerCancel() {
      drag.current = null;
    },
    "data-scrub": true,
    onWheel(event: WheelEvent<HTMLElement>) {
      if (!hasFocus(event.currentTarget)) return;
      nudge(-Math.sign(event.deltaY || event.deltaX) * perPixel * 4 * fine(event), event);
    },
    onKeyDown(event: KeyboardEvent<HTMLElement>) {
      const way = { ArrowUp: 1, ArrowRight: 1, ArrowDown: -1, ArrowLeft: -1 }[event.key];
      if (way === undefined) return;
      event.preventDefault();
      nudge(way * perKey * fine(event), event);
    },
  };
}

interface NumberScrub {
  value: number;
  min?: number;
  max?: number;
  /** The smallest change; with shift a tenth of it, where that is a number too. */
  step?: number;
  /** `first` begins a new step of undo. */
  onSet(value: number, first: boolean): void;
  onPress?(): void;
}

/** A value after a change, within its range and on its steps. */
export function scrubbed(
  value: number,
  { min = -Infinity, max = Infinity, step = 1 }: Pick<NumberScrub, "min" | "max" | "step">,
  fine = false,
): number {
  const grain = fine && step < 1 ? step / 10 : step;
  return Number(Math.min(max, Math.max(min, Math.round(value / grain) * grain)).toFixed(6));
}

/** Scrubbing on a number that is set as a whole: small movements add up until they make a step. */
export function useNumberScrub({ value, onSet, onPress, ...range }: NumberScrub) {
  const sum = useRef(value);
  const { step = 1, min = -Infinity, max = Infinity } = range;
  return useScrub({
    perPixel: step / 4,
    perKey: step,
    onChange(by, first, fine) {
      if (first) sum.current = value;
      sum.current = Math.min(max, Math.max(min, sum.current + by));
      const next = scrubbed(sum.current, range, fine);
      if (next !== value || first) onSet(next, first);
    },
    ...(onPress ? { onPress } : {}),
  });
}
