/** Effects held in the programmer, by parameter: what plays, and where it stands in its cycles. */
import type { Playing } from "./playing";

/** Nothing is held of an effect; one plays; or a stop hides those of lists. */
export const NONE = 0;
export const PLAYS = 1;
export const HUSHES = 2;

export interface HeldEffects {
  way: Uint8Array;
  playing: (Playing | undefined)[];
  /** Stage time of its last change of speed, and the cycles run by then. */
  from: Float64Array;
  cycles: Float64Array;
}

/** @param n how many parameters there are. */
export const createHeldEffects = (n: number): HeldEffects => ({
  way: new Uint8Array(n),
  playing: new Array<Playing | undefined>(n).fill(undefined),
  from: new Float64Array(n),
  cycles: new Float64Array(n),
});

/** The cycles a held effect has run by a stage time, seconds. */
export const heldCycles = ({ playing, from, cycles }: HeldEffects, param: number, now: number): number =>
  cycles[param]! + (now - from[param]!) * playing[param]!.speed;

/** Holds an effect; where one plays already, it goes on in its cycle. @param like a parameter whose cycles it joins. */
export function playHeld(held: HeldEffects, param: number, made: Playing, now: number, like = param): void {
  const plays = held.way[like] === PLAYS && held.playing[like] !== undefined;
  held.cycles[param] = plays ? heldCycles(held, like, now) : 0;
  held.from[param] = now;
  held.playing[param] = made;
  held.way[param] = PLAYS;
}
