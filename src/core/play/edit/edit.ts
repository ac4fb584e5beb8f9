/** Edits of the show while it plays: they reach running lists at once, without a fade (SEMANTICS 5). */
import { sameShape } from "../../cue/looks";
import { effectAt } from "../../cue/effects";
import { inForceAt, storedIn, trackingOf } from "../../cue/tracking";
import { usersOf } from "../../cue/users";
import { changedNames, placeOf, pointsAt, resolveEntry } from "../../program/resolve";
import { splitKey } from "../../show/ids";
import type { CueList, Show } from "../../show/schema";
import type { Entry } from "../../show/value";
import { cuesOf, type World } from "../../show/world";
import { keysThatDiffer } from "../../units/overlaid";
import { finish } from "../arrive/arrive";
import { listTimeAt } from "../lists/clock";
import {
  addLayer,
  countOf,
  createLayers,
  eachLayer,
  effectOf,
  layerOf,
  removeLayer,
  restamp,
  setOwn,
  setWeight,
  steady,
} from "../stage/layers";
import { refreshEffect } from "./refreshEffect";
import { aheadOf, planFor, replanBlack, watchBlack } from "../arrive/black/move";
import { countIn, repace } from "../lists/beats";
import { endByHand } from "../lists/byHand";
import { showLevel } from "../lists/deeds";
import { layMorph } from "../stage/layMorph";
import { followEdit } from "../lists/timecode/follow";
import { kindOf } from "../lists/kinds/kinds";
import { withLanes } from "../lists/lanes";
import { dropLayers, release } from "../lists/leave";
import { isScaledIn, rescaleCells, roleOf } from "../arrive/arrival";
import { carryEffects, carryReach, loadHands, loadLimits, patchHeld } from "../stage/overlays";
import { newBytes, syncRuns } from "../player";
import type { Player } from "../state";
import { compileRig } from "../stage/rig";
import { levelShown, placeOfCue, type ListRun } from "../lists/run";
import { putLayer, readLayer } from "../stage/silent";
import { createStage, settleNow, touch } from "../stage/stage";

/** What values and effects point at. */
const FOLLOWED = ["fixtures", "palettes", "effects", "waves"] as const;

/**
 * Takes a new version of the show and the hands; what did not change is not looked at.
 * @param heldKeys the held parameters that changed, where the caller knows them (from a diff).
 */
export function setWorld(player: Player, given: World, heldKeys?: readonly string[]): void {
  finish(player);
  const world = withLanes(given);
  const before = player.world;
  player.given = given;
  player.world = world;
  if (before.show !== world.show) replanBlack(player);
  if (!sameRig(before.show, world.show)) relayRig(player);
  else if (FOLLOWED.some((what) => before.show[what] !== world.show[what])) follow(player, before.show);
  if (before.show.lists !== world.show.lists) {
    if ([...player.runs.keys()].some((id) => before.show.lists[id]?.letGo !== world.show.lists[id]?.letGo))
      for (let p = 0; p < player.rig.size; p++) settleNow(player.stage, p);
    for (const id of [...player.runs.keys()]) if (!world.show.lists[id]) dropList(player, player.runs.get(id)!);
    syncRuns(player);
    for (const run of [...player.runs.values()]) {
      const [old, list] = [before.show.lists[run.id], world.show.lists[run.id]];
      if (!list || !old || old === list) continue;
      // What an edit makes due comes now, not in the past.
      run.since = listTimeAt(run.clock, player.now);
      editList(player, run, old, list);
    }
    if (limitsDiffer(before.show.lists, world.show.lists)) loadLimits(player);
  }
  if (before.hands !== world.hands) editHands(player, before, heldKeys);
  watchBlack(player);
}

/** Whether a list that limits what others give came, went or changed. */
function limitsDiffer(before: Show["lists"], after: Show["lists"]): boolean {
  const limits = (list: CueList | undefined) => list !== undefined && kindOf(list).limits;
  return Object.keys({ ...before, ...after }).some(
    (id) => before[id] !== after[id] && (limits(before[id]) || limits(after[id])),
  );
}

/** Whether two versions of a show have the same parameters on the same channels: in the same order: moving or naming a fixture leaves them. */
function sameRig(before: Show, after: Show): boolean {
  if (before.types !== after.types) return false;
  if (before.fixtures === after.fixtures) return true;
  const ids = Object.keys(after.fixtures);
  return (
    ids.length === Object.keys(before.fixtures).length &&
    ids.every((id) => {
      const [a, b] = [before.fixtures[id], after.fixtures[id]!];
      if (a === b) return true;
      return (
        a !== undefined &&
        a.number === b.number &&
        a.type === b.type &&
        a.mode === b.mode &&
        a.addresses === b.addresses &&
        a.virtualDimmer === b.virtualDimmer &&
        a.swap === b.swap &&
        a.scale === b.scale &&
        a.correct === b.correct &&
        a.invertPan === b.invertPan &&
        a.curve === b.curve &&
        a.preheat === b.preheat &&
        a.outOfService === b.outOfService &&
        a.invertTilt === b.invertTilt
      );
    })
  );
}

