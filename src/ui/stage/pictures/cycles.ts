"use client";

/** Where a voice stands in its cycle now, on the screen's clock: asked of the engine, and carried along between answers. */
import { useEffect, useRef } from "react";
import { placeInCycle } from "@/core/effect/voices";
import { offsetOf } from "@/core/effect/wave";
import { isStop, type Effect, type Voice } from "@/core/show/effectSchema";
import type { ParamKey } from "@/core/show/ids";
import { useSession } from "@/ui/show/useSession";

const ASK_MS = 600;

/**
 * @param live a parameter that runs it; without one it runs by itself.
 * @param rate percent. @returns the cycles run now, whole ones left out.
 */
export function useCycles(
  voice: Voice,
  live: ParamKey | undefined,
  effect: Effect | undefined,
  rate: number,
): () => number {
  const session = useSession();
  const anchor = useRef({ cycles: 0, at: 0 });
  const speed = ((voice.bpm / 60) * rate) / 100;
  const latest = useRef({ voice, effect, speed });
  useEffect(() => {
    const now = performance.now();
    const { cycles, at } = anchor.current;
    // A change of speed goes on from where it stands.
    anchor.current = { cycles: cycles + ((now - at) / 1000) * latest.current.speed, at: now };
    latest.current = { voice, effect, speed };
  }, [voice, effect, speed]);
  useEffect(() => {
    if (!live) return;
    let gone = false;
    const ask = async () => {
      const why = await session.whyOf(live);
      const step = why?.steps.findLast((s) => s.effect && !s.hidden);
      if (gone || !step?.effect) return;
      const { voice: v, effect: e } = latest.current;
      const turn = e && !isStop(e) ? e : { at: 0, of: 1 };
      anchor.current = { cycles: step.effect.phase - offsetOf(v, placeInCycle(v, turn)), at: performance.now() };
    };
    void ask();
    const timer = setInterval(() => void ask(), ASK_MS);
    return () => {
      gone = true;
      clearInterval(timer);
    };
  }, [session, live]);
  return () => anchor.current.cycles + ((performance.now() - anchor.current.at) / 1000) * latest.current.speed;
}

/** Calls on frames of the screen, at most so many a second. */
export function useFrames(draw: () => void, perSecond = 30): void {
  const latest = useRef(draw);
  useEffect(() => {
    latest.current = draw;
  });
  useEffect(() => {
    let handle = 0;
    let last = 0;
    const look = (now: number) => {
      handle = requestAnimationFrame(look);
      if (now - last < 1000 / perSecond - 4) return;
      last = now;
      latest.current();
    };
    handle = requestAnimationFrame(look);
    return () => cancelAnimationFrame(handle);
  }, [perSecond]);
}
