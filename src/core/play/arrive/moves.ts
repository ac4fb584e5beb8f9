/** What moves when a list arrives in a cue, and how (SEMANTICS 5). */
import { effectAt } from "../../cue/effects";
import { inForceAt, trackingOf, type InForce, type Tracking } from "../../cue/tracking";
import { resolveEntry } from "../../program/resolve";
import { splitKey, type ParamKey } from "../../show/ids";
import type { Cue } from "../../show/schema";
import { isRelease } from "../../show/value";
import { cuesOf } from "../../show/world";
import { fadeAway, fadeOf, isScaledIn, rescaleCells, roleOf, timeBy, timeOf, type Arrival } from "./arrival";
import {
  addLayer,
  countOf,
  effectOf,
  HIGHEST,
  isEffect,
  LATEST,
  layerOf,
  removeLayer,
  restamp,
  setOwn,
  setWeight,
  steady,
} from "../stage/layers";
import { moveEffect } from "./moveEffect";
import { belowLayer, belowPriority, ownValue, throughLayer } from "../stage/arbitration";
import { hasStage, settleNow, touch, weightOf, type Stage } from "../stage/stage";

/** So many parameters are started before a piece ends. */
const A_PIECE = 8;

/**
 * Starts the moves of an arrival, in pieces: between them the stage may be shown, parameters that still wait
 * as they were. Each piece needs the lists' clocks as they stood at the arrival.
 * @returns the largest delay + fade among them, 0 without moves.
 */
export function* startMoves(stage: Stage, arrival: Arrival): Generator<undefined, number> {
  const cue = cuesOf(arrival.list)[arrival.to]!;
  const tracking = trackingOf(arrival.list, arrival.show);
  const few =
    arrival.what === "change" && !cue.assert && !tracking.turns[arrival.to] && arrival.to === arrival.from + 1;
  const keys: Iterable<ParamKey> = few
    ? new Set([...Object.keys(cue.entries), ...(arrival.late ?? [])])
    : tracking.columns.keys();
  const found: ParamKey[] = [];
  const params: number[] = [];
  for (const key of keys) {
    const param = stage.rig.index.get(key);
    if (param === undefined) continue;
    found.push(key);
    params.push(param);
    stage.waits[param] = 1;
  }
  try {
    return yield* startEach(stage, arrival, cue, tracking, found, params);
  } finally {
    // Also where one of them cannot be started: none waits for ever.
    for (const param of params) stage.waits[param] = 0;
  }
}

function* startEach(
  stage: Stage,
  arrival: Arrival,
  cue: Cue,
  tracking: Tracking,
  found: readonly ParamKey[],
  params: readonly number[],
): Generator<undefined, number> {
  let longest = 0;
  for (let i = 0; i < found.length; i++) {
    if (i % A_PIECE === A_PIECE - 1) yield;
    const key = found[i]!;
    const param = params[i]!;
    stage.waits[param] = 0;
    const target = inForceAt(tracking, key, arrival.to, arrival.carriedTo);
    const effect = tracking.columns.get(key)!.effects
      ? effectAt(arrival.show, tracking, key, arrival.to, arrival.carriedTo)
      : undefined;
    const gives = layerOf(stage.layers, param, arrival.slot) >= 0;
    const plays = stage.effects.length > 0 && effectOf(stage.layers, param, arrival.slot) >= 0;
    if (!target && !gives && !effect && !plays) continue;
    settleNow(stage, param);
    if (target || gives) {
      const held = layerOf(stage.layers, param, arrival.slot);
      const took = arrival.passed?.has(key)
        ? passOver(stage, arrival, cue, tracking, param, target, held)
        : target
          ? taken(stage, arrival, cue, tracking, param, target, held)
          : held >= 0 && wasIn(arrival, tracking, key)
            ? letGo(stage, arrival, cue, param, held)
            : 0;
      longest = Math.max(longest, took);
      noteMeant(arrival, key, took);
    }
    if (effect || plays) longest = Math.max(longest, moveEffect(stage, arrival, cue, param, effect));
    touch(stage, param);
    rescaleCells(stage, arrival, key);
  }
  return longest;
}

/** Whether a parameter that is in force no more was so before, or all is to go: what was moved in black alone stays. */
const wasIn = (arrival: Arrival, tracking: Tracking, key: ParamKey): boolean =>
  arrival.what !== "change" || inForceAt(tracking, key, arrival.from, arrival.carriedFrom) !== undefined;

/** How long the move of a fixture whose moves are meant takes. */
function noteMeant({ meant }: Arrival, key: ParamKey, took: number): void {
  if (!meant?.size || key.endsWith(".Dimmer")) return;
  const { fixture } = splitKey(key);
  const longest = meant.get(fixture);
  if (longest !== undefined) meant.set(fixture, Math.max(longest, took));
}

/** A parameter that goes straight to where it will next be lit: what its cue stores for it only stamps it. */
function passOver(
  stage: Stage,
  arrival: Arrival,
  cue: Cue,
  tracking: Tracking,
  param: number,
  target: InForce | undefined,
  held: number,
): number {
  const key = stage.rig.keys[param]!;
  const stamps = arrival.what !== "change" || cue.assert || (target && movesTo(arrival, tracking, key, target));
  if (!stamps) return 0;
  if (held >= 0 && hasStage(stage, held)) restamp(stage.layers, held, arrival.stamp, arrival.list.priority);
  else arrival.stamps?.add(key);
  return 0;
}

/** Whether an arrival moves a parameter to what is in force. */
const movesTo = (arrival: Arrival, tracking: Tracking, key: ParamKey, target: InForce): boolean =>
  arrival.what === "everything" ||
  (arrival.late?.has(key) ?? false) ||
  (arrival.what === "change" && (target.at === arrival.to || isNew(arrival, tracking, key, target)));

