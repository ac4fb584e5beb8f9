/** How a list leaves the stage: over a time, or at once. */
import { listTime } from "../../units/units";
import { countIn } from "./beats";
import { changeClock, listTimeAt } from "./clock";
import { layerOf, removeLayer, type Layers } from "../stage/layers";
import { fadeAway } from "../arrive/arrival";
import type { ListRun } from "./run";
import { belowLayer } from "../stage/arbitration";
import { settleNow } from "../stage/stage";
import type { Player } from "../state";

/** Holds a list's clocks, or lets them go on. */
export function holdClocks(player: Player, run: ListRun, paused: boolean): void {
  run.clock = changeClock(run.clock, player.now, { paused });
  run.effects = changeClock(run.effects, player.now, { paused });
}

/** Lets a paused list's clocks run on. */
export function resume(player: Player, run: ListRun): void {
  if (run.clock.paused) holdClocks(player, run, false);
}

/** Takes every weight from where it is to nothing over the release time; the list counts as released from now. */
export function release(player: Player, run: ListRun, time = player.world.show.lists[run.id]!.releaseTime): void {
  if (run.cue === null) return;
  const list = player.world.show.lists[run.id]!;
  Object.assign(run, { hand: null, end: null, byHand: false, synced: false });
  resume(player, run);
  if (run.beats) countIn(player, list, run, false);
  const at = listTimeAt(run.clock, player.now);
  const { stage, layers, rig } = player;
  stage.listNow[run.slot] = at;
  for (const param of paramsOf(layers, run.slot)) {
    settleNow(stage, param);
    const held = layerOf(layers, param, run.slot);
    if (held < 0) {
      fadeAway(stage, param, run.slot, at, { delay: 0, fade: time }, { all: true });
      continue;
    }
    const fn = layers.toFn[held]!;
    const smooth = rig.mixes[param]![fn] && belowLayer(stage, param, held).fn === fn;
    fadeAway(stage, param, run.slot, at, smooth ? { delay: 0, fade: time } : { delay: time, fade: 0 }, { all: true });
  }
  player.silent = player.silent.filter((layer) => layer.list !== run.slot);
  run.left = run.cue;
  run.cue = null;
  run.next = null;
  run.black = [];
  run.carried = false;
  run.complete = listTime(at + time);
}

/** Lists that bow out are released when a hand gives go to another. */
export function releaseOthers(player: Player, run: ListRun): void {
  for (const other of player.runs.values())
    if (other !== run && player.world.show.lists[other.id]?.bowOut) release(player, other);
}

/** The parameters on which a list has layers. */
function paramsOf(layers: Layers, slot: number): Set<number> {
  const params = new Set<number>();
  for (let param = 0; param < layers.head.length; param++)
    for (let at = layers.head[param]!; at >= 0; at = layers.next[at]!) if (layers.list[at] === slot) params.add(param);
  return params;
}

/** Takes everything a list gives off the stage at once. */
export function dropLayers(player: Player, run: ListRun): void {
  const { layers, stage } = player;
  player.silent = player.silent.filter((layer) => layer.list !== run.slot);
  for (const param of paramsOf(layers, run.slot)) {
    settleNow(stage, param);
    for (let at = layers.head[param]!, next = -1; at >= 0; at = next) {
      next = layers.next[at]!;
      if (layers.list[at] === run.slot) removeLayer(layers, at);
    }
  }
  run.cue = null;
  run.next = null;
  run.black = [];
  Object.assign(run, { hand: null, end: null, byHand: false });
}
