/**
 * The player: the show's lists being played, on a clock that is handed in. The same code runs in the
 * browser's worker, in Node and in tests; what it gives does not depend on when it is asked.
 */
import { isRelease } from "../show/value";
import { resolveEntry } from "../program/resolve";
import { refuse, type Refusal } from "../show/refusal";
import type { World } from "../show/world";
import { cuesOf, listsByNumber } from "../show/world";
import { listTime, SAME_TIME, sequence, stageTime, type ListTime, type Sequence, type StageTime } from "../units/units";
import { changeClock, listTimeAt } from "./clock";
import type { PlayEvent } from "./events";
import { createLayers, eachLayer, type Layers } from "./layers";
import { fadeAway, startMoves } from "./moves";
import { createFrame, writeOutput } from "./output";
import { compileRig, isStepped, type Rig } from "./rig";
import { automaticAt, dueAt, newRun, nextPlace, placeOfCue, type ListRun } from "./run";
import { computeParameter, createStage, touch, touchAll, type Stage } from "./stage";

export interface Player {
  world: World;
  rig: Rig;
  layers: Layers;
  stage: Stage;
  frame: Uint8Array;
  runs: Map<string, ListRun>;
  /** Stage time, seconds, of the last thing done. */
  now: StageTime;
  /** Sequence number of the last event. */
  sequence: Sequence;
  /** Changes whenever parameters or universes are laid out anew. */
  generation: number;
}

/** A player at rest at stage time `now`. */
export function createPlayer(world: World, now: StageTime = stageTime(0)): Player {
  const rig = compileRig(world.show);
  const layers = createLayers(rig.size);
  const player: Player = {
    world, rig, layers, stage: createStage(rig, layers, 1), frame: createFrame(rig.universes.length), runs: new Map(), now, sequence: sequence(0), generation: 1,
  };
  syncRuns(player);
  loadHands(player);
  return player;
}

/** Makes a run for every list; slots stay with their list. */
export function syncRuns(player: Player): void {
  let slot = Math.max(-1, ...[...player.runs.values()].map((run) => run.slot)) + 1;
  for (const list of listsByNumber(player.world.show)) if (!player.runs.has(list.id)) player.runs.set(list.id, newRun(list.id, slot++, player.now));
  const size = Math.max(slot, 1);
  if (player.stage.listNow.length < size) {
    player.stage.listNow = new Float64Array(size * 2);
    player.stage.listLevel = new Float64Array(size * 2).fill(1);
  }
  for (const run of player.runs.values()) player.stage.listLevel[run.slot] = run.level / 100;
}

/** Takes held values and blind from the hands. */
export function loadHands(player: Player): void {
  const { stage, rig, world } = player;
  for (let p = 0; p < rig.size; p++) {
    if (!stage.heldOn[p]) continue;
    stage.heldOn[p] = 0;
    touch(stage, p);
  }
  for (const [key, entry] of Object.entries(world.hands.held)) {
    const p = rig.index.get(key);
    const resolved = p === undefined || isRelease(entry.value) ? undefined : resolveEntry(rig.specs[p]!, entry);
    if (p === undefined || !resolved) continue;
    stage.heldOn[p] = 1;
    stage.heldValue[p] = resolved.value;
    stage.heldFn[p] = resolved.fn;
    touch(stage, p);
  }
  if (stage.blind !== world.hands.blind) {
    stage.blind = world.hands.blind;
    touchAll(stage);
  }
}

function setTime(player: Player, now: StageTime): void {
  player.now = now;
  for (const run of player.runs.values()) player.stage.listNow[run.slot] = listTimeAt(run.clock, now);
}

/** Moves the clock to `to`: every automatic cue due up to and including then happens at its exact time. */
export function advance(player: Player, to: StageTime): boolean {
  let happened = false;
  for (;;) {
    let due = stageTime(Infinity);
    let which: ListRun | undefined;
    for (const list of listsByNumber(player.world.show)) {
      const run = player.runs.get(list.id);
      if (!run || run.cue === null) continue;
      const at = dueAt(list, run);
      if (at < due - SAME_TIME) {
        due = at;
        which = run;
      }
    }
    if (!which || due > to + SAME_TIME) break;
    const list = player.world.show.lists[which.id]!;
    const exact = automaticAt(list, which);
    setTime(player, stageTime(Math.max(due, player.now)));
    player.stage.listNow[which.slot] = exact;
    arrive(player, which, nextPlace(list, which), { everything: which.next !== null, at: exact });
    happened = true;
  }
  setTime(player, stageTime(Math.max(to, player.now)));
  return happened;
}

