/**
 * Gliding parameters: those of which nothing moves but one fade, so that their value is a straight line
 * over its progress. They are kept in flat groups with one timing each; a tick works out a group's
 * progress once and runs along its arrays. Anything that touches a parameter takes it out of its group.
 */
import type { Glide, Glides } from "./glides";
import { grown } from "./grown";
import type { Player } from "../state";
import { putFeeds, putPlain } from "./bytes";
import type { Bytes } from "./output";
import { isOver, progress } from "./progress";
import { chainSource, layChain } from "./arbitration";
import { masterOf, mayRunFlat, touch, type Stage } from "./stage";

type Common = Pick<Glide, "list" | "at" | "delay" | "fade" | "base" | "scale" | "same">;

const isOf = (g: Glide, c: Common): boolean =>
  g.list === c.list &&
  g.at === c.at &&
  g.delay === c.delay &&
  g.fade === c.fade &&
  g.base === c.base &&
  g.scale === c.scale &&
  g.same === c.same;

function groupFor(glides: Glides, common: Common): number {
  // Neighbours move alike: most find the group of the one before.
  const last = glides.groups[glides.last];
  if (last && isOf(last, common)) return glides.last;
  return (glides.last = findGroup(glides, common));
}

function findGroup(glides: Glides, common: Common): number {
  const key = `${common.list} ${common.at} ${common.delay} ${common.fade} ${common.base} ${common.scale} ${common.same}`;
  const known = glides.index.get(key);
  if (known !== undefined) return known;
  // Groups that have emptied are used again before new ones are made.
  if (glides.index.size > 64 && glides.groups.every((g) => g.count === 0)) {
    glides.index.clear();
    glides.groups.length = 0;
  }
  const size = 64;
  glides.groups.push({
    ...common,
    count: 0,
    last: Float64Array.of(-1),
    told: false,
    straight: undefined,
    param: new Int32Array(size),
    source: new Int32Array(size),
    offset: new Int32Array(size),
    from: new Float64Array(size),
    by: new Float64Array(size),
    rawFrom: new Float64Array(size),
    rawBy: new Float64Array(size),
  });
  glides.index.set(key, glides.groups.length - 1);
  return glides.groups.length - 1;
}

function grow(g: Glide): void {
  for (const field of ["param", "source", "offset"] as const) g[field] = grown(g[field]);
  for (const field of ["from", "by", "rawFrom", "rawBy"] as const) g[field] = grown(g[field]);
}

/** The one layer that moves on a parameter, and what of it; undefined where more than a straight line is going on. */
function onlyMove(stage: Stage, param: number): { layer: number; own: boolean } | undefined {
  const { layers } = stage;
  let found: { layer: number; own: boolean } | undefined;
  for (let at = layers.head[param]!; at >= 0; at = layers.next[at]!) {
    const now = stage.listNow[layers.list[at]!]!;
    const own = now < layers.ownEnd[at]!;
    const weight = now < layers.weightEnd[at]!;
    if (!own && !weight) continue;
    if (found || (own && weight)) return undefined;
    found = { layer: at, own };
  }
  return found;
}

/** Puts a moving parameter into a group if a straight line is all it does. Returns whether it did. */
export function tryGlide(player: Player, param: number): boolean {
  const { stage, layers } = player;
  const move = mayRunFlat(stage, param) ? onlyMove(stage, param) : undefined;
  if (!move) return false;
  const { layer, own } = move;
  const [ats, ends] = own ? [layers.ownAt, layers.ownEnd] : [layers.weightAt, layers.weightEnd];
  const at = ats[layer]!;
  const over = ends[layer]!;
  ats[layer] = Infinity;
  ends[layer] = Infinity;
  const start = layChain(stage, param);
  const startSource = chainSource();
  ends[layer] = -Infinity;
  const end = layChain(stage, param);
  const source = layers.weightTo[layer] === 0 ? startSource : chainSource();
  ats[layer] = at;
  ends[layer] = over;
  const scale = masterOf(stage, param);
  const { glides } = stage;
  const { plainOffset, plainBase, plainScale } = stage.rig;
  const offset = plainOffset[param]!;
  const index = groupFor(glides, {
    list: layers.list[layer]!,
    at,
    delay: (own ? layers.ownDelay : layers.weightDelay)[layer]!,
    fade: (own ? layers.ownFade : layers.weightFade)[layer]!,
    base: offset >= 0 ? plainBase[param]! : 0,
    scale: offset >= 0 ? plainScale[param]! : 0,
    same: scale === 1,
  });
  const g = glides.groups[index]!;
  if (g.count === g.param.length) grow(g);
  const place = g.count++;
  g.param[place] = param;
  g.offset[place] = offset;
  g.source[place] = source;
  g.told = false;
  g.straight = undefined;
  g.rawFrom[place] = start;
  g.rawBy[place] = end - start;
  g.from[place] = start * scale;
  g.by[place] = (end - start) * scale;
  g.last[0] = -1;
  glides.group[param] = index + 1;
  glides.place[param] = place;
  return true;
}

