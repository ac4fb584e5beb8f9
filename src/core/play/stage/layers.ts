/**
 * What lists give to parameters: a pool of layers in flat arrays, and for each parameter a chain of
 * them in order of what wins (priority, then stamp), lowest first. A layer has a value of its own,
 * which may be fading, and a weight over what lies below, which may be fading too. Times are in the
 * clock of the layer's list.
 */

import { SAME_TIME } from "../../units/units";
import { grown } from "./grown";

export interface Fade {
  from: number;
  to: number;
  at: number;
  delay: number;
  fade: number;
  /** How its progress is bent: one of `BEND_CODES`, linear where there is none. */
  bend?: number;
}

/** Over since ever. */
const LONG_AGO = -1e12;
/** A fade that stands at a value since ever. */
export const steady = (value: number): Fade => ({ from: value, to: value, at: LONG_AGO, delay: 0, fade: 0 });

/** Latest takes precedence; highest takes precedence; crossfaded over both by its level. */
export const LATEST = 0;
export const HIGHEST = 1;
export const OVER = 2;
/**
 * Effects: of a list whose value there counts latest, highest, or over all. An effect has no move of its own: where
 * that would begin stands the list's time of its last change of speed, as its end which effect it is, as its delay
 * the cycles run by then, and as its start whether it is hushed.
 */
export const EFFECT = 3;
export const EFFECT_HIGHEST = 4;
export const EFFECT_OVER = 5;
/** Whether a role is an effect's. */
export const isEffect = (role: number): boolean => role >= EFFECT;
/** The role of an effect where its list's values have that role. */
export const effectRole = (role: number): number => role + EFFECT;

const FIELDS = [
  "ownFrom",
  "ownTo",
  "ownAt",
  "ownDelay",
  "ownFade",
  "weightFrom",
  "weightTo",
  "weightAt",
  "weightDelay",
  "weightFade",
  "stamp",
  "ownEnd",
  "weightEnd",
] as const;
type Field = (typeof FIELDS)[number];

/** Fades have their end at hand: from there on (a microsecond early, which is the same time) they are over. */
export type Layers = Record<Field, Float64Array> & {
  next: Int32Array;
  /** Slot of the list in the player. */
  list: Int32Array;
  priority: Int32Array;
  param: Int32Array;
  fromFn: Uint8Array;
  toFn: Uint8Array;
  /** How it counts: LATEST, HIGHEST, OVER, or an effect. */
  role: Uint8Array;
  /** 1 where the list's level scales it. */
  scaled: Uint8Array;
  /** How its own move and its weight are bent. */
  ownBend: Uint8Array;
  weightBend: Uint8Array;
  /** The count in the id of the cue whose entry it is. */
  cue: Int32Array;
  free: number;
  used: number;
  /** First layer of each parameter, -1 for none. */
  head: Int32Array;
};

/** @param capacity how many layers there is room for at first: one for each parameter, in all but the largest shows. */
export function createLayers(params: number, capacity = Math.max(64, Math.min(params, 16_384))): Layers {
  const layers = {
    next: new Int32Array(capacity),
    list: new Int32Array(capacity),
    priority: new Int32Array(capacity),
    param: new Int32Array(capacity),
    fromFn: new Uint8Array(capacity),
    toFn: new Uint8Array(capacity),
    role: new Uint8Array(capacity),
    scaled: new Uint8Array(capacity),
    ownBend: new Uint8Array(capacity),
    weightBend: new Uint8Array(capacity),
    cue: new Int32Array(capacity),
    free: -1,
    used: 0,
    head: new Int32Array(params).fill(-1),
  } as unknown as Layers;
  for (const field of FIELDS) layers[field] = new Float64Array(capacity);
  return layers;
}

function grow(layers: Layers): void {
  for (const field of FIELDS) layers[field] = grown(layers[field]);
  for (const field of ["next", "list", "priority", "param", "cue"] as const) layers[field] = grown(layers[field]);
  for (const field of ["fromFn", "toFn", "role", "scaled", "ownBend", "weightBend"] as const)
    layers[field] = grown(layers[field]);
}

/** Cue ids are a letter and a count; layers keep the count. */
export const countOf = (cue: string): number => Number(cue.slice(1));
/** The id of the cue a layer is of. */
export const cueOfLayer = (layers: Layers, at: number): string => `c${layers.cue[at]!}`;

export interface NewLayer {
  param: number;
  list: number;
  priority: number;
  stamp: number;
  cue: string;
  own: Fade;
  fromFn: number;
  toFn: number;
  role: number;
  scaled: boolean;
  weight: Fade;
}

