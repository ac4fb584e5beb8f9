/** The stage as it is being played: what lies on each parameter, and which of them move (SEMANTICS 6). */
import { createGlides, endGlide, type Glides } from "./glides";
import type { Rig } from "./rig";
import { bend, progress } from "./progress";
import { createStacks, endStack, type Stacks } from "./stacks";
import { EFFECT, eachLayer, isEffect, LATEST, OVER, removeLayer, type Layers } from "./layers";
import { createHeldEffects, type HeldEffects } from "./heldEffects";
import type { Playing } from "./playing";
import { createSwings, endSwing, type Swings } from "./swings";
import { createReach, type Reach } from "../lists/reach";

/** Where a stage value comes from: a layer's index, or one of these. */
export const FROM_DEFAULT = -1;
export const FROM_PROGRAMMER = -2;
export const FROM_HIGHLIGHT = -3;
export const FROM_PARK = -4;
export const FROM_ACTION = -5;

/** Values laid over what the lists give: held, highlighted or parked. */
export interface Overlay {
  on: Uint8Array;
  value: Float64Array;
  fn: Uint8Array;
}

const overlay = (n: number): Overlay => ({ on: new Uint8Array(n), value: new Float64Array(n), fn: new Uint8Array(n) });

export interface Stage {
  rig: Rig;
  layers: Layers;
  /** List time now, and level 0..1, for each list slot. */
  listNow: Float64Array;
  listLevel: Float64Array;
  /** 1 for lists that drop what another has taken. */
  listLetsGo: Uint8Array;
  /** 1 for lists whose level scales the mix of their effects. */
  listMixes: Uint8Array;
  held: Overlay;
  heldEffects: HeldEffects;
  /** How held values come and go. */
  reach: Reach;
  /** Stage time now, seconds. */
  now: number;
  highlight: Overlay;
  park: Overlay;
  /** Control actions: what a channel stands at until a stage time. */
  action: Overlay;
  actionUntil: Float64Array;
  /** What limiters leave of each parameter, 0..1. */
  limit: Float64Array;
  /** Whether any list is HTP, a submaster or a takeover. */
  othersUsed: boolean;
  blind: boolean;
  grand: number;
  blackout: boolean;
  /** Results: value after arbitration and masters, before masters, function, source. */
  value: Float64Array;
  raw: Float64Array;
  fn: Uint8Array;
  source: Int32Array;
  /** Parameters to look at in the next tick. */
  active: Int32Array;
  activeCount: number;
  isActive: Uint8Array;
  /** 1 where the move of an arrival has yet to be started: until then a parameter stays as it is. */
  waits: Uint8Array;
  glides: Glides;
  stacks: Stacks;
  swings: Swings;
  /** What the layers of effects play. */
  effects: Playing[];
  /** How many of them there were when they were last sorted out. */
  effectsKept: number;
  /** The clock of each list's effects: it is held with the list and knows no rate, seconds. */
  effectNow: Float64Array;
  /** Scratch of a tick. */
  touched: Int32Array;
}

/** The stage of a rig with everything at its default. */
export function createStage(rig: Rig, layers: Layers, lists: number): Stage {
  const n = rig.size;
  const stage: Stage = {
    rig,
    layers,
    listNow: new Float64Array(lists),
    listLevel: new Float64Array(lists).fill(1),
    listLetsGo: new Uint8Array(lists),
    listMixes: new Uint8Array(lists),
    held: overlay(n),
    heldEffects: createHeldEffects(n),
    reach: createReach(n),
    now: 0,
    highlight: overlay(n),
    park: overlay(n),
    action: overlay(n),
    actionUntil: new Float64Array(n),
    limit: new Float64Array(n).fill(1),
    othersUsed: false,
    blind: false,
    grand: 1,
    blackout: false,
    value: new Float64Array(n),
    raw: new Float64Array(n),
    fn: new Uint8Array(n),
    source: new Int32Array(n),
    active: new Int32Array(n),
    activeCount: 0,
    isActive: new Uint8Array(n),
    waits: new Uint8Array(n),
    touched: new Int32Array(n),
    glides: createGlides(n),
    stacks: createStacks(n),
    swings: createSwings(n),
    effects: [],
    effectsKept: 0,
    effectNow: new Float64Array(lists),
  };
  touchAll(stage);
  return stage;
}

/** Marks a parameter to be worked out in the next tick. */
export function touch(stage: Stage, param: number): void {
  if (stage.glides.group[param]) endGlide(stage.glides, param);
  if (stage.stacks.bucket[param]) endStack(stage.stacks, param);
  if (stage.swings.group[param]) endSwing(stage.swings, param);
  if (stage.isActive[param]) return;
  stage.isActive[param] = 1;
  stage.active[stage.activeCount++] = param;
}

/** Marks every parameter. */
export function touchAll(stage: Stage): void {
  for (let p = 0; p < stage.rig.size; p++) touch(stage, p);
}

/** With fewer than this, effects that have gone are left among those that play. */
const SPARE_EFFECTS = 1024;

