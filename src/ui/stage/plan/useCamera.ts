"use client";

import { useCallback, useEffect, useRef, useState, type PointerEvent, type RefObject } from "react";
import { panned, pinched, zoomed } from "./camera";
import type { View } from "@/picture/plan";

interface Point {
  x: number;
  y: number;
}

/** The plan moved by hand: wheel, two fingers, and drags with Alt, Space or the middle button. @param fitted the view that shows all. */
export function useCamera(host: RefObject<HTMLElement | null>, fitted: View) {
  const [camera, setCamera] = useState<View | null>(null);
  const fingers = useRef(new Map<number, Point>());
  const hand = useRef<Point | null>(null);
  const zoom = useCallback(
    (at: Point, by: number) => setCamera((now) => zoomed(now ?? fitted, fitted, at, by)),
    [fitted],
  );

  // React's own wheel events cannot hold the page still.
  useEffect(() => {
    const element = host.current!;
    const turn = (event: WheelEvent) => {
      event.preventDefault();
      const edge = element.getBoundingClientRect();
      const at = { x: event.clientX - edge.left, y: event.clientY - edge.top };
      const by = Math.exp(-event.deltaY * (event.ctrlKey ? 0.01 : 0.0015));
      setCamera((now) => zoomed(now ?? fitted, fitted, at, by));
    };
    element.addEventListener("wheel", turn, { passive: false });
    return () => element.removeEventListener("wheel", turn);
  }, [host, fitted]);

  return {
    view: camera ?? fitted,
    fitted: camera === null,
    zoom,
    /** @param view null for the whole plan. */
    look: setCamera,
    /** Whether a press moves the view rather than doing something in it. */
    grab(event: PointerEvent, at: Point): boolean {
      if (event.pointerType === "touch") fingers.current.set(event.pointerId, at);
      const moves = fingers.current.size === 2 || event.button === 1 || (event.button === 0 && event.altKey);
      if (moves) hand.current = at;
      return moves;
    },
    /** A press that did something else so far moves the view from here on. */
    take: (at: Point): void => void (hand.current = at),
    /** Whether a movement was the view's. */
    move(event: PointerEvent, at: Point): boolean {
      const from = hand.current;
      const before = [...fingers.current.values()];
      if (fingers.current.has(event.pointerId)) fingers.current.set(event.pointerId, at);
      if (!from) return false;
      const after = [...fingers.current.values()];
      hand.current = at;
      setCamera((now) =>
        after.length === 2
          ? pinched(now ?? fitted, fitted, before, after)
          : panned(now ?? fitted, at.x - from.x, at.y - from.y),
      );
      return true;
    },
    letGo(event: PointerEvent): void {
      fingers.current.delete(event.pointerId);
      if (fingers.current.size === 0) hand.current = null;
    },
  };
}
