/** Cycles of effects set anew: resync, and the speed that is tapped (SEMANTICS 7, 11). */
import { changeClock } from "./clock";
import { PLAYS } from "./heldEffects";
import { eachLayer, isEffect } from "./layers";
import type { ListRun } from "./run";
import { touch, type Stage } from "./stage";
import type { Player } from "./state";

/** Sets the cycles of every effect of a list to 0 now. */
export function resync({ stage, layers }: Player, run: ListRun): void {
  for (const at of eachLayer(layers)) {
    if (layers.list[at] !== run.slot || !isEffect(layers.role[at]!)) continue;
    layers.ownFrom[at] = stage.effectNow[run.slot]!;
    layers.ownDelay[at] = 0;
    touch(stage, layers.param[at]!);
  }
}

/** Sets the cycles of every held effect to 0 now. */
export function resyncHeld(stage: Stage): void {
  const { heldEffects } = stage;
  for (let p = 0; p < heldEffects.way.length; p++) {
    if (heldEffects.way[p] !== PLAYS) continue;
    heldEffects.from[p] = stage.now;
    heldEffects.cycles[p] = 0;
    touch(stage, p);
  }
}

/** A pause longer than this, seconds, begins a new series of taps; so many intervals are counted. */
const PAUSE = 2;
const COUNTED = 7;

/** From the second tap on, a beat is the mean of the last intervals and starts at the tap; the first voice's cycle takes a beat. */
export function tap(player: Player, run: ListRun): void {
  const { now, stage, layers } = player;
  const last = run.taps.at(-1);
  run.taps = last !== undefined && now - last <= PAUSE && now > last ? [...run.taps, now].slice(-COUNTED - 1) : [now];
  if (run.taps.length < 2) return;
  const beat = (now - run.taps[0]!) / (run.taps.length - 1);
  for (const at of eachLayer(layers)) {
    const playing =
      layers.list[at] === run.slot && isEffect(layers.role[at]!) ? stage.effects[layers.ownTo[at]!] : undefined;
    if (!playing || playing.speed === 0) continue;
    run.effects = changeClock(run.effects, now, { rate: Math.min(10, 1 / beat / playing.speed) });
    break;
  }
  resync(player, run);
}