/** Lays the rig out anew and moves what plays over, parameter by parameter. What a mode lacks is kept, silent, until one has it. */
export function relayRig(player: Player): void {
  const old = { rig: player.rig, layers: player.layers, stage: player.stage };
  const rig = compileRig(player.world.show);
  const layers = createLayers(rig.size);
  const moved = [...player.silent, ...[...eachLayer(old.layers)].map((at) => readLayer(old.layers, old.rig, at))];
  const { show } = player.world;
  const left = moved.filter((layer) => !putLayer(layers, rig, show, layer));
  const slots = new Set([...player.runs.values()].map((run) => run.slot));
  player.silent = left.filter((layer) => slots.has(layer.list) && show.fixtures[splitKey(layer.key).fixture]);
  const stage = createStage(rig, layers, old.stage.listNow.length);
  stage.listNow.set(old.stage.listNow);
  stage.listLevel.set(old.stage.listLevel);
  stage.listLetsGo.set(old.stage.listLetsGo);
  stage.effectNow.set(old.stage.effectNow);
  stage.effects = old.stage.effects;
  stage.listMixes.set(old.stage.listMixes);
  stage.grand = old.stage.grand;
  stage.blackout = old.stage.blackout;
  stage.blind = old.stage.blind;
  stage.othersUsed = old.stage.othersUsed;
  stage.now = old.stage.now;
  Object.assign(player, { rig, layers, stage, ...newBytes(rig), generation: player.generation + 1 });
  // What a list holds and has found no parameter for so far is taken up.
  for (const run of player.runs.values()) {
    const list = show.lists[run.id];
    if (list && run.cue !== null && list.cues[run.cue])
      refresh(player, run, list, trackingOf(list, show).columns.keys(), !list.letGo);
  }
  carryReach(old, player);
  carryEffects(old, player);
  loadHands(player);
  loadLimits(player);
}

/** What points at a place or a palette is resolved anew where a fixture was moved or turned or the palette was changed, and nothing else. */
function follow(player: Player, before: Show): void {
  const { show, hands } = player.world;
  const moved = changedNames(before, show);
  if (before.fixtures !== show.fixtures)
    for (const now of Object.values(show.fixtures)) {
      const old = before.fixtures[now.id];
      if (old !== now && (old?.place !== now.place || old.turn !== now.turn)) moved.add(placeOf(now.id));
    }
  if (moved.size === 0) return;
  for (const run of player.runs.values()) {
    const list = show.lists[run.id];
    if (list && run.cue !== null && list.cues[run.cue])
      refresh(player, run, list, usersOf(trackingOf(list, show), moved), !list.letGo);
  }
  const points = ([key, entry]: [string, Entry]) => pointsAt(key, entry).some((name) => moved.has(name));
  if (Object.entries(hands.parked).some(points)) loadHands(player);
  else
    patchHeld(
      player,
      Object.entries(hands.held)
        .filter(points)
        .map(([key]) => key),
    );
}

function editHands(player: Player, { hands: before }: World, heldKeys?: readonly string[]): void {
  const { hands } = player.world;
  const aside =
    before.blind !== hands.blind ||
    before.highlight !== hands.highlight ||
    before.identified !== hands.identified ||
    before.parked !== hands.parked ||
    (hands.highlight && before.selection !== hands.selection);
  if (heldKeys ? heldKeys.length > 0 : before.held !== hands.held)
    patchHeld(player, heldKeys ?? changedIn(before.held, hands.held), before.over === hands.over ? null : hands.over);
  // What comes on stage over a time begins at what is seen there now.
  if (before.blind && !hands.blind && hands.over && hands.over !== before.over)
    patchHeld(player, hands.over.keys, hands.over);
  if (aside) loadHands(player);
}

function changedIn(before: World["hands"]["held"], after: World["hands"]["held"]): string[] {
  return [
    ...Object.keys(after).filter((key) => before[key] !== after[key]),
    ...Object.keys(before).filter((key) => !after[key]),
  ];
}

/** How a list runs otherwise: its beat, its way, its lane, its timecode. */
function editPace(player: Player, run: ListRun, old: CueList, list: CueList): void {
  if (old.bpm !== list.bpm) run.bpm = null;
  if (old.direction !== list.direction) run.way = 1;
  if (old.fader !== list.fader) endByHand(player, run);
  if (old.bpm !== list.bpm && run.beats) repace(player, list, run);
  const retimed =
    list.timecode === true &&
    cuesOf(list).some((cue) => cue.at !== old.cues[cue.id]?.at || old.cues[cue.id] === undefined);
  if (old.timecode !== list.timecode || (retimed && run.synced)) followEdit(player, list, run);
}

