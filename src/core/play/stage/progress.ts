/** Progress of a fade (SEMANTICS 5). */
import { SAME_TIME } from "../../units/units";

/** clamp((t - T - delay) / fade, 0, 1); a fade of 0 is complete at t >= T + delay. */
export function progress(now: number, at: number, delay: number, fade: number): number {
  const into = now - at - delay;
  if (fade <= SAME_TIME) return into >= -SAME_TIME ? 1 : 0;
  if (into <= 0) return 0;
  return into >= fade - SAME_TIME ? 1 : into / fade;
}

/** How a progress is bent, by the codes that layers keep: linear, smooth, early, late (SEMANTICS 5). */
export const BEND_CODES = { linear: 0, smooth: 1, early: 2, late: 3 } as const;

/** @param p progress 0..1. @param code one of `BEND_CODES`. */
export const bend = (p: number, code: number): number =>
  code === 0 ? p : code === 1 ? p * p * (3 - 2 * p) : code === 2 ? 1 - (1 - p) * (1 - p) : p * p;

/** Whether a fade is over at `now`. */
export const isOver = (now: number, at: number, delay: number, fade: number): boolean =>
  now >= at + delay + fade - SAME_TIME;
