/** Progress of a fade (SEMANTICS 5). */
import { SAME_TIME } from "../units/units";

/** clamp((t - T - delay) / fade, 0, 1); a fade of 0 is complete at t >= T + delay. */
export function progress(now: number, at: number, delay: number, fade: number): number {
  const into = now - at - delay;
  if (fade <= SAME_TIME) return into >= -SAME_TIME ? 1 : 0;
  if (into <= 0) return 0;
  return into >= fade - SAME_TIME ? 1 : into / fade;
}

/** Whether a fade is over at `now`. */
export const isOver = (now: number, at: number, delay: number, fade: number): boolean =>
  now >= at + delay + fade - SAME_TIME;