/** A morph whose looks or places are others: what it no longer holds goes. */
function relayMorph(player: Player, run: ListRun, old: CueList, list: CueList): void {
  const { rig, layers, stage } = player;
  const { columns } = storedIn(list);
  for (const key of storedIn(old).columns.keys()) {
    const param = columns.has(key) ? undefined : rig.index.get(key);
    const layer = param === undefined ? -1 : layerOf(layers, param, run.slot);
    if (layer < 0) continue;
    removeLayer(layers, layer);
    touch(stage, param!);
  }
  layMorph(player, list, run);
}

function dropList(player: Player, run: ListRun): void {
  dropLayers(player, run);
  player.runs.delete(run.id);
}

function editList(player: Player, run: ListRun, old: CueList, list: CueList): void {
  if (old.kind !== list.kind || old.effect !== list.effect) {
    dropLayers(player, run);
    if (run.beats) countIn(player, old, run, false);
    Object.assign(run, { level: kindOf(list).firstLevel, bpm: null, follows: false, synced: false });
    repace(player, list, run);
    return showLevel(player, list, run);
  }
  editPace(player, run, old, list);
  if (run.cue === null) return levelShown(run, list) > 0 ? showLevel(player, list, run) : undefined;
  if (kindOf(list).lays) return relayMorph(player, run, old, list);
  if (!list.cues[run.cue]) {
    const number = old.cues[run.cue]!.number;
    const before = cuesOf(list).filter((cue) => cue.number < number);
    // With none before, it is released.
    if (before.length === 0) return release(player, run);
    run.cue = before.at(-1)!.id;
    run.black = planFor(player, run, placeOfCue(list, run.cue), run.carried, true);
  }
  if (run.next !== null && !list.cues[run.next]) run.next = null;
  const tracking = storedIn(list);
  const { columns } = tracking;
  const before = storedIn(old).columns;
  const cues = cuesOf(list);
  const whole =
    list.priority !== old.priority ||
    list.htp !== old.htp ||
    !sameShape(storedIn(old), tracking) ||
    cuesOf(old).some((cue, i) => cues[i]?.id !== cue.id);
  const changed = whole ? [...before.keys(), ...columns.keys()] : keysThatDiffer(before, columns);
  refresh(player, run, list, new Set(changed));
}

/** Brings what a list gives to these parameters in line with what is in force in its cue. @param adds whether it takes what it has no hold of. */
export function refresh(player: Player, run: ListRun, list: CueList, keys: Iterable<string>, adds = true): void {
  if (kindOf(list).lays) return layMorph(player, list, run);
  const { layers, stage, rig } = player;
  const cues = cuesOf(list);
  const place = placeOfCue(list, run.cue);
  const { show } = player.world;
  const tracking = trackingOf(list, show);
  const ahead = aheadOf(run);
  for (const key of keys) {
    const param = rig.index.get(key);
    if (param === undefined) continue;
    const target = inForceAt(tracking, key, place, run.carried);
    if (tracking.columns.get(key)?.effects || effectOf(layers, param, run.slot) >= 0)
      refreshEffect(player, run, param, effectAt(show, tracking, key, place, run.carried), adds);
    if (ahead.has(key)) continue;
    const resolved = target && resolveEntry(player.world.show, key, rig.specs[param]!, target.entry);
    settleNow(stage, param);
    const layer = layerOf(layers, param, run.slot);
    if (!resolved) {
      if (layer >= 0 && layers.weightTo[layer] !== 0) {
        removeLayer(layers, layer);
        touch(stage, param);
      }
      rescaleCells(stage, { show, list, slot: run.slot, to: place, carriedTo: run.carried }, key);
      continue;
    }
    const origin = cues[target.at]!.id;
    const role = roleOf(list, rig, param);
    const scaled = isScaledIn(list, tracking, rig, param, place, run.carried);
    if (layer < 0 && !adds) continue;
    if (layer < 0) {
      addLayer(layers, {
        param,
        list: run.slot,
        priority: list.priority,
        stamp: run.stamp,
        cue: origin,
        own: steady(resolved.value),
        weight: steady(1),
        fromFn: resolved.fn,
        toFn: resolved.fn,
        role,
        scaled,
      });
    } else {
      // What was on its way out is back in force, at once.
      if (layers.weightTo[layer] === 0) {
        setOwn(layers, layer, steady(resolved.value));
        setWeight(layers, layer, steady(1));
        layers.fromFn[layer] = resolved.fn;
      }
      layers.ownTo[layer] = resolved.value;
      layers.toFn[layer] = resolved.fn;
      layers.cue[layer] = countOf(origin);
      layers.role[layer] = role;
      layers.scaled[layer] = scaled ? 1 : 0;
      if (layers.priority[layer] !== list.priority) restamp(layers, layer, layers.stamp[layer]!, list.priority);
    }
    touch(stage, param);
    rescaleCells(stage, { show, list, slot: run.slot, to: place, carriedTo: run.carried }, key);
  }
}
