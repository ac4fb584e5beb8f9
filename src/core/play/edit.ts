/** Edits of the show while it plays: they reach running lists at once, without a fade (SEMANTICS 5). */
import { columnsOf, inForceOf } from "../cue/inForce";
import { resolveEntry } from "../program/resolve";
import type { CueList } from "../show/schema";
import { cuesOf, type World } from "../show/world";
import { sequence } from "../units/units";
import { addLayer, countOf, createLayers, cueOfLayer, eachLayer, layerOf, readFade, removeLayer, restamp, steady } from "./layers";
import { createFrame } from "./output";
import { loadHands, syncRuns, type Player } from "./player";
import { compileRig } from "./rig";
import { placeOfCue, type ListRun } from "./run";
import { createStage, touch, weightOf } from "./stage";

/** Takes a new version of the show and the hands; what did not change is not looked at. */
export function setWorld(player: Player, world: World): void {
  const before = player.world;
  player.world = world;
  if (before.show.fixtures !== world.show.fixtures || before.show.types !== world.show.types) relayRig(player);
  if (before.show.lists !== world.show.lists) {
    syncRuns(player);
    for (const run of [...player.runs.values()]) {
      const [old, list] = [before.show.lists[run.id], world.show.lists[run.id]];
      if (!list) dropList(player, run);
      else if (old && old !== list) editList(player, run, old, list);
    }
  }
  if (before.hands.held !== world.hands.held || before.hands.blind !== world.hands.blind) loadHands(player);
}

/** Lays the rig out anew and moves what plays over, parameter by parameter. */
export function relayRig(player: Player): void {
  const old = { rig: player.rig, layers: player.layers, stage: player.stage };
  const rig = compileRig(player.world.show);
  const layers = createLayers(rig.size);
  for (const at of eachLayer(old.layers)) {
    const param = rig.index.get(old.rig.keys[old.layers.param[at]!]!);
    if (param === undefined) continue;
    const fns = rig.specs[param]!.functions.length;
    addLayer(layers, {
      param, list: old.layers.list[at]!, priority: old.layers.priority[at]!, stamp: old.layers.stamp[at]!, cue: cueOfLayer(old.layers, at),
      own: readFade(old.layers, at, "own"), weight: readFade(old.layers, at, "weight"),
      fromFn: Math.min(old.layers.fromFn[at]!, fns - 1), toFn: Math.min(old.layers.toFn[at]!, fns - 1),
    });
  }
  const stage = createStage(rig, layers, old.stage.listNow.length);
  stage.listNow.set(old.stage.listNow);
  stage.listLevel.set(old.stage.listLevel);
  stage.grand = old.stage.grand;
  stage.blackout = old.stage.blackout;
  stage.blind = old.stage.blind;
  Object.assign(player, { rig, layers, stage, frame: createFrame(rig.universes.length), generation: player.generation + 1 });
  loadHands(player);
}

function dropList(player: Player, run: ListRun): void {
  for (const at of [...eachLayer(player.layers)]) {
    if (player.layers.list[at] !== run.slot) continue;
    touch(player.stage, player.layers.param[at]!);
    removeLayer(player.layers, at);
  }
  player.runs.delete(run.id);
}

function editList(player: Player, run: ListRun, old: CueList, list: CueList): void {
  if (run.cue === null) return;
  if (!list.cues[run.cue]) {
    const number = old.cues[run.cue]!.number;
    run.cue = cuesOf(list).filter((cue) => cue.number < number).at(-1)?.id ?? cuesOf(list)[0]?.id ?? null;
    if (run.cue === null) return dropList(player, run), syncRuns(player);
  }
  if (run.next !== null && !list.cues[run.next]) run.next = null;
  const place = placeOfCue(list, run.cue);
  const columns = columnsOf(list);
  const before = columnsOf(old);
  const cues = cuesOf(list);
  const { layers, stage, rig } = player;
  for (const key of new Set([...before.keys(), ...columns.keys()])) {
    const param = rig.index.get(key);
    if (param === undefined) continue;
    const target = inForceOf(columns.get(key), place);
    const resolved = target && resolveEntry(rig.specs[param]!, target.entry);
    const layer = layerOf(layers, param, run.slot);
    if (!resolved) {
      if (layer >= 0 && layers.weightTo[layer] !== 0) {
        removeLayer(layers, layer);
        touch(stage, param);
      }
      continue;
    }
    const origin = cues[target.at]!.id;
    if (layer < 0) {
      player.sequence = sequence(player.sequence + 1);
      addLayer(layers, {
        param, list: run.slot, priority: list.priority, stamp: player.sequence, cue: origin,
        own: steady(resolved.value), weight: steady(1), fromFn: resolved.fn, toFn: resolved.fn,
      });
    } else {
      layers.ownTo[layer] = resolved.value;
      layers.toFn[layer] = resolved.fn;
      layers.cue[layer] = countOf(origin);
      if (layers.priority[layer] !== list.priority) restamp(layers, layer, layers.stamp[layer]!, list.priority);
      if (weightOf(stage, layer) > 0 || layers.weightTo[layer] !== 0) touch(stage, param);
    }
    touch(stage, param);
  }
}
