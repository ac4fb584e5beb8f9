/** A list crossfaded by hand: the travel of its lane is the progress of the next cue in place of time (SEMANTICS 11). */
import type { CueList } from "../../show/schema";
import { cuesOf } from "../../show/world";
import { listTime, SAME_TIME } from "../../units/units";
import { arrive, finish } from "../arrive/arrive";
import { listTimeAt } from "./clock";
import { eachLayer, isEffect, removeLayer } from "../stage/layers";
import { releaseOthers } from "./leave";
import { nextPlace, placeOfCue, toldPlace, type ByHand, type ListRun } from "./run";
import { putLayer, readLayer, type KeptLayer } from "../stage/silent";
import { keepPlaying, settleNow, touch } from "../stage/stage";
import type { Player } from "../state";

/** As near to an end as it can be without being there. */
const NEAR = 1e-9;

/** The layers of a list, as they are. */
function layersOf({ layers, rig, stage }: Player, run: ListRun): KeptLayer[] {
  const kept: KeptLayer[] = [];
  for (const at of eachLayer(layers)) {
    if (layers.list[at] !== run.slot) continue;
    const plays = isEffect(layers.role[at]!) ? stage.effects[layers.ownTo[at]!] : undefined;
    kept.push({ ...readLayer(layers, rig, at), ...(plays ? { plays } : {}) });
  }
  return kept;
}

/** How a list stands, to be put back so. */
export function standing(player: Player, run: ListRun): ByHand["before"] {
  const { cue, next, left, carried, clock, arrived, complete, roundAt, since, stamp, byHand } = run;
  return {
    cue,
    next,
    left,
    carried,
    clock,
    arrived,
    complete,
    roundAt,
    since,
    stamp,
    byHand,
    layers: layersOf(player, run),
  };
}

/** Puts a list back as it was, as if nothing had been. */
export function putBack(player: Player, run: ListRun, { layers: kept, ...before }: ByHand["before"]): void {
  const { layers, stage, rig, world } = player;
  for (const at of [...eachLayer(layers)]) {
    if (layers.list[at] !== run.slot) continue;
    settleNow(stage, layers.param[at]!);
  }
  for (const at of [...eachLayer(layers)]) {
    if (layers.list[at] !== run.slot) continue;
    touch(stage, layers.param[at]!);
    removeLayer(layers, at);
  }
  for (const { plays, ...layer } of kept) {
    const made = plays ? { ...layer, own: { ...layer.own, to: keepPlaying(stage, plays) } } : layer;
    if (!putLayer(layers, rig, world.show, made)) continue;
    const param = rig.index.get(layer.key);
    if (param !== undefined) touch(stage, param);
  }
  Object.assign(run, before, { hand: null, black: [], blackStamps: new Set() });
  stage.listNow[run.slot] = listTimeAt(run.clock, player.now);
}

/** Goes into the next cue; its clock stands until the hand moves it. Nothing where there is none. */
function leaveEnd(player: Player, list: CueList, run: ListRun): boolean {
  const place = nextPlace(list, run);
  if (place < 0) return false;
  const before = standing(player, run);
  const from = placeOfCue(list, run.cue);
  const what =
    from >= 0 && (run.next === null || place === from + 1) && toldPlace(list, from) < 0 ? "change" : "everything";
  const start = listTimeAt(run.clock, player.now);
  releaseOthers(player, run);
  const go = (fade?: number) => {
    arrive(player, run, place, { what, at: start, ...(fade === undefined ? {} : { fade }) });
    finish(player);
    return run.complete - run.arrived;
  };
  let longest = go();
  if (longest <= SAME_TIME) {
    // Without times of its own the travel itself is the fade.
    putBack(player, run, before);
    run.clock = { base: start, anchor: player.now, rate: 0, paused: false };
    player.stage.listNow[run.slot] = start;
    longest = Math.max(go(1), 1);
  }
  run.hand = { start, longest, before };
  run.byHand = true;
  return true;
}

/** The lane was moved. @param was where it stood before, percent. */
export function moveByHand(player: Player, list: CueList, run: ListRun, was: number): void {
  if (cuesOf(list).length === 0) return;
  finish(player);
  run.end ??= was >= 50 ? 100 : 0;
  const travel = Math.abs(run.level - run.end) / 100;
  if (!run.hand) {
    if (travel <= NEAR) return;
    if (!leaveEnd(player, list, run)) {
      if (travel >= 1 - NEAR) run.end = run.end === 0 ? 100 : 0;
      return;
    }
  }
  const { start, longest, before } = run.hand!;
  if (travel <= NEAR) return putBack(player, run, before);
  const there = travel >= 1 - NEAR;
  run.clock = {
    base: listTime(start + longest * Math.min(1, travel)),
    anchor: player.now,
    rate: there ? run.rate : 0,
    paused: false,
  };
  player.stage.listNow[run.slot] = run.clock.base;
  for (const at of eachLayer(player.layers))
    if (player.layers.list[at] === run.slot) touch(player.stage, player.layers.param[at]!);
  if (!there) return;
  run.hand = null;
  run.end = run.end === 0 ? 100 : 0;
}

/** A button takes over from the hand: time goes on from here, and the lane starts anew from the nearer end. */
export function endByHand(player: Player, run: ListRun): void {
  if (run.hand)
    run.clock = { base: listTimeAt(run.clock, player.now), anchor: player.now, rate: run.rate, paused: false };
  Object.assign(run, { hand: null, end: null, byHand: false });
}