/** Adds a layer at its place in the chain. Returns its index. */
export function addLayer(layers: Layers, made: NewLayer): number {
  let at = layers.free;
  if (at >= 0) layers.free = layers.next[at]!;
  else {
    if (layers.used === layers.next.length) grow(layers);
    at = layers.used++;
  }
  layers.param[at] = made.param;
  layers.list[at] = made.list;
  layers.priority[at] = made.priority;
  layers.stamp[at] = made.stamp;
  layers.cue[at] = countOf(made.cue);
  layers.fromFn[at] = made.fromFn;
  layers.toFn[at] = made.toFn;
  layers.role[at] = made.role;
  layers.scaled[at] = made.scaled ? 1 : 0;
  setOwn(layers, at, made.own);
  setWeight(layers, at, made.weight);
  link(layers, at);
  return at;
}

/** Gives a layer its own move, in the attribute's unit and the list's seconds. */
export function setOwn(layers: Layers, at: number, own: Fade): void {
  layers.ownFrom[at] = own.from;
  layers.ownTo[at] = own.to;
  layers.ownAt[at] = own.at;
  layers.ownDelay[at] = own.delay;
  layers.ownFade[at] = own.fade;
  layers.ownBend[at] = own.bend ?? 0;
  layers.ownEnd[at] = own.at + own.delay + own.fade - SAME_TIME;
}

/** Gives a layer the course of its weight, 0..1, in the list's seconds. */
export function setWeight(layers: Layers, at: number, weight: Fade): void {
  layers.weightFrom[at] = weight.from;
  layers.weightTo[at] = weight.to;
  layers.weightAt[at] = weight.at;
  layers.weightDelay[at] = weight.delay;
  layers.weightFade[at] = weight.fade;
  layers.weightBend[at] = weight.bend ?? 0;
  layers.weightEnd[at] = weight.at + weight.delay + weight.fade - SAME_TIME;
}

const isAbove = (layers: Layers, a: number, b: number): boolean =>
  layers.priority[a] !== layers.priority[b]
    ? layers.priority[a]! > layers.priority[b]!
    : layers.stamp[a]! >= layers.stamp[b]!;

function link(layers: Layers, at: number): void {
  const param = layers.param[at]!;
  let before = -1;
  let here = layers.head[param]!;
  while (here >= 0 && isAbove(layers, at, here)) {
    before = here;
    here = layers.next[here]!;
  }
  layers.next[at] = here;
  if (before < 0) layers.head[param] = at;
  else layers.next[before] = at;
}

function unlink(layers: Layers, at: number): void {
  const param = layers.param[at]!;
  if (layers.head[param] === at) {
    layers.head[param] = layers.next[at]!;
    return;
  }
  for (let here = layers.head[param]!; here >= 0; here = layers.next[here]!) {
    if (layers.next[here] === at) {
      layers.next[here] = layers.next[at]!;
      return;
    }
  }
}

/** Takes a layer away; its place is used again. */
export function removeLayer(layers: Layers, at: number): void {
  unlink(layers, at);
  layers.next[at] = layers.free;
  layers.free = at;
}

/** Gives a layer a new stamp or priority and puts it at its new place. */
export function restamp(layers: Layers, at: number, stamp: number, priority: number): void {
  unlink(layers, at);
  layers.stamp[at] = stamp;
  layers.priority[at] = priority;
  link(layers, at);
}

/** The topmost layer with a value that a list has on a parameter, -1 for none. */
export function layerOf(layers: Layers, param: number, list: number): number {
  let found = -1;
  for (let at = layers.head[param]!; at >= 0; at = layers.next[at]!)
    if (layers.list[at] === list && !isEffect(layers.role[at]!)) found = at;
  return found;
}

/** The topmost effect of a list on a parameter, -1 for none. */
export function effectOf(layers: Layers, param: number, list: number): number {
  let found = -1;
  for (let at = layers.head[param]!; at >= 0; at = layers.next[at]!)
    if (layers.list[at] === list && isEffect(layers.role[at]!)) found = at;
  return found;
}

/** Every layer, parameter by parameter, lowest first. */
export function* eachLayer(layers: Layers): Generator<number> {
  for (let param = 0; param < layers.head.length; param++) {
    for (let at = layers.head[param]!; at >= 0;) {
      const next = layers.next[at]!;
      yield at;
      at = next;
    }
  }
}

/** A layer's own move or the course of its weight, in the list's seconds. */
export function readFade(layers: Layers, at: number, which: "own" | "weight"): Fade {
  return {
    from: layers[`${which}From`][at]!,
    to: layers[`${which}To`][at]!,
    at: layers[`${which}At`][at]!,
    delay: layers[`${which}Delay`][at]!,
    fade: layers[`${which}Fade`][at]!,
    ...(layers[`${which}Bend`][at]! > 0 ? { bend: layers[`${which}Bend`][at]! } : {}),
  };
}
