/** Arbitration: what each parameter shows at an instant (SEMANTICS 6). */
import { SAME_TIME } from "../units/units";
import { createGlides, endGlide, type Glides } from "./glides";
import type { Rig } from "./rig";
import { bend, progress } from "./progress";
import { createStacks, endStack, type Stacks } from "./stacks";
import {
  EFFECT,
  EFFECT_HIGHEST,
  EFFECT_OVER,
  eachLayer,
  HIGHEST,
  isEffect,
  LATEST,
  OVER,
  removeLayer,
  type Layers,
} from "./layers";
import { createHeldEffects, heldCycles, HUSHES, PLAYS, type HeldEffects } from "./heldEffects";
import { lastFn, playedAt, type Playing } from "./playing";
import { createSwings, endSwing, type Swings } from "./swings";
import { COMES, createReach, GOES, HERE, reached, type Reach } from "./reach";

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

// The running result of a chain: kept outside so that a tick allocates nothing.
let runValue = 0;
let runFn = 0;
let runSource = FROM_DEFAULT;

/** Lays the chain of a parameter up to and including layer `last` (-1: all of it), latest takes precedence only, without the layers of list `without`, and without effects where they are `hushed`. */
function layUp(stage: Stage, param: number, last: number, without = -1, hushed = false): void {
  const { layers, listNow } = stage;
  runValue = stage.rig.defaults[param]!;
  runFn = 0;
  runSource = FROM_DEFAULT;
  for (let at = layers.head[param]!; at >= 0; at = layers.next[at]!) {
    if (layers.role[at] === EFFECT) {
      if (layers.list[at] !== without && !hushed) playOver(stage, at, 1);
    } else if (layers.role[at] === LATEST && layers.list[at] !== without) {
      // A whole layer hides what lies below: only its own value counts.
      const now = listNow[layers.list[at]!]!;
      if (layers.weightTo[at] === 1 && now >= layers.weightEnd[at]! && now >= layers.ownEnd[at]!) {
        const value = layers.ownTo[at]!;
        runValue = layers.scaled[at] === 1 ? value * stage.listLevel[layers.list[at]!]! : value;
        runFn = layers.toFn[at]!;
        runSource = at;
      } else layOne(stage, at, 1);
    }
    if (at === last) break;
  }
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

/** An effect mixes over the running result, by its weight times `share`. */
function playOver(stage: Stage, at: number, share: number): void {
  const { layers } = stage;
  const list = layers.list[at]!;
  const level = stage.listLevel[list]!;
  const weight = weightOf(stage, at) * share * (stage.listMixes[list] === 1 ? level : 1);
  const playing = stage.effects[layers.ownTo[at]!];
  if (weight <= 0 || !playing) return;
  const value = playedAt(playing, cyclesOf(stage, at), runValue, runFn, layers.scaled[at] === 1 ? level : 1);
  mixOver(stage, at, value, lastFn(), weight);
}

/** What is highest, then what is crossfaded over everything. */
function layOver(stage: Stage, param: number): void {
  const { layers } = stage;
  let over = false;
  for (let at = layers.head[param]!; at >= 0; at = layers.next[at]!) {
    const role = layers.role[at]!;
    if (role === OVER || role === EFFECT_OVER) over = true;
    if (role !== HIGHEST && role !== EFFECT_HIGHEST) continue;
    // An effect counts with its list's value: it is reckoned with that, where there is one.
    if (role === EFFECT_HIGHEST && ofList(stage, param, HIGHEST, layers.list[at]!) >= 0) continue;
    const value = highestOf(stage, param, at) * stage.listLevel[layers.list[at]!]!;
    if (value <= runValue && (runSource >= 0 || value <= 0)) continue;
    runValue = Math.max(runValue, value);
    runFn = layers.toFn[at]!;
    runSource = at;
  }
  if (!over) return;
  for (let at = layers.head[param]!; at >= 0; at = layers.next[at]!)
    if (layers.role[at] === OVER) layOne(stage, at, stage.listLevel[layers.list[at]!]!);
    else if (layers.role[at] === EFFECT_OVER) playOver(stage, at, stage.listLevel[layers.list[at]!]!);
}

/** The topmost layer of a role that a list has on a parameter, -1 for none. */
function ofList({ layers }: Stage, param: number, role: number, list: number): number {
  let found = -1;
  for (let at = layers.head[param]!; at >= 0; at = layers.next[at]!)
    if (layers.list[at] === list && layers.role[at] === role) found = at;
  return found;
}

/** What a list gives where the highest counts, its effects over its value, its level left out. @param at its value, or its first effect. */
function highestOf(stage: Stage, param: number, at: number): number {
  const { layers, effects } = stage;
  let value = layers.role[at] === HIGHEST ? ownValue(stage, at) * weightOf(stage, at) : 0;
  for (let e = layers.head[param]!; e >= 0; e = layers.next[e]!) {
    if (layers.role[e] !== EFFECT_HIGHEST || layers.list[e] !== layers.list[at]) continue;
    const playing = effects[layers.ownTo[e]!];
    if (!playing) continue;
    value += (playedAt(playing, cyclesOf(stage, e), value, layers.toFn[at]!, 1) - value) * weightOf(stage, e);
  }
  return value;
}

/** Mixes one layer over the running result by its weight, times `share`. */
function layOne(stage: Stage, at: number, share: number): void {
  const { layers } = stage;
  const list = layers.list[at]!;
  const now = stage.listNow[list]!;
  const weight = share * weightOf(stage, at);
  if (weight <= 0) return;
  const own =
    now >= layers.ownEnd[at]!
      ? 1
      : bend(progress(now, layers.ownAt[at]!, layers.ownDelay[at]!, layers.ownFade[at]!), layers.ownBend[at]!);
  let value = own >= 1 ? layers.ownTo[at]! : layers.ownFrom[at]! + (layers.ownTo[at]! - layers.ownFrom[at]!) * own;
  const fn = own >= 1 ? layers.toFn[at]! : layers.fromFn[at]!;
  if (layers.scaled[at] === 1) value *= stage.listLevel[list]!;
  mixOver(stage, at, value, fn, weight);
}

function mixOver(stage: Stage, at: number, value: number, fn: number, weight: number): void {
  const mixes = fn === runFn && stage.rig.mixes[stage.layers.param[at]!]![fn] === true;
  if (weight >= 1 || (!mixes && weight >= 0.5)) runValue = value;
  else if (mixes) runValue += (value - runValue) * weight;
  else return;
  runFn = fn;
  runSource = at;
}

/** Value and function of a parameter through one of its layers (-1: through all), lists only. */
export function throughLayer(stage: Stage, param: number, last: number): { value: number; fn: number } {
  layUp(stage, param, last);
  return { value: runValue, fn: runFn };
}

/** What lies below one of a parameter's layers, other lists' only. */
export function belowLayer(stage: Stage, param: number, layer: number): { value: number; fn: number } {
  layUp(stage, param, layer, stage.layers.list[layer]);
  return { value: runValue, fn: runFn };
}

/** The chain's value alone, all of it, before anything is laid over the lists. */
export function layChain(stage: Stage, param: number): number {
  layUp(stage, param, -1);
  return runValue;
}

/** What lies below one of a parameter's layers, of every list. */
export function layChainBelow(stage: Stage, param: number, layer: number): number {
  const { layers } = stage;
  let below = -1;
  for (let at = layers.head[param]!; at >= 0 && at !== layer; at = layers.next[at]!) below = at;
  if (below < 0) return stage.rig.defaults[param]!;
  layUp(stage, param, below);
  return runValue;
}

/** Where the last chain laid comes from. */
export const chainSource = (): number => runSource;

/** What lies below where a layer of this priority would be put on top. */
export function belowPriority(stage: Stage, param: number, priority: number): { value: number; fn: number } {
  const { layers } = stage;
  let last = -2;
  for (let at = layers.head[param]!; at >= 0 && layers.priority[at]! <= priority; at = layers.next[at]!) last = at;
  if (last === -2) return { value: stage.rig.defaults[param]!, fn: 0 };
  return throughLayer(stage, param, last);
}

/** What a layer gives by itself now, its level left out. */
export function ownValue(stage: Stage, at: number): number {
  const { layers } = stage;
  const now = stage.listNow[layers.list[at]!]!;
  if (now >= layers.ownEnd[at]!) return layers.ownTo[at]!;
  return (
    layers.ownFrom[at]! +
    (layers.ownTo[at]! - layers.ownFrom[at]!) *
      bend(progress(now, layers.ownAt[at]!, layers.ownDelay[at]!, layers.ownFade[at]!), layers.ownBend[at]!)
  );
}

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
function settle(stage: Stage, param: number, removes = true): boolean {
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

/** Computes one parameter into the results. Returns whether it is still moving. @param settles see `settle`. */
export function computeParameter(stage: Stage, param: number, settles: boolean): boolean {
  const rests = settle(stage, param, settles);
  if (!isCovered(stage, param)) {
    layUp(stage, param, -1, -1, !stage.blind && stage.heldEffects.way[param] === HUSHES);
    if (stage.othersUsed) layOver(stage, param);
  }
  const coming = !stage.blind && layHeld(stage, param, settles);
  stage.raw[param] = runValue;
  lay(stage.highlight, param, FROM_HIGHLIGHT);
  runValue *= masterOf(stage, param);
  lay(stage.park, param, FROM_PARK);
  const acting = stage.action.on[param] === 1 && stage.now < stage.actionUntil[param]! - SAME_TIME;
  if (acting) lay(stage.action, param, FROM_ACTION);
  else if (settles) stage.action.on[param] = 0;
  stage.value[param] = runValue;
  stage.fn[param] = runFn;
  stage.source[param] = runSource;
  return !rests || coming || acting;
}

/** Whether a value that is held is all there is of a parameter: what lies below need not be worked out. */
const isCovered = ({ blind, held, heldEffects, reach }: Stage, param: number): boolean =>
  !blind && held.on[param] === 1 && reach.way[param] === HERE && heldEffects.way[param] !== PLAYS;

/** What a parameter gives before masters at the stage's times, highlight left out; nothing is written. */
export function peekRaw(stage: Stage, param: number): number {
  layUp(stage, param, -1, -1, !stage.blind && stage.heldEffects.way[param] === HUSHES);
  if (stage.othersUsed) layOver(stage, param);
  if (!stage.blind) layHeld(stage, param, false);
  return runValue;
}

/** Lays what is held over the lists, as far as it has come or gone. Returns whether it is on its way. */
function layHeld(stage: Stage, param: number, settles: boolean): boolean {
  const { held, heldEffects, reach } = stage;
  const plays = heldEffects.way[param] === PLAYS;
  if (held.on[param] === 0 && !plays) return false;
  const way = reach.way[param];
  const share = way === HERE ? 1 : reached(reach, param, stage.now);
  if (way === GOES && share >= 1) {
    if (settles) reach.way[param] = held.on[param] = heldEffects.way[param] = 0;
    return false;
  }
  let value = held.on[param] === 1 ? held.value[param]! : runValue;
  let fn = held.on[param] === 1 ? held.fn[param]! : runFn;
  if (plays) {
    value = playedAt(heldEffects.playing[param]!, heldCycles(heldEffects, param, stage.now), value, fn, 1);
    fn = lastFn();
  }
  const other = way === COMES ? reach.fromFn[param]! : runFn;
  const mixes = share < 1 && fn === other && stage.rig.mixes[param]![fn] === true;
  const from = way === COMES ? reach.from[param]! : runValue;
  // What cannot mix comes at once, and goes at the end.
  runValue = mixes ? from + (value - from) * (way === COMES ? share : 1 - share) : value;
  runFn = fn;
  runSource = FROM_PROGRAMMER;
  if (share >= 1 && settles) reach.way[param] = HERE;
  return share < 1 || plays;
}

/** What limiters and masters leave of a parameter, 0..1: all of what they do not scale. */
export const masterOf = ({ rig, blackout, grand, limit }: Stage, param: number): number =>
  (rig.scaled[param] === 1 ? (blackout ? 0 : grand) : 1) * limit[param]!;

function lay(over: Overlay, param: number, source: number): void {
  if (over.on[param] === 0) return;
  runValue = over.value[param]!;
  runFn = over.fn[param]!;
  runSource = source;
}

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
