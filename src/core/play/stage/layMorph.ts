/** What a morph gives, laid by its level (SEMANTICS 11). */
import { inForceAt, trackingOf } from "../../cue/tracking";
import { resolveEntry } from "../../program/resolve";
import { morphPlaces } from "../../show/morphPlaces";
import type { CueList } from "../../show/schema";
import { cuesOf } from "../../show/world";
import { clamp, sequence } from "../../units/units";
import { addLayer, countOf, LATEST, layerOf, removeLayer, setOwn, setWeight, steady } from "./layers";
import { dropLayers } from "../lists/leave";
import { levelShown, type ListRun } from "../lists/run";
import { settleNow, touch } from "./stage";
import type { Player } from "../state";

/** Where a level lies: between the looks of two places (-1: what lies below), and how far. */
export function between(list: CueList, level: number): { from: number; to: number; share: number } {
  const places = morphPlaces(list);
  const above = places.findIndex((place) => place >= level);
  const last = places.length - 1;
  if (above < 0) return { from: last, to: last, share: 0 };
  const low = above === 0 ? 0 : places[above - 1]!;
  return { from: above - 1, to: above, share: clamp((level - low) / (places[above]! - low), 0, 1) };
}

/** Lays every parameter anew; at 0 it holds nothing. */
export function layMorph(player: Player, list: CueList, run: ListRun): void {
  const { layers, rig, stage, world } = player;
  const level = levelShown(run, list);
  if (level <= 0 || cuesOf(list).length === 0) {
    if (run.cue !== null) dropLayers(player, run);
    return;
  }
  // Leaving 0 is what stamps it.
  if (run.cue === null) {
    player.sequence = sequence(player.sequence + 1);
    run.stamp = player.sequence;
  }
  const { from, to, share } = between(list, level);
  const cues = cuesOf(list);
  const near = share < 0.5 ? from : to;
  run.cue = cues[Math.max(0, near)]!.id;
  const tracking = trackingOf(list, world.show);
  for (const key of tracking.columns.keys()) {
    const param = rig.index.get(key);
    if (param === undefined) continue;
    const spec = rig.specs[param]!;
    const said = (place: number) => {
      const found = place < 0 ? undefined : inForceAt(tracking, key, place);
      const value = found && resolveEntry(world.show, key, spec, found.entry);
      return found && value ? { ...value, cue: cues[found.at]!.id } : undefined;
    };
    const [a, b] = [said(from), said(to)];
    settleNow(stage, param);
    const layer = layerOf(layers, param, run.slot);
    const one = a && b ? (share < 0.5 ? a : b) : (b ?? a);
    if (!one) {
      if (layer >= 0) {
        removeLayer(layers, layer);
        touch(stage, param);
      }
      continue;
    }
    const mixes = a && b && a.fn === b.fn && rig.mixes[param]![a.fn] === true;
    const value = mixes ? a.value + (b.value - a.value) * share : one.value;
    const weight = steady(a && b ? 1 : b ? share : 1 - share);
    if (layer < 0)
      addLayer(layers, {
        param,
        list: run.slot,
        priority: list.priority,
        stamp: run.stamp,
        cue: one.cue,
        fromFn: one.fn,
        toFn: one.fn,
        role: LATEST,
        scaled: false,
        own: steady(value),
        weight,
      });
    else {
      setOwn(layers, layer, steady(value));
      setWeight(layers, layer, weight);
      layers.fromFn[layer] = layers.toFn[layer] = one.fn;
      layers.cue[layer] = countOf(one.cue);
    }
    touch(stage, param);
  }
}
