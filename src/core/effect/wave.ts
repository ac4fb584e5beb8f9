/** Waves and where an item stands in them (SEMANTICS 7): closed form, so that a value is a function of time alone. */
import { HASH_START, hashOf } from "../units/hash";
import type { Drawn, Phasing, WaveName } from "../show/effectSchema";

/** p * p * (3 - 2p): a way from 0 to 1 that begins and ends slowly. */
export const smooth = (p: number): number => p * p * (3 - 2 * p);

/** A wave at a place u in its cycle, 0 to 1; random has no shape of its own. @returns 0 to 1. */
export function waveAt(wave: Exclude<WaveName, "random">, u: number): number {
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

/** A wave drawn by points, at a place u in its cycle, 0 to 1: before its first point as there, after its last as there. @returns 0 to 1. */
export function drawnAt({ points, join }: Drawn, u: number): number {
  const x = u * 100;
  let [low, high] = [0, points.length];
  while (low < high) {
    const mid = (low + high) >> 1;
    if (points[mid]![0] <= x) low = mid + 1;
    else high = mid;
  }
  const before = points[Math.max(low - 1, 0)]!;
  const after = points[Math.min(low, points.length - 1)]!;
  const part = after[0] > before[0] ? (x - before[0]) / (after[0] - before[0]) : 0;
  const p = low === 0 || join === "stepped" ? 0 : join === "linear" ? part : smooth(part);
  return (before[1] + (after[1] - before[1]) * p) / 100;
}

/** A number from whole numbers, 0 up to 1, the same for the same: the finalizer of MurmurHash3 (Appleby, public domain). */
function scattered(seed: number, n: number): number {
  let h = (seed ^ Math.imul(n | 0, 0x9e3779b1)) >>> 0;
  h = Math.imul(h ^ (h >>> 16), 0x85ebca6b);
  h = Math.imul(h ^ (h >>> 13), 0xc2b2ae35);
  return ((h ^ (h >>> 16)) >>> 0) / 4294967296;
}

/** Noise: a new value a cycle, joined by smooth. @param cycle which, whole. @param u place in it, 0 to 1. @returns 0 to 1. */
export function noiseAt(seed: number, cycle: number, u: number): number {
  const from = scattered(seed, cycle);
  return from + (scattered(seed, cycle + 1) - from) * smooth(u);
}

/** The seed of an item's noise in a voice: FNV-1a over the words that tell it from others, and the show's own. */
export const noiseSeed = (show: number, voice: number, item: string): number =>
  hashOf(item, (HASH_START ^ show ^ Math.imul(voice + 1, 0x9e3779b1)) >>> 0);

/** How items lie along a cycle, their places given. */
export type Laying = Pick<Phasing, "across" | "start" | "width" | "direction">;

const frac = (x: number): number => x - Math.floor(x);

/** Where an item stands before it is taken into one cycle: cycles, whole ones included. @param place its cyclic place, 0 up to 1. */
export const offsetOf = ({ across, start, direction }: Laying, place: number): number =>
  start / 360 - ((direction === "backward" ? -1 : 1) * place * across) / 360;

/** Takes cycles into one: there and back again in a bounce; from `share` of it on, it rests at 1. */
export function within(x: number, bounce: boolean, share: number): number {
  let u = frac(x);
  if (bounce) {
    const there = x - 2 * Math.floor(x / 2);
    u = there > 1 ? 2 - there : there;
  }
  return share >= 1 ? u : u < share ? u / share : 1;
}

/**
 * Where an item stands in the wave.
 * @param cycles run since the start, 0 up. @param place the item's cyclic place, 0 up to 1.
 * @returns 0 to 1: 1 while it rests at the end.
 */
export const phaseOf = (phasing: Laying, cycles: number, place: number): number =>
  within(cycles + offsetOf(phasing, place), phasing.direction === "bounce", phasing.width / 100);
