/**
 * Stacked parameters: those on which several fades run at once, of one list or of many, with nothing
 * laid over them. Their moving layers are kept side by side, in order, so that a tick runs along flat
 * arrays instead of following chains through memory. Each timing is worked out once a tick for all that
 * share it. Anything that touches a parameter takes it out, and a fade that ends does so too.
 */
import { putFeeds, putPlain } from "./bytes";
import type { Bytes } from "./output";
import type { Rig } from "./rig";
import type { Player } from "../state";
import { progress } from "./progress";
import { FROM_DEFAULT, masterOf, mayRunFlat, touch, type Stage } from "./stage";
import { bucketOf, growBucket, stacksMove, STILL, timingOf, type Bucket } from "./stacks";

/** Chains of more layers than this are worked out layer by layer. */
const DEEPEST = 8;
/** The first layer that counts: the topmost that is whole and hides what lies below; -1 where the default shows. Depth of what lies on it in `depthAbove`, or -1 where it is no plain stack. */
let depthAbove = -1;
function baseOf(stage: Stage, param: number): number {
  const { layers, listNow } = stage;
  let base = -1;
  depthAbove = 0;
  for (let at = layers.head[param]!; at >= 0; at = layers.next[at]!) {
    const now = listNow[layers.list[at]!]!;
    if (layers.weightTo[at] === 1 && now >= layers.weightEnd[at]! && now >= layers.ownEnd[at]!) {
      base = at;
      depthAbove = 0;
    } else depthAbove += 1;
  }
  if (depthAbove > DEEPEST) depthAbove = -1;
  return base;
}

/** Whether every layer above `base` gives a value that stands still and mixes in from nothing to whole. */
function allMixIn({ layers, listNow }: Stage, param: number, base: number): boolean {
  for (let at = base < 0 ? layers.head[param]! : layers.next[base]!; at >= 0; at = layers.next[at]!) {
    const now = listNow[layers.list[at]!]!;
    if (now < layers.ownEnd[at]! || now >= layers.weightEnd[at]!) return false;
    if (layers.weightFrom[at] !== 0 || layers.weightTo[at] !== 1) return false;
  }
  return true;
}

/** Stacks a moving parameter if plain mixes are all it does. Returns whether it did. */
export function tryStack(player: Player, param: number): boolean {
  const { stage, layers } = player;
  const { stacks } = stage;
  if (!mayRunFlat(stage, param)) return false;
  const base = baseOf(stage, param);
  const depth = depthAbove;
  if (depth <= 0) return false;
  const scale = masterOf(stage, param);
  const mixesIn = scale === 1 && allMixIn(stage, param, base);
  const which = bucketOf(stacks, depth, mixesIn);
  const b = stacks.buckets[which]!;
  if (b.count === b.param.length) growBucket(b);
  const place = b.count++;
  b.told = false;
  b.alike = undefined;
  b.param[place] = param;
  b.base[place] = base < 0 ? stage.rig.defaults[param]! : layers.ownTo[base]! * levelOf(stage, base);
  b.baseSource[place] = base < 0 ? FROM_DEFAULT : base;
  b.scale[place] = scale;
  let to = place * depth;
  for (let at = base < 0 ? layers.head[param]! : layers.next[base]!; at >= 0; at = layers.next[at]!, to++) {
    const list = layers.list[at]!;
    const now = stage.listNow[list]!;
    const ownMoves = now < layers.ownEnd[at]!;
    const weightMoves = now < layers.weightEnd[at]!;
    const level = levelOf(stage, at);
    b.from[to] = mixesIn ? layers.ownTo[at]! * level : ownMoves ? layers.ownFrom[at]! : layers.ownTo[at]!;
    b.by[to] = ownMoves ? layers.ownTo[at]! - layers.ownFrom[at]! : 0;
    b.own[to] = ownMoves
      ? timingOf(stacks, list, layers.ownAt[at]!, layers.ownDelay[at]!, layers.ownFade[at]!, layers.ownEnd[at]!)
      : STILL;
    b.weightFrom[to] = weightMoves ? layers.weightFrom[at]! : layers.weightTo[at]!;
    b.weightBy[to] = weightMoves ? layers.weightTo[at]! - layers.weightFrom[at]! : 0;
    b.weight[to] = weightMoves
      ? timingOf(
          stacks,
          list,
          layers.weightAt[at]!,
          layers.weightDelay[at]!,
          layers.weightFade[at]!,
          layers.weightEnd[at]!,
        )
      : STILL;
    b.level[to] = level;
    b.source[to] = at;
  }
  stacks.bucket[param] = which + 1;
  stacks.place[param] = place;
  return true;
}

const levelOf = (stage: Stage, at: number): number =>
  stage.layers.scaled[at] === 1 ? stage.listLevel[stage.layers.list[at]!]! : 1;

