"use client";

import { useRef, type MouseEvent, type PointerEvent } from "react";
import classes from "./parts.module.css";

export interface BarTimes {
  fade: number;
  delay: number;
}

interface Props extends BarTimes {
  /** What it is of, for whoever looks for its grips. */
  name: string;
  /** What the whole track stands for, seconds. */
  longest: number;
  pale?: boolean;
  /** It is looked at only. */
  fixed?: boolean;
  /** One of the two, on the way; `first` begins a new step of undo. */
  onDrag(change: Partial<BarTimes>, first: boolean): void;
  onDrop?(): void;
}

/** A delay and a fade as a bar: its end is dragged for the fade, its beginning for the delay; Shift is ten times finer. */
export function TimeBar({ name, fade, delay, longest, pale = false, fixed = false, onDrag, onDrop }: Props) {
  const grabbed = useRef<{ what: keyof BarTimes; x: number; from: number; scale: number; first: boolean } | null>(null);
  const share = (seconds: number) => `${(seconds / longest) * 100}%`;
  const grab = (what: keyof BarTimes) => ({
    "data-grip": `${name} ${what}`,
    onPointerDown(e: PointerEvent<HTMLElement>) {
      const track = e.currentTarget.closest<HTMLElement>("[data-track]")!;
      e.currentTarget.setPointerCapture(e.pointerId);
      e.stopPropagation();
      grabbed.current = {
        what,
        x: e.clientX,
        from: what === "fade" ? fade : delay,
        scale: longest / Math.max(1, track.clientWidth),
        first: true,
      };
    },
    onPointerMove(e: PointerEvent<HTMLElement>) {
      const now = grabbed.current;
      if (!now) return;
      const fine = e.shiftKey ? 0.01 : 0.1;
      const value = Math.max(0, Math.round((now.from + (e.clientX - now.x) * now.scale) / fine) * fine);
      onDrag({ [now.what]: Math.round(value * 1000) / 1000 }, now.first);
      now.first = false;
    },
    onPointerUp() {
      if (grabbed.current && !grabbed.current.first) onDrop?.();
      grabbed.current = null;
    },
    onPointerCancel: () => void (grabbed.current = null),
    onClick: (e: MouseEvent) => e.stopPropagation(),
  });
  return (
    <span className={classes.track} data-track aria-hidden>
      <span data-pale={pale} style={{ marginLeft: share(delay), width: share(fade) }}>
        {!fixed && (
          <>
            <i {...grab("delay")} />
            <b {...grab("fade")} />
          </>
        )}
      </span>
    </span>
  );
}
