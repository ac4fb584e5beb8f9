/** Cycles of effects set anew (SEMANTICS 7, 11). */
import { changeClock } from "./clock";
import { PLAYS } from "../stage/heldEffects";
import { eachLayer, isEffect } from "../stage/layers";
import type { ListRun } from "./run";
import { touch, type Stage } from "../stage/stage";
import type { Player } from "../state";

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

/** Brings the effects of a list to a beat, seconds: the first voice's cycle takes one, and all start now. */
export function beatEffects(player: Player, run: ListRun, beat: number): void {
  const { now, stage, layers } = player;
  for (const at of eachLayer(layers)) {
    const playing =
      layers.list[at] === run.slot && isEffect(layers.role[at]!) ? stage.effects[layers.ownTo[at]!] : undefined;
    if (!playing || playing.speed === 0) continue;
    run.effects = changeClock(run.effects, now, { rate: Math.min(10, 1 / beat / playing.speed) });
    break;
  }
  resync(player, run);
}
