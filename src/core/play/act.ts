/** Playing events, done (SEMANTICS 5, 6 and 9). */
import { refuse, type Refusal } from "../show/refusal";
import type { CueList } from "../show/schema";
import { cuesOf } from "../show/world";
import { listTime, type StageTime } from "../units/units";
import { changeClock, listTimeAt } from "./clock";
import type { PlayEvent } from "./events";
import { eachLayer, layerOf, removeLayer, type Layers } from "./layers";
import { fadeAway } from "./moves";
import { loadLimits } from "./overlays";
import { advance, arrive, setTime } from "./player";
import type { Player } from "./state";
import { levelShown, nextPlace, placeOfCue, type ListRun } from "./run";
import { belowLayer, settleNow, touch, type Stage } from "./stage";

/**
 * Does a playing event at stage time `at` (not before the player's time). What is due before happens first.
 * @returns a refusal where it cannot be done; then nothing changed.
 */
export function play(player: Player, event: PlayEvent, at: StageTime): Refusal | undefined {
  advance(player, at);
  const refusal = act(player, event);
  if (!refusal) setTime(player, player.now);
  return refusal;
}

function act(player: Player, event: PlayEvent): Refusal | undefined {
  const { stage } = player;
  if (event.kind === "grand") {
    stage.grand = event.value / 100;
    return touchScaled(stage);
  }
  if (event.kind === "blackout") {
    stage.blackout = event.on;
    return touchScaled(stage);
  }
  if (event.kind === "release" && event.list === null) {
    for (const run of player.runs.values()) if (player.world.show.lists[run.id]?.kind === "list") release(player, run);
    return undefined;
  }
  const list = player.world.show.lists[event.list as string];
  const run = list && player.runs.get(list.id);
  return list && run ? actOn(player, list, run, event) : refuse("that list does not exist");
}

const named = (list: CueList): string => `list ${list.number} "${list.name}"`;
const notRunning = (list: CueList): Refusal => refuse(`${named(list)} is not running`, "Give it a go first");

function actOn(player: Player, list: CueList, run: ListRun, event: PlayEvent): Refusal | undefined {
  switch (event.kind) {
    case "go":
      return go(player, list, run, event.cue);
    case "next":
      if (placeOfCue(list, event.cue) < 0) return refuse(`${named(list)} has no such cue`);
      run.next = event.cue;
      run.since = listTimeAt(run.clock, player.now);
      return undefined;
    case "back": {
      if (run.cue === null) return notRunning(list);
      const place = placeOfCue(list, run.cue) - 1;
      if (place < 0) return undefined;
      resume(player, run);
      return (
        arrive(player, run, place, { what: "everything", fade: list.backTime, at: listTimeAt(run.clock, player.now) }),
        undefined
      );
    }
    case "pause":
      if (run.cue === null) return notRunning(list);
      run.clock = changeClock(run.clock, player.now, { paused: true });
      return undefined;
    case "assert":
      if (run.cue === null) return notRunning(list);
      resume(player, run);
      return (
        arrive(player, run, placeOfCue(list, run.cue), { what: "assert", at: listTimeAt(run.clock, player.now) }),
        undefined
      );
    case "release":
      return void release(player, run);
    case "level":
      run.level = event.value;
      return void showLevel(player, list, run);
    case "flash":
      return flash(player, list, run, event.on);
    case "rate":
      run.clock = changeClock(run.clock, player.now, { rate: event.value / 100 });
      return undefined;
    default:
      return undefined;
  }
}

function go(player: Player, list: CueList, run: ListRun, cue: string | undefined): Refusal | undefined {
  const cues = cuesOf(list);
  if (cues.length === 0) return refuse(`${named(list)} has no cues`, "Hold some values and: record cue 1");
  if (list.kind !== "list")
    return refuse(
      `${named(list)} is a ${list.kind}: it plays by its level`,
      `Give it a level, such as: level list ${list.number} at 100`,
    );
  if (cue === undefined && run.clock.paused && run.cue !== null) return void resume(player, run);
  // A go while a flash shows the first cue begins the list.
  if (run.flashed) {
    run.flashed = false;
    run.cue = null;
  }
  const place = cue === undefined ? nextPlace(list, run) : placeOfCue(list, cue);
  if (cue !== undefined && place < 0) return refuse(`${named(list)} has no such cue`);
  if (place < 0) return list.end === "release" ? void release(player, run) : undefined;
  for (const other of player.runs.values())
    if (other !== run && player.world.show.lists[other.id]?.bowOut) release(player, other);
  resume(player, run);
  const here = placeOfCue(list, run.cue);
  // A planned go to the cue that would come anyway is a plain go.
  const follows = cue === undefined && here >= 0 && place === nextPlace(list, { ...run, next: null });
  arrive(player, run, place, { what: follows ? "change" : "everything", at: listTimeAt(run.clock, player.now) });
  return undefined;
}