/** Computes everything that may have changed at the player's time, DMX included. */
export function compute(player: Player): void {
  const { stage, frame, rig } = player;
  const count = stage.activeCount;
  let kept = 0;
  for (let i = 0; i < count; i++) {
    const p = stage.active[i]!;
    if (computeParameter(stage, p)) stage.active[kept++] = p;
    else stage.isActive[p] = 0;
    stage.touched[i] = p;
  }
  stage.activeCount = kept;
  for (let i = 0; i < count; i++) {
    const feeds = rig.feeds[stage.touched[i]!]!;
    for (let k = 0; k < feeds.length; k++) writeOutput(stage, frame, feeds[k]!);
  }
}

function arrive(player: Player, run: ListRun, to: number, how: { everything: boolean; fade?: number; at: ListTime }): void {
  const list = player.world.show.lists[run.id]!;
  player.sequence = sequence(player.sequence + 1);
  const from = placeOfCue(list, run.cue);
  const longest = startMoves(player.stage, {
    list, slot: run.slot, from, to, everything: how.everything || from < 0, stamp: player.sequence, at: how.at,
    ...(how.fade === undefined ? {} : { fade: how.fade }),
  });
  run.cue = cuesOf(list)[to]!.id;
  run.next = null;
  run.arrived = how.at;
  run.complete = listTime(how.at + longest);
}

function resume(player: Player, run: ListRun): void {
  if (run.clock.paused) run.clock = changeClock(run.clock, player.now, { paused: false });
}

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
  switch (event.kind) {
    case "grand":
      stage.grand = event.value / 100;
      touchScaled(stage);
      return undefined;
    case "blackout":
      stage.blackout = event.on;
      touchScaled(stage);
      return undefined;
    case "release":
      if (event.list === null) {
        for (const run of player.runs.values()) release(player, run);
        return undefined;
      }
  }
  const list = player.world.show.lists[event.list as string];
  const run = list && player.runs.get(list.id);
  if (!list || !run) return refuse("that list does not exist");
  const cues = cuesOf(list);
  const name = `list ${list.number} "${list.name}"`;
  switch (event.kind) {
    case "go": {
      if (cues.length === 0) return refuse(`${name} has no cues`, "Hold some values and: record cue 1");
      if (event.cue !== undefined) {
        const place = placeOfCue(list, event.cue);
        if (place < 0) return refuse(`${name} has no such cue`);
        resume(player, run);
        arrive(player, run, place, { everything: true, at: listTimeAt(run.clock, player.now) });
        return undefined;
      }
      if (run.clock.paused && run.cue !== null) return void resume(player, run);
      const place = nextPlace(list, run);
      if (place < 0) return list.end === "release" ? void release(player, run) : undefined;
      const here = placeOfCue(list, run.cue);
      arrive(player, run, place, { everything: here < 0 || place !== here + 1, at: listTimeAt(run.clock, player.now) });
      return undefined;
    }
    case "next":
      if (placeOfCue(list, event.cue) < 0) return refuse(`${name} has no such cue`);
      run.next = event.cue;
      return undefined;
    case "back": {
      if (run.cue === null) return refuse(`${name} is not running`, "Give it a go first");
      const place = placeOfCue(list, run.cue) - 1;
      if (place < 0) return undefined;
      resume(player, run);
      arrive(player, run, place, { everything: true, fade: list.backTime, at: listTimeAt(run.clock, player.now) });
      return undefined;
    }
    case "pause":
      if (run.cue === null) return refuse(`${name} is not running`, "Give it a go first");
      run.clock = changeClock(run.clock, player.now, { paused: true });
      return undefined;
    case "release":
      return void release(player, run);
    case "level":
      run.level = event.value;
      stage.listLevel[run.slot] = event.value / 100;
      for (const at of eachLayer(player.layers)) if (player.layers.list[at] === run.slot) touch(stage, player.layers.param[at]!);
      return undefined;
    case "rate":
      run.clock = changeClock(run.clock, player.now, { rate: event.value / 100 });
      return undefined;
  }
}

function release(player: Player, run: ListRun): void {
  if (run.cue === null) return;
  resume(player, run);
  const list = player.world.show.lists[run.id]!;
  const at = listTimeAt(run.clock, player.now);
  player.stage.listNow[run.slot] = at;
  const seen = new Set<number>();
  for (const layer of [...eachLayer(player.layers)]) {
    const param = player.layers.param[layer]!;
    if (player.layers.list[layer] !== run.slot || seen.has(param)) continue;
    seen.add(param);
    const stepped = isStepped(player.rig.specs[param]!.functions[player.layers.toFn[layer]!]!);
    fadeAway(player.stage, param, run.slot, at, stepped ? { delay: list.releaseTime, fade: 0 } : { delay: 0, fade: list.releaseTime }, stepped);
  }
  run.cue = null;
  run.next = null;
  run.complete = listTime(at + list.releaseTime);
}

function touchScaled(stage: Stage): void {
  for (let p = 0; p < stage.rig.size; p++) if (stage.rig.scaled[p]) touch(stage, p);
}
