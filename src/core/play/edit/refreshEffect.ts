/** Edits of effects while they play: they are followed without a jump in their cycles. */
import type { EffectInForce } from "../../cue/effects";
import { trackingOf } from "../../cue/tracking";
import { sameEffect } from "../../effect/voices";
import { cuesOf } from "../../show/world";
import { isScaledIn, roleOf } from "../arrive/arrival";
import { addLayer, countOf, effectOf, effectRole, removeLayer, setOwn, steady } from "../stage/layers";
import { playingOf } from "../stage/playing";
import { placeOfCue, type ListRun } from "../lists/run";
import { cyclesOf, keepPlaying, settleNow, touch } from "../stage/stage";
import type { Player } from "../state";

/**
 * Brings the effect a list plays on a parameter in line with what is in force in its cue: one that plays goes on in its
 * cycle, one that is no longer in force ends at once, one that is new begins.
 * @param adds whether it takes up what it does not play.
 */
export function refreshEffect(
  player: Player,
  run: ListRun,
  param: number,
  target: EffectInForce | undefined,
  adds: boolean,
): void {
  const { layers, stage, rig, world } = player;
  const list = world.show.lists[run.id]!;
  const key = rig.keys[param]!;
  const made = target && playingOf(world.show, key, rig.specs[param]!, rig.mixes[param]!, target.entry);
  const layer = effectOf(layers, param, run.slot);
  const plays = layer >= 0 && (layers.weightTo[layer] !== 0 || layers.ownAt[layer] === 1);
  if (!plays && !(made && adds && !target.hushed)) return;
  const origin = target && cuesOf(list)[target.at]!.id;
  const old = plays ? stage.effects[layers.ownTo[layer]!]! : undefined;
  const goesOn = made && old && (layers.cue[layer] === countOf(origin!) || sameEffect(old.effect, made.effect));
  const now = stage.effectNow[run.slot]!;
  if (goesOn) {
    const delay = cyclesOf(stage, layer);
    setOwn(layers, layer, { from: now, to: keepPlaying(stage, made), at: target.hushed ? 1 : 0, delay, fade: 0 });
    layers.cue[layer] = countOf(origin!);
    layers.toFn[layer] = layers.fromFn[layer] = made.fn;
    return touch(stage, param);
  }
  settleNow(stage, param);
  if (plays && effectOf(layers, param, run.slot) === layer) removeLayer(layers, layer);
  touch(stage, param);
  if (!made || target.hushed) return;
  const place = placeOfCue(list, run.cue);
  addLayer(layers, {
    param,
    list: run.slot,
    priority: list.priority,
    stamp: run.stamp,
    cue: origin!,
    fromFn: made.fn,
    toFn: made.fn,
    role: effectRole(roleOf(list, rig, param)),
    scaled: isScaledIn(list, trackingOf(list, world.show), rig, param, place, run.carried),
    own: { from: now, to: keepPlaying(stage, made), at: 0, delay: 0, fade: 0 },
    weight: steady(1),
  });
}
