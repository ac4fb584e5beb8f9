/** Arbitration: what each parameter shows at an instant (SEMANTICS 6). */
import { SAME_TIME } from "../../units/units";
import { bend, progress } from "./progress";
import { EFFECT, EFFECT_HIGHEST, EFFECT_OVER, HIGHEST, LATEST, OVER } from "./layers";
import { heldCycles, HUSHES, PLAYS } from "./heldEffects";
import { lastFn, playedAt } from "./playing";
import { COMES, GOES, HERE, reached } from "../lists/reach";
import {
  cyclesOf,
  FROM_ACTION,
  FROM_DEFAULT,
  FROM_HIGHLIGHT,
  FROM_PARK,
  FROM_PROGRAMMER,
  masterOf,
  settle,
  weightOf,
  type Overlay,
  type Stage,
} from "./stage";

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

function lay(over: Overlay, param: number, source: number): void {
  if (over.on[param] === 0) return;
  runValue = over.value[param]!;
  runFn = over.fn[param]!;
  runSource = source;
}
