/** Waves and where an item stands in them (SEMANTICS 7): closed form, so that a value is a function of time alone. */
import type { Wave } from "../show/value";

/** A wave at a place u in its cycle, 0 to 1. @returns 0 to 1. */
export function waveAt(wave: Wave["wave"], u: number): number {
  switch (wave) {
    case "sine":
      return 0.5 - 0.5 * Math.cos(2 * Math.PI * u);
    case "triangle":
      return u < 0.5 ? 2 * u : 2 - 2 * u;
    case "rampup":
      return u;
    case "rampdown":
      return 1 - u;
    case "square":
      return u < 0.5 ? 1 : 0;
    case "pulse":
      return u < 0.1 ? 1 : 0;
  }
}

/**
 * How items are laid along a wave: `across`, degrees over all items, and `start`, degrees; `width`, the share
 * of the cycle that it takes, percent.
 */
export type Phasing = Pick<Wave, "across" | "start" | "width" | "direction">;

const frac = (x: number): number => x - Math.floor(x);

/**
 * Where an item stands in the wave.
 * @param cycles run since the start, 0 up. @param place the item's cyclic place, 0 up to 1.
 * @returns 0 to 1: 1 while it rests at the end.
 */
export function phaseOf({ across, start, width, direction }: Phasing, cycles: number, place: number): number {
  const backward = direction === "backward" ? -1 : 1;
  const x = cycles + start / 360 - (backward * place * across) / 360;
  let u = frac(x);
  if (direction === "bounce") {
    const there = x - 2 * Math.floor(x / 2);
    u = there > 1 ? 2 - there : there;
  }
  const share = width / 100;
  return share >= 1 ? u : u < share ? u / share : 1;
}
