/** Effects when a list arrives in a cue: they start, go on, are hushed, or end (SEMANTICS 7, 9). */
import type { EffectInForce } from "../../cue/effects";
import { trackingOf } from "../../cue/tracking";
import { sameEffect } from "../../effect/voices";
import type { Cue } from "../../show/schema";
import { cuesOf } from "../../show/world";
import {
  addLayer,
  countOf,
  cueOfLayer,
  EFFECT,
  effectOf,
  effectRole,
  layerOf,
  readFade,
  restamp,
  setWeight,
  steady,
  type Layers,
  type NewLayer,
} from "../stage/layers";
import { fadeAway, fadeOf, isScaledIn, roleOf, timeBy, timeOf, type Arrival } from "./arrival";
import { playingOf } from "../stage/playing";
import { hasStage, keepPlaying, weightOf, type Stage } from "../stage/stage";

/**
 * An effect starts, goes on or ends. It comes by the up and goes by the down times; one that plays is not
 * started again, and never lies below its list's own value.
 * @returns its delay + fade; 0 where nothing of it moves.
 */
export function moveEffect(
  stage: Stage,
  arrival: Arrival,
  cue: Cue,
  param: number,
  target: EffectInForce | undefined,
): number {
  const { layers, rig } = stage;
  const { slot, list, stamp, at } = arrival;
  const [key, spec, mixes] = [rig.keys[param]!, rig.specs[param]!, rig.mixes[param]!];
  const made = target && playingOf(arrival.show, key, spec, mixes, target.entry);
  const origin = target && countOf(cuesOf(list)[target.at]!.id);
  const layer = effectOf(layers, param, slot);
  const old = layer < 0 ? undefined : stage.effects[layers.ownTo[layer]!];
  const hushed = layer >= 0 && layers.ownAt[layer] === 1;
  const runs = layer >= 0 && (layers.weightTo[layer] !== 0 || hushed);
  const goesOn = runs && made !== undefined && old !== undefined && sameEffect(old.effect, made.effect);
  const { attribute } = made ? target.entry : spec.functions[layer < 0 ? 0 : layers.toFn[layer]!]!;
  const ending = cue.entries[key];
  const away = () => timeBy(arrival, cue, key, attribute, true, ending?.effect ? ending.time : undefined);
  let took = 0;
  if (runs && !goesOn && comesOnTop(stage, arrival, cue, param) && mayStay(stage, layer))
    restamp(layers, layer, stamp, list.priority);
  if (goesOn) {
    layers.cue[layer] = origin!;
    if (target!.hushed !== hushed) {
      const time = target!.hushed ? away() : timeOf(arrival, cue, key, attribute, false);
      const from = weightOf(stage, layer);
      setWeight(layers, layer, { from, to: target!.hushed ? 0 : 1, at, ...fadeOf(time, time.fade) });
      layers.ownAt[layer] = target!.hushed ? 1 : 0;
      took = time.delay + time.fade;
    }
  } else {
    if (runs) {
      const time = away();
      // One that is hushed ends by this cue's times, not by those that hush it.
      if (hushed) setWeight(layers, layer, steady(weightOf(stage, layer)));
      layers.ownAt[layer] = 0;
      fadeAway(stage, param, slot, at, time, { effects: true });
      took = time.delay + time.fade;
    }
    if (made && !target.hushed) {
      const time = timeOf(arrival, cue, key, attribute, false, target);
      const fade = mixes[made.fn] ? time.fade : 0;
      addLayer(layers, {
        param,
        list: slot,
        priority: list.priority,
        stamp,
        cue: cuesOf(list)[target.at]!.id,
        fromFn: made.fn,
        toFn: made.fn,
        role: effectRole(roleOf(list, rig, param)),
        scaled: isScaledIn(list, trackingOf(list, arrival.show), rig, param, arrival.to, arrival.carriedTo),
        own: { from: stage.effectNow[slot]!, to: keepPlaying(stage, made), at: 0, delay: 0, fade: 0 },
        weight: { from: 0, to: 1, at, ...fadeOf(time, fade) },
      });
      return Math.max(took, time.delay + fade);
    }
  }
  if (goesOn && layers.ownAt[layer] === 0 && comesOnTop(stage, arrival, cue, param)) {
    if (mayStay(stage, layer)) restamp(layers, layer, stamp, list.priority);
    else {
      // Another list lies above it: it mixes in over that, in step with itself.
      const time = timeOf(arrival, cue, key, attribute, false, target);
      addLayer(layers, {
        ...layerAs(layers, layer),
        stamp,
        weight: { from: 0, to: 1, at, ...fadeOf(time, mixes[made.fn] ? time.fade : 0) },
      });
      took = Math.max(took, time.delay + time.fade);
    }
  }
  return took;
}

/** Whether an effect takes its new stamp where it is: nothing of another list hides it, or it counts otherwise than by what came last. */
const mayStay = (stage: Stage, layer: number): boolean => stage.layers.role[layer] !== EFFECT || hasStage(stage, layer);

/** Whether an arrival stamps an effect that goes on: it moves or asserts all, or it stamped its list's value there. */
function comesOnTop({ layers }: Stage, { what, slot, stamp }: Arrival, cue: Cue, param: number): boolean {
  if (what !== "change" || cue.assert) return true;
  const value = layerOf(layers, param, slot);
  return value >= 0 && layers.stamp[value] === stamp;
}

/** An effect's layer, to be laid anew. */
const layerAs = (layers: Layers, at: number): Omit<NewLayer, "weight" | "stamp"> => ({
  param: layers.param[at]!,
  list: layers.list[at]!,
  priority: layers.priority[at]!,
  cue: cueOfLayer(layers, at),
  fromFn: layers.fromFn[at]!,
  toFn: layers.toFn[at]!,
  role: layers.role[at]!,
  scaled: layers.scaled[at] === 1,
  own: readFade(layers, at, "own"),
});
