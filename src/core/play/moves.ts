/** What moves when a list arrives in a cue, and how (SEMANTICS 5). */
import { columnsOf, inForceOf, type InForce } from "../cue/inForce";
import { moveTime, type MoveTime } from "../cue/times";
import { resolveEntry } from "../program/resolve";
import type { ParamKey } from "../show/ids";
import type { Cue, CueList } from "../show/schema";
import { cuesOf } from "../show/world";
import type { ListTime, Sequence } from "../units/units";
import { addLayer, countOf, layerOf, readFade, removeLayer, restamp, setOwn, setWeight, steady } from "./layers";
import { isStepped } from "./rig";
import { belowPriority, hasStage, ownValue, throughLayer, touch, weightOf, type Stage } from "./stage";

export interface Arrival {
  list: CueList;
  slot: number;
  /** Places in the list; -1 for a released list. */
  from: number;
  to: number;
  /** Everything in force moves, not only what the cue changes. */
  everything: boolean;
  /** One fade for all moves instead of the cue's own times. */
  fade?: number;
  stamp: Sequence;
  at: ListTime;
}

/** Starts the moves of an arrival. Returns the largest delay + fade among them, 0 without moves. */
export function startMoves(stage: Stage, arrival: Arrival): number {
  const cue = cuesOf(arrival.list)[arrival.to]!;
  const columns = columnsOf(arrival.list);
  const keys: Iterable<ParamKey> = arrival.everything ? columns.keys() : Object.keys(cue.entries);
  let longest = 0;
  for (const key of keys) {
    const param = stage.rig.index.get(key);
    if (param === undefined) continue;
    const target = inForceOf(columns.get(key), arrival.to);
    const held = layerOf(stage.layers, param, arrival.slot);
    if (!target && held < 0) continue;
    const took = target ? moveTo(stage, arrival, cue, param, target, held) : letGo(stage, arrival, cue, param, held);
    longest = Math.max(longest, took);
    touch(stage, param);
  }
  return longest;
}

const timeOf = (arrival: Arrival, cue: Cue, attribute: string, falling: boolean, target?: InForce): MoveTime =>
  arrival.fade !== undefined ? { delay: 0, fade: arrival.fade } : moveTime(cue.times, attribute, falling, target && target.at === arrival.to ? target.entry.time : undefined);

function moveTo(stage: Stage, arrival: Arrival, cue: Cue, param: number, target: InForce, held: number): number {
  const { layers, rig } = stage;
  const spec = rig.specs[param]!;
  const resolved = resolveEntry(spec, target.entry);
  if (!resolved) return 0;
  const fn = spec.functions[resolved.fn]!;
  const origin = cuesOf(arrival.list)[target.at]!.id;
  const level = rig.scaled[param] ? stage.listLevel[arrival.slot]! : 1;
  const { priority } = arrival.list;
  const common = { at: arrival.at, own: target.entry.attribute };

  if (held >= 0 && hasStage(stage, held)) {
    const now = throughLayer(stage, param, held);
    const whole = weightOf(stage, held) >= 1;
    const from = whole || level <= 0 ? ownValue(stage, held) : now.value / level;
    const time = timeOf(arrival, cue, common.own, resolved.value * level < now.value, target);
    const stepped = isStepped(fn) || now.fn !== resolved.fn;
    removeOthers(stage, param, arrival.slot, held);
    setOwn(layers, held, { from, to: resolved.value, at: arrival.at, delay: time.delay, fade: stepped ? 0 : time.fade });
    setWeight(layers, held, steady(1));
    layers.fromFn[held] = now.fn;
    layers.toFn[held] = resolved.fn;
    layers.cue[held] = countOf(origin);
    restamp(layers, held, arrival.stamp, priority);
    return time.delay + (stepped ? 0 : time.fade);
  }

  const below = belowPriority(stage, param, priority);
  const time = timeOf(arrival, cue, common.own, resolved.value * level < below.value, target);
  const stepped = isStepped(fn) || below.fn !== resolved.fn;
  addLayer(layers, {
    param, list: arrival.slot, priority, stamp: arrival.stamp, cue: origin, fromFn: resolved.fn, toFn: resolved.fn,
    own: steady(resolved.value),
    weight: { from: 0, to: 1, at: arrival.at, delay: time.delay, fade: stepped ? 0 : time.fade },
  });
  return time.delay + (stepped ? 0 : time.fade);
}

/** The list lets go of a parameter: it goes to what lies below, by the cue's times. */
function letGo(stage: Stage, arrival: Arrival, cue: Cue, param: number, held: number): number {
  const { layers, rig } = stage;
  const spec = rig.specs[param]!;
  const now = throughLayer(stage, param, held).value;
  const below = belowPriority(stage, param, layers.priority[held]! - 1);
  const fn = spec.functions[layers.toFn[held]!]!;
  const time = timeOf(arrival, cue, fn.attribute, below.value < now);
  const stepped = isStepped(fn) || below.fn !== layers.toFn[held];
  fadeAway(stage, param, arrival.slot, arrival.at, time, stepped);
  return time.delay + (stepped ? 0 : time.fade);
}

/** Takes the weight of every layer a list has on a parameter from where it is to nothing. */
export function fadeAway(stage: Stage, param: number, slot: number, at: ListTime, time: MoveTime, stepped: boolean): void {
  const { layers } = stage;
  for (let layer = layers.head[param]!; layer >= 0; layer = layers.next[layer]!) {
    if (layers.list[layer] !== slot) continue;
    const already = readFade(layers, layer, "weight");
    if (already.to === 0) continue;
    setWeight(layers, layer, { from: weightOf(stage, layer), to: 0, at, delay: time.delay, fade: stepped ? 0 : time.fade });
  }
  touch(stage, param);
}

function removeOthers(stage: Stage, param: number, slot: number, kept: number): void {
  const { layers } = stage;
  for (let layer = layers.head[param]!; layer >= 0; ) {
    const next = layers.next[layer]!;
    if (layers.list[layer] === slot && layer !== kept) removeLayer(layers, layer);
    layer = next;
  }
}