/** Moves every stack along; those with a fade that is over go back to be settled. */
export function runStacks(player: Player): void {
  const { stacks, listNow } = player.stage;
  if (!stacksMove(stacks)) {
    if (stacks.timings.length > 1) {
      stacks.timings.length = 1;
      stacks.index.clear();
      stacks.last = -1;
    }
    return;
  }
  let moved = false;
  let ended = false;
  for (let i = 1; i < stacks.timings.length; i++) {
    const timing = stacks.timings[i]!;
    const now = listNow[timing.list]!;
    if (now >= timing.end) {
      ended ||= timing.share < 1;
      timing.share = 1;
      continue;
    }
    const share = progress(now, timing.at, timing.delay, timing.fade);
    moved ||= share !== timing.share;
    timing.share = share;
  }
  if (ended) for (const b of stacks.buckets) settleEnded(player.stage, b);
  if (!moved) return;
  if (SHARES.now.length < stacks.timings.length) SHARES.now = new Float64Array(stacks.timings.length * 2);
  for (let i = 0; i < stacks.timings.length; i++) SHARES.now[i] = stacks.timings[i]!.share;
  for (let i = 0; i < stacks.buckets.length; i++) {
    const b = stacks.buckets[i]!;
    if (b.count === 0) continue;
    if (b.mixesIn) runMixes(player, b, SHARES.now);
    else runBucket(player, b, SHARES.now);
  }
}

function settleEnded(stage: Stage, b: Bucket): void {
  const { timings } = stage.stacks;
  for (let i = b.count - 1; i >= 0; i--) {
    for (let k = i * b.depth; k < (i + 1) * b.depth; k++) {
      if (timings[b.own[k]!]!.share < 1 && timings[b.weight[k]!]!.share < 1) continue;
      touch(stage, b.param[i]!);
      break;
    }
  }
}

const SHARES = { now: new Float64Array(64) };

/** The commonest stack, whose layers need one array of values and one of weights: what a tick reads from memory is what it costs. */
function runMixes({ stage, bytes: frame }: Player, b: Bucket, shares: Float64Array): void {
  const { value, rig } = stage;
  const { depth, count, param, base, from, weight } = b;
  const { plainOffset, plainBase, plainScale } = rig;
  if (!b.told) tellSources(stage, b, shares);
  const alike = alikeIn(b, rig);
  if (alike) return runAlike(b, shares, value, frame, rig.plainOffset, alike);
  for (let i = 0, k = 0; i < count; i++) {
    const p = param[i]!;
    let v = base[i]!;
    for (const stop = k + depth; k < stop; k++) v += (from[k]! - v) * shares[weight[k]!]!;
    value[p] = v;
    const to = plainOffset[p]!;
    if (to >= 0) putPlain(frame, to, plainBase[p]!, plainScale[p]!, v);
    else if (to === -1) putFeeds(stage, frame, p);
  }
}

/** Kept small, so that it compiles to a tight loop. */
function runAlike(
  { depth, count, param, base, from, weight }: Bucket,
  shares: Float64Array,
  value: Float64Array,
  frame: Bytes,
  offset: Int32Array,
  alike: { base: number; scale: number },
): void {
  const { base: zero, scale } = alike;
  for (let i = 0, k = 0; i < count; i++) {
    const p = param[i]!;
    let v = base[i]!;
    for (const stop = k + depth; k < stop; k++) v += (from[k]! - v) * shares[weight[k]!]!;
    value[p] = v;
    putPlain(frame, offset[p]!, zero, scale, v);
  }
}

function alikeIn(b: Bucket, { plainOffset, plainBase, plainScale }: Rig): Bucket["alike"] {
  if (b.alike !== undefined) return b.alike;
  const [base, scale] = [plainBase[b.param[0]!]!, plainScale[b.param[0]!]!];
  for (let i = 0; i < b.count; i++) {
    const p = b.param[i]!;
    if (plainOffset[p]! < 0 || plainBase[p] !== base || plainScale[p] !== scale) return (b.alike = false);
  }
  return (b.alike = { base, scale });
}

/** A parameter comes from the topmost of its mixes that has begun. */
function tellSources(stage: Stage, b: Bucket, shares: Float64Array): void {
  b.told = true;
  for (let i = 0; i < b.count; i++) {
    let at = b.baseSource[i]!;
    for (let k = i * b.depth; k < (i + 1) * b.depth; k++) {
      if (shares[b.weight[k]!]! > 0) at = b.source[k]!;
      else b.told = false;
    }
    stage.source[b.param[i]!] = at;
  }
}

function runBucket({ stage, bytes: frame }: Player, b: Bucket, shares: Float64Array): void {
  const { value, raw, source: sources, rig } = stage;
  const { depth, count, param, base, baseSource, scale, from, by, level, weightFrom, weightBy, own, weight, source } =
    b;
  const { plainOffset, plainBase, plainScale } = rig;
  for (let i = 0, k = 0; i < count; i++) {
    const p = param[i]!;
    let v = base[i]!;
    let src = baseSource[i]!;
    for (const stop = k + depth; k < stop; k++) {
      const w = weightFrom[k]! + weightBy[k]! * shares[weight[k]!]!;
      if (w <= 0) continue;
      v += ((from[k]! + by[k]! * shares[own[k]!]!) * level[k]! - v) * w;
      src = source[k]!;
    }
    sources[p] = src;
    raw[p] = v;
    v *= scale[i]!;
    value[p] = v;
    const to = plainOffset[p]!;
    if (to >= 0) putPlain(frame, to, plainBase[p]!, plainScale[p]!, v);
    else if (to === -1) putFeeds(stage, frame, p);
  }
}
