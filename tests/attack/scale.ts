/** How hard to attack: a little in every test run, a lot by `npm run attack`, which also keeps the figures. */
import { appendFileSync } from "node:fs";

const isFull = process.env.ATTACK === "full";
export const times = (usual: number, full: number): number => (isFull ? full : usual);

/** Notes what was tried and what came of it. */
export function report(what: string, figures: Record<string, number | string>): void {
  if (process.env.ATTACK_REPORT) appendFileSync(process.env.ATTACK_REPORT, `${JSON.stringify({ what, ...figures })}\n`);
}

/** Random numbers of one seed, so that a finding can be had again (Numerical Recipes' linear congruential generator). */
export function randomOf(seed: number): { next(): number; below(n: number): number; pick<T>(from: readonly T[]): T } {
  let state = seed >>> 0;
  const next = () => (state = (Math.imul(state, 1664525) + 1013904223) >>> 0) / 4294967296;
  const below = (n: number) => Math.floor(next() * n);
  return { next, below, pick: (from) => from[below(from.length)]! };
}
export const SEED = Number(process.env.FUZZ_SEED ?? 4610);
