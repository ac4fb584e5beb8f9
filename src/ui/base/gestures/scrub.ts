"use client";

import { useEffect, useRef, type KeyboardEvent, type PointerEvent, type WheelEvent } from "react";

interface Scrub {
  /** What one pixel changes, and one press of an arrow. */
  perPixel: number;
  perKey?: number;
  /** Called with each change; `first` begins a new step of undo, `fine` is with shift. */
  onChange(by: number, first: boolean, fine: boolean): void;
  /** A press without a drag. */
  onPress?(event: PointerEvent<HTMLElement>): void;
}

const STILL = 3;
/** Movements ahead of the page's next frame are taken this far apart at least, milliseconds: a fast mouse must not fill the page. */
const EARLY_MS = 12;
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
  const drag = useRef<{ x: number; moved: boolean; at: number } | null>(null);
  const lastNudge = useRef(0);
  const fine = (event: { shiftKey: boolean }) => (event.shiftKey ? 0.1 : 1);
  const nudge = (by: number, { timeStamp, shiftKey }: { timeStamp: number; shiftKey: boolean }) => {
    onChange(by, timeStamp - lastNudge.current > PAUSE_MS, shiftKey);
    lastNudge.current = timeStamp;
  };
  const move = (event: { clientX: number; shiftKey: boolean; timeStamp: number }) => {
    const now = drag.current;
    if (!now) return;
    const by = event.clientX - now.x;
    if (by === 0 || (!now.moved && Math.abs(by) < STILL)) return;
    drag.current = { x: event.clientX, moved: true, at: event.timeStamp };
    onChange(by * perPixel * fine(event), !now.moved, event.shiftKey);
  };
  const latest = useRef(move);
  latest.current = move;
  return {
    onPointerDown(event: PointerEvent<HTMLElement>) {
      if (event.button !== 0) return;
      const element = event.currentTarget;
      element.setPointerCapture(event.pointerId);
      drag.current = { x: event.clientX, moved: false, at: 0 };
      const early = (raw: Event) => {
        if (drag.current && raw.timeStamp - drag.current.at >= EARLY_MS) latest.current(raw as globalThis.PointerEvent);
      };
      element.addEventListener("pointerrawupdate", early);
      const end = () => element.removeEventListener("pointerrawupdate", early);
      element.addEventListener("lostpointercapture", end, { once: true });
    },
    onPointerMove: move,
    onPointerUp(event: PointerEvent<HTMLElement>) {
      if (drag.current && !drag.current.moved) onPress?.(event);
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
  onPress?(event: PointerEvent<HTMLElement>): void;
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