function resume(player: Player, run: ListRun): void {
  if (run.clock.paused) run.clock = changeClock(run.clock, player.now, { paused: false });
}

/** Takes every weight from where it is to nothing over the release time; the list counts as released from now. */
export function release(player: Player, run: ListRun, time = player.world.show.lists[run.id]!.releaseTime): void {
  if (run.cue === null) return;
  resume(player, run);
  const at = listTimeAt(run.clock, player.now);
  const { stage, layers, rig } = player;
  stage.listNow[run.slot] = at;
  for (const param of paramsOf(layers, run.slot)) {
    settleNow(stage, param);
    const held = layerOf(layers, param, run.slot);
    if (held < 0) continue;
    const fn = layers.toFn[held]!;
    const smooth = rig.mixes[param]![fn] && belowLayer(stage, param, held).fn === fn;
    fadeAway(stage, param, run.slot, at, smooth ? { delay: 0, fade: time } : { delay: time, fade: 0 }, true);
  }
  player.silent = player.silent.filter((layer) => layer.list !== run.slot);
  run.left = run.cue;
  run.cue = null;
  run.next = null;
  run.carried = false;
  run.complete = listTime(at + time);
}

/** A level, or a flash, takes effect; submasters and takeovers come and go with it. */
export function showLevel(player: Player, list: CueList, run: ListRun): void {
  const { stage, layers } = player;
  const level = levelShown(run);
  stage.listLevel[run.slot] = level / 100;
  if (list.kind === "limiter") return loadLimits(player);
  if (list.kind !== "list") {
    if (level > 0 && run.cue === null && cuesOf(list).length > 0)
      arrive(player, run, 0, { what: "everything", fade: 0, at: listTimeAt(run.clock, player.now) });
    if (level <= 0 && run.cue !== null) return dropLayers(player, run);
  }
  for (const at of eachLayer(layers)) if (layers.list[at] === run.slot) touch(stage, layers.param[at]!);
}

/** The parameters on which a list has layers. */
function paramsOf(layers: Layers, slot: number): Set<number> {
  const params = new Set<number>();
  for (const layer of eachLayer(layers)) if (layers.list[layer] === slot) params.add(layers.param[layer]!);
  return params;
}

/** Takes everything a list gives off the stage at once. */
export function dropLayers(player: Player, run: ListRun): void {
  const { layers, stage } = player;
  player.silent = player.silent.filter((layer) => layer.list !== run.slot);
  for (const param of paramsOf(layers, run.slot)) {
    settleNow(stage, param);
    for (let at = layerOf(layers, param, run.slot); at >= 0; at = layerOf(layers, param, run.slot))
      removeLayer(layers, at);
  }
  run.cue = null;
  run.next = null;
}

/** Level 100 while held; a released list shows its first cue while held. */
function flash(player: Player, list: CueList, run: ListRun, on: boolean): Refusal | undefined {
  if (on && cuesOf(list).length === 0) return refuse(`${named(list)} has no cues to flash`);
  if (run.flash === on) return undefined;
  run.flash = on;
  if (list.kind === "list") {
    // A planned go, and where it was left, are none of a flash's business.
    const { next, left } = run;
    if (on && run.cue === null) {
      run.flashed = true;
      arrive(player, run, 0, { what: "everything", fade: 0, at: listTimeAt(run.clock, player.now) });
      run.next = next;
    } else if (!on && run.flashed) {
      run.flashed = false;
      release(player, run, 0);
      Object.assign(run, { next, left });
    }
  }
  showLevel(player, list, run);
  return undefined;
}

function touchScaled(stage: Stage): undefined {
  for (let p = 0; p < stage.rig.size; p++) if (stage.rig.scaled[p]) touch(stage, p);
}
