"use client";

import { createContext, useCallback, useContext, useEffect, useRef, useState, type RefObject } from "react";
import { useStore } from "zustand";
import type { Half } from "@/engine/frame";
import { frameCount } from "@/engine/frame";
import type { Item } from "@/core/show/ids";
import { halfOf, type StageView } from "@/engine/view";
import type { Session, SessionState } from "@/session/state";
import { drawnOf } from "./drawn";
import { seenByHands } from "./blind";

export const SessionContext = createContext<Session | null>(null);

/** The running show. @throws outside of a show's pages: a mistake of ours. */
export function useSession(): Session {
  const session = useContext(SessionContext);
  if (!session) throw new Error("no show is open here");
  return session;
}

/** A part of the session's state; the component draws again when it changes, while a hand drags over many only now and then. */
export const useShow = <T>(pick: (state: SessionState) => T): T => useStore(drawnOf(useSession().store), pick);

/** The same, drawn again at once whatever a hand does: for what is under the hand itself. */
export const useShowNow = <T>(pick: (state: SessionState) => T): T => useStore(useSession().store, pick);

/** So far apart are numbers and pictures that move, for people who ask for less motion, milliseconds. */
const CALM_MS = 100;

/**
 * Calls `draw` on animation frames on which the stage is new. Nothing passes through React.
 * @param about what is drawn: where it changes, a stage that stands still is drawn too.
 * @param eyes what of it is looked at: the live stage, unless told.
 */
export function useStageFrame(
  draw: (half: Half, view: StageView) => void,
  about: unknown = null,
  eyes?: (live: StageView) => StageView,
): void {
  const { store } = useSession();
  const latest = useRef(draw);
  useEffect(() => {
    latest.current = draw;
  });
  useEffect(() => {
    let seen = -1;
    let seenView: StageView | undefined;
    let handle = 0;
    const calm = matchMedia("(prefers-reduced-motion: reduce)").matches;
    let drawnAt = -Infinity;
    const look = (now = performance.now()) => {
      handle = requestAnimationFrame(look);
      if (calm && now - drawnAt < CALM_MS) return;
      const { view: live } = store.getState();
      if (!live) return;
      const view = eyes?.(live) ?? live;
      const count = frameCount(view.frame);
      if (view === seenView && count === seen) return;
      drawnAt = now;
      seen = count;
      seenView = view;
      latest.current(halfOf(view), view);
    };
    look();
    return () => cancelAnimationFrame(handle);
  }, [store, about, eyes]);
}

/**
 * Something worked out from the stage as the hands see it, at most `perSecond` times; the component draws again when it differs.
 * @param prepare what it needs besides, in steps: done between frames where thousands are selected, and until then nothing is told of them.
 */
export function useStageSummary<T>(
  work: (half: Half, view: StageView) => T,
  start: T,
  deps: readonly unknown[],
  { perSecond = 12, prepare }: { perSecond?: number; prepare?(view: StageView): Iterator<void, void> } = {},
): T {
  const { store } = useSession();
  const [value, setValue] = useState(start);
  const latest = useRef({ work, prepare, start });
  const last = useRef({ text: "", at: 0, took: 0 });
  /** The selection that is being prepared, and the way to leave it. */
  const preparing = useRef<{ selection: readonly Item[]; leave(): void }>(undefined);
  useEffect(() => {
    latest.current = { work, prepare, start };
  });
  const look = useCallback(() => {
    const { view: live } = store.getState();
    if (!live) return;
    const view = seenByHands(live);
    const began = performance.now();
    const made = latest.current.work(halfOf(view), view);
    const text = JSON.stringify(made);
    const now = performance.now();
    const { text: before } = last.current;
    last.current = { text, at: now, took: now - began };
    if (text !== before) setValue(made);
  }, [store]);
  const refresh = useCallback(() => {
    const { world, view } = store.getState();
    const { selection } = world.hands;
    if (preparing.current?.selection === selection) return;
    preparing.current?.leave();
    preparing.current = undefined;
    if (selection.length < MANY || !view) return look();
    // So many have tasks of their own: what else is drawn of them takes its time, too.
    const leave = inSlices(latest.current.prepare?.(seenByHands(view)), (isDone) => {
      if (isDone) {
        preparing.current = undefined;
        return look();
      }
      last.current.text = "";
      setValue(latest.current.start);
    });
    preparing.current = { selection, leave };
  }, [store, look]);
  useEffect(() => {
    const timer = setInterval(refresh, 1000 / perSecond);
    return () => clearInterval(timer);
  }, [refresh, perSecond]);
  useEffect(
    () => () => {
      preparing.current?.leave();
      preparing.current = undefined;
    },
    [],
  );
  useEffect(() => {
    // What takes long waits for its turn, so that a drag over thousands is not held up by their summary.
    const { at, took } = last.current;
    if (took < QUICK_MS || performance.now() - at > 1000 / perSecond) refresh();
  }, [refresh, perSecond, ...deps]); // oxlint-disable-line react-hooks/exhaustive-deps
  return value;
}

/** Does steps in tasks of their own, some milliseconds each. @param tell after each task whether all are done. @returns a way to leave them. */
function inSlices(steps: Iterator<void> | undefined, tell: (isDone: boolean) => void): () => void {
  const slice = () => {
    for (const until = performance.now() + SLICE_MS; performance.now() < until;)
      if (!steps || steps.next().done) return tell(true);
    tell(false);
    timer = setTimeout(slice);
  };
  let timer = setTimeout(slice);
  return () => clearTimeout(timer);
}

const SLICE_MS = 30;
const QUICK_MS = 3;
const MANY = 2000;

/** The size of an element, as it changes. */
export function useSize(ref: RefObject<HTMLElement | null>): { width: number; height: number } {
  const [size, setSize] = useState({ width: 0, height: 0 });
  useEffect(() => {
    const element = ref.current;
    if (!element) return;
    const observer = new ResizeObserver(([entry]) =>
      setSize({ width: entry!.contentRect.width, height: entry!.contentRect.height }),
    );
    observer.observe(element);
    return () => observer.disconnect();
  }, [ref]);
  return size;
}