function taken(
  stage: Stage,
  arrival: Arrival,
  cue: Cue,
  tracking: Tracking,
  param: number,
  target: InForce,
  held: number,
): number {
  if (movesTo(arrival, tracking, stage.rig.keys[param]!, target))
    return moveTo(stage, arrival, cue, tracking, param, target, held);
  if (arrival.what !== "assert" && !cue.assert) return 0;
  if (held >= 0 && hasStage(stage, held) && stage.layers.weightTo[held] === 1) {
    restamp(stage.layers, held, arrival.stamp, arrival.list.priority);
    return 0;
  }
  return moveTo(stage, arrival, cue, tracking, param, target, held);
}

/** Whether another entry is in force than before the arrival. */
function isNew(arrival: Arrival, tracking: Tracking, key: ParamKey, target: InForce): boolean {
  const before = inForceAt(tracking, key, arrival.from, arrival.carriedFrom);
  return before === undefined || before.at !== target.at;
}

function moveTo(
  stage: Stage,
  arrival: Arrival,
  cue: Cue,
  tracking: Tracking,
  param: number,
  target: InForce,
  held: number,
): number {
  const { layers, rig } = stage;
  const spec = rig.specs[param]!;
  const resolved = resolveEntry(arrival.show, rig.keys[param]!, spec, target.entry);
  if (!resolved) return held >= 0 ? letGo(stage, arrival, cue, param, held) : 0;
  const origin = cuesOf(arrival.list)[target.at]!.id;
  const role = roleOf(arrival.list, rig, param);
  const scaled = isScaledIn(arrival.list, tracking, rig, param, arrival.to, arrival.carriedTo);
  const level = scaled ? stage.listLevel[arrival.slot]! : 1;
  const { priority } = arrival.list;
  const { attribute } = target.entry;
  const mixes = rig.mixes[param]![resolved.fn]!;

  if (held >= 0 && (role !== LATEST || hasStage(stage, held))) {
    const own = ownValue(stage, held);
    const weight = weightOf(stage, held);
    const now =
      role === LATEST ? throughLayer(stage, param, held) : { value: own * weight * level, fn: layers.toFn[held]! };
    const from = role !== LATEST ? own * weight : weight >= 1 || level <= 0 ? own : now.value / level;
    const time = timeOf(arrival, cue, rig.keys[param]!, attribute, resolved.value * level < now.value, target);
    const fade = mixes && now.fn === resolved.fn ? time.fade : 0;
    removeOthers(stage, param, arrival.slot, held);
    setOwn(layers, held, { from, to: resolved.value, at: arrival.at, ...fadeOf(time, fade) });
    setWeight(layers, held, steady(1));
    layers.fromFn[held] = now.fn;
    layers.toFn[held] = resolved.fn;
    layers.cue[held] = countOf(origin);
    layers.role[held] = role;
    layers.scaled[held] = scaled ? 1 : 0;
    restamp(layers, held, arrival.stamp, priority);
    return time.delay + fade;
  }

  const below = role === LATEST ? belowPriority(stage, param, priority) : { value: 0, fn: resolved.fn };
  const time = timeOf(arrival, cue, rig.keys[param]!, attribute, resolved.value * level < below.value, target);
  const fade = mixes && below.fn === resolved.fn ? time.fade : 0;
  const grows = { from: 0, at: arrival.at, ...fadeOf(time, fade) };
  addLayer(layers, {
    param,
    list: arrival.slot,
    priority,
    stamp: arrival.stamp,
    cue: origin,
    fromFn: resolved.fn,
    toFn: resolved.fn,
    role,
    scaled,
    own: role === HIGHEST ? { ...grows, to: resolved.value } : steady(resolved.value),
    weight: role === HIGHEST ? steady(1) : { ...grows, to: 1 },
  });
  return time.delay + fade;
}

/** The list lets go of a parameter: it goes to what lies below, by the cue's times. */
function letGo(stage: Stage, arrival: Arrival, cue: Cue, param: number, held: number): number {
  const { layers, rig } = stage;
  if (layers.weightTo[held] === 0) return 0;
  const spec = rig.specs[param]!;
  const fn = layers.toFn[held]!;
  // Where the highest counts, a list goes from its own output to nothing.
  const highest = layers.role[held] === HIGHEST;
  const now = highest
    ? ownValue(stage, held) * weightOf(stage, held) * stage.listLevel[arrival.slot]!
    : throughLayer(stage, param, held).value;
  const below = highest ? { value: 0, fn } : belowLayer(stage, param, held);
  const key = rig.keys[param]!;
  // A release that is stored here goes by its own timing.
  const stored = cue.entries[key];
  const own = stored?.value !== undefined && isRelease(stored.value) ? stored.time : undefined;
  const time = timeBy(arrival, cue, key, spec.functions[fn]!.attribute, below.value < now, own);
  const stepped = !rig.mixes[param]![fn] || below.fn !== fn;
  fadeAway(stage, param, arrival.slot, arrival.at, stepped ? { ...time, fade: 0 } : time, {});
  return time.delay + (stepped ? 0 : time.fade);
}

function removeOthers(stage: Stage, param: number, slot: number, kept: number): void {
  const { layers } = stage;
  for (let layer = layers.head[param]!; layer >= 0;) {
    const next = layers.next[layer]!;
    if (layers.list[layer] === slot && layer !== kept && !isEffect(layers.role[layer]!)) removeLayer(layers, layer);
    layer = next;
  }
}