/** Keeps what an effect plays; those that no layer plays any more make room. @returns its place. */
export function keepPlaying(stage: Stage, made: Playing): number {
  const { layers } = stage;
  if (stage.effects.length >= Math.max(SPARE_EFFECTS, stage.effectsKept * 2)) {
    const kept: Playing[] = [];
    for (const at of eachLayer(layers))
      if (isEffect(layers.role[at]!)) layers.ownTo[at] = kept.push(stage.effects[layers.ownTo[at]!]!) - 1;
    stage.effects = kept;
    stage.effectsKept = kept.length;
  }
  return stage.effects.push(made) - 1;
}

/** The cycles the effect of a layer has run by now. */
export const cyclesOf = ({ layers, effects, effectNow }: Stage, at: number): number =>
  layers.ownDelay[at]! +
  (effectNow[layers.list[at]!]! - layers.ownFrom[at]!) * (effects[layers.ownTo[at]!]?.speed ?? 0);

/** How much a layer shows now, 0..1. @param at the layer's place. */
export function weightOf(stage: Stage, at: number): number {
  const { layers } = stage;
  const now = stage.listNow[layers.list[at]!]!;
  if (now >= layers.weightEnd[at]!) return layers.weightTo[at]!;
  return (
    layers.weightFrom[at]! +
    (layers.weightTo[at]! - layers.weightFrom[at]!) *
      bend(progress(now, layers.weightAt[at]!, layers.weightDelay[at]!, layers.weightFade[at]!), layers.weightBend[at]!)
  );
}

/**
 * Removes what has faded to nothing, and a list's former output once its new mix is complete. True when nothing moves.
 * @param removes false for a look at a time that is not reached yet: what may happen before it finds all in place.
 */
export function settle(stage: Stage, param: number, removes = true): boolean {
  const { layers } = stage;
  let moving = false;
  for (let at = layers.head[param]!; at >= 0;) {
    const next = layers.next[at]!;
    const now = stage.listNow[layers.list[at]!]!;
    const over = layers.weightTo[at] === 0 && now >= layers.weightEnd[at]!;
    const effect = isEffect(layers.role[at]!);
    // One that is hushed runs on unseen.
    const hushed = effect && layers.ownAt[at] === 1;
    if ((over && !hushed) || (next >= 0 && isReplaced(stage, at))) {
      if (removes) removeLayer(layers, at);
      else moving = true;
    } else if ((effect && !over) || (!effect && now < layers.ownEnd[at]!) || now < layers.weightEnd[at]!) moving = true;
    at = next;
  }
  return !moving;
}

/**
 * Settles a parameter before its layers are changed: what is over at this instant is over whether or not
 * a tick has seen it, so that nothing hidden comes back when what hides it goes.
 */
export function settleNow(stage: Stage, param: number): void {
  if (stage.layers.head[param]! < 0) return;
  touch(stage, param);
  settle(stage, param);
}

/** Whether a later layer of the same list is whole, or one of another list where this list lets go. */
function isReplaced(stage: Stage, at: number): boolean {
  const { layers } = stage;
  if (layers.role[at] === OVER) return false;
  const effect = isEffect(layers.role[at]!);
  const letsGo = stage.listLetsGo[layers.list[at]!] === 1 && layers.role[at] === LATEST;
  for (let later = layers.next[at]!; later >= 0; later = layers.next[later]!) {
    if (isEffect(layers.role[later]!) !== effect) continue;
    // What moves around what lies below hides nothing of one that is on its way out.
    if (effect && layers.weightTo[at] === 0 && stage.effects[layers.ownTo[later]!]?.around) continue;
    if (layers.list[later] !== layers.list[at] && (!letsGo || layers.role[later] !== LATEST)) continue;
    if (layers.weightTo[later] === 1 && stage.listNow[layers.list[later]!]! >= layers.weightEnd[later]!) return true;
  }
  return false;
}

/** What limiters and masters leave of a parameter, 0..1: all of what they do not scale. */
export const masterOf = ({ rig, blackout, grand, limit }: Stage, param: number): number =>
  (rig.scaled[param] === 1 ? (blackout ? 0 : grand) : 1) * limit[param]!;

/** Whether nothing is laid over a parameter's lists, and its first function mixes. */
export const mayLieFlat = ({ held, heldEffects, highlight, park, action, rig }: Stage, param: number): boolean =>
  !held.on[param] &&
  !heldEffects.way[param] &&
  !highlight.on[param] &&
  !park.on[param] &&
  !action.on[param] &&
  rig.mixes[param]![0] === true;

/** Whether a parameter may run in a flat path of values: its lists give only those, of that function. */
export function mayRunFlat(stage: Stage, param: number): boolean {
  const { layers } = stage;
  for (let at = layers.head[param]!; at >= 0; at = layers.next[at]!)
    if (
      layers.role[at] !== LATEST ||
      layers.fromFn[at] !== 0 ||
      layers.toFn[at] !== 0 ||
      layers.ownBend[at] !== 0 ||
      layers.weightBend[at] !== 0
    )
      return false;
  return mayLieFlat(stage, param);
}

/** Whether a list's layer has the stage: nothing of another list with its priority or a lower one lies above it. */
export function hasStage(stage: Stage, at: number): boolean {
  const { layers } = stage;
  for (let above = layers.next[at]!; above >= 0; above = layers.next[above]!) {
    if (layers.role[above] !== LATEST && layers.role[above] !== EFFECT) continue;
    if (layers.priority[above]! > layers.priority[at]!) return true;
    if (layers.list[above] !== layers.list[at]) return false;
  }
  return true;
}