/** Moves every group along; one that is over goes back to be settled. */
export function glide(player: Player): void {
  const { stage } = player;
  for (const g of stage.glides.groups) {
    if (g.count === 0) continue;
    const now = stage.listNow[g.list]!;
    if (isOver(now, g.at, g.delay, g.fade)) {
      while (g.count > 0) touch(stage, g.param[g.count - 1]!);
      continue;
    }
    const share = progress(now, g.at, g.delay, g.fade);
    if (share === g.last[0]) continue;
    g.last[0] = share;
    if (!g.told && share > 0) {
      for (let i = 0; i < g.count; i++) stage.source[g.param[i]!] = g.source[i]!;
      g.told = true;
    }
    run(player, g);
  }
}

function run({ stage, bytes: frame }: Player, g: Glide): void {
  if (g.same && g.scale !== 0) {
    const straight = straightOf(g, stage, frame);
    return straight ? runStraight(g, straight.value, straight.bytes) : runPlain(g, stage.value, frame);
  }
  const { value, raw } = stage;
  const { param, from, by, rawFrom, rawBy, offset, base, scale, count } = g;
  const share = g.last[0]!;
  for (let i = 0; i < count; i++) {
    const p = param[i]!;
    const v = from[i]! + by[i]! * share;
    value[p] = v;
    raw[p] = rawFrom[i]! + rawBy[i]! * share;
    const to = offset[i]!;
    if (to >= 0) putPlain(frame, to, base, scale, v);
    else if (to === -1) putFeeds(stage, frame, p);
  }
}

/** Whether parameters and bytes of a group follow each other without gaps: worked out when the group has changed. */
function straightOf(g: Glide, { value }: Stage, frame: Bytes): Glide["straight"] {
  if (g.straight !== undefined) return g.straight;
  const [param, offset] = [g.param[0]!, g.offset[0]!];
  for (let i = 1; i < g.count; i++)
    if (g.param[i] !== param + i || g.offset[i] !== offset + i) return (g.straight = false);
  return (g.straight = {
    value: value.subarray(param, param + g.count),
    bytes: frame.subarray(offset, offset + g.count),
  });
}

function runStraight({ from, by, count, base, scale, last }: Glide, value: Float64Array, bytes: Bytes): void {
  const share = last[0]!;
  for (let i = 0; i < count; i++) {
    const v = from[i]! + by[i]! * share;
    value[i] = v;
    putPlain(bytes, i, base, scale, v);
  }
}

/** The commonest glide, whose values before masters are those after (`copyRaw`): unscaled parameters on plain 8-bit channels. Kept small, so that it compiles to a tight loop. */
function runPlain(
  { param, offset, from, by, count, base, scale, last }: Glide,
  value: Float64Array,
  frame: Bytes,
): void {
  const share = last[0]!;
  for (let i = 0; i < count; i++) {
    const p = param[i]!;
    const v = from[i]! + by[i]! * share;
    value[p] = v;
    putPlain(frame, offset[i]!, base, scale, v);
  }
}

/** Copies the values before masters, those of unscaled glides included. */
export function copyRaw(stage: Stage, into: Float64Array): void {
  into.set(stage.raw);
  for (const g of stage.glides.groups)
    if (g.same) for (let i = 0; i < g.count; i++) into[g.param[i]!] = stage.value[g.param[i]!]!;
  for (const b of stage.stacks.buckets)
    if (b.mixesIn) for (let i = 0; i < b.count; i++) into[b.param[i]!] = stage.value[b.param[i]!]!;
}

/** A parameter's value before masters. */
export function rawAt(stage: Stage, param: number): number {
  const group = stage.glides.groups[stage.glides.group[param]! - 1];
  const bucket = stage.stacks.buckets[stage.stacks.bucket[param]! - 1];
  return (group?.same ?? bucket?.mixesIn) ? stage.value[param]! : stage.raw[param]!;
}
