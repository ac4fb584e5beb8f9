/**
 * Swinging parameters: an effect that is all there, over what stands still, with nothing laid over it. They are
 * kept in flat groups that run alike; a tick works a group's cycles out once and runs along its arrays. Anything
 * that touches a parameter takes it out.
 */
import { putFeeds } from "./bytes";
import { isEffect, LATEST, EFFECT } from "./layers";
import type { Player } from "../state";
import { layChainBelow } from "./arbitration";
import { masterOf, mayLieFlat, type Stage } from "./stage";
import { fillHeights, growSwing, swingOf } from "./swings";

/** The one effect on top of a chain that stands still; -1 where there is more to it. */
function onlyEffect(stage: Stage, param: number): number {
  const { layers, listNow } = stage;
  let found = -1;
  for (let at = layers.head[param]!; at >= 0; at = layers.next[at]!) {
    const now = listNow[layers.list[at]!]!;
    if (found >= 0 || now < layers.weightEnd[at]! || layers.toFn[at] !== 0) return -1;
    if (isEffect(layers.role[at]!)) {
      if (layers.role[at] !== EFFECT || layers.weightTo[at] !== 1 || stage.listMixes[layers.list[at]!] === 1) return -1;
      found = at;
    } else if (layers.role[at] !== LATEST || layers.fromFn[at] !== 0 || now < layers.ownEnd[at]!) return -1;
  }
  return found;
}

/** Puts a parameter into a group if one effect is all that moves on it. Returns whether it did. */
export function trySwing({ stage, layers, rig }: Player, param: number): boolean {
  if (layers.head[param]! < 0 || !mayLieFlat(stage, param)) return false;
  const at = onlyEffect(stage, param);
  const playing = at < 0 ? undefined : stage.effects[layers.ownTo[at]!];
  if (!playing) return false;
  const { stops } = playing;
  if (stops && (stops.fns.some((fn) => fn !== 0) || stops.values.some(Number.isNaN))) return false;
  const { swings } = stage;
  const list = layers.list[at]!;
  const which = swingOf(swings, list, layers.ownFrom[at]!, layers.ownDelay[at]!, playing);
  const g = swings.groups[which]!;
  if (g.count === g.param.length) growSwing(g);
  const place = g.count++;
  const level = layers.scaled[at] === 1 ? stage.listLevel[list]! : 1;
  const base = playing.around ? layChainBelow(stage, param, at) : 0;
  g.param[place] = param;
  g.to[place] = rig.plainOffset[param]!;
  g.offset[place] = playing.offset;
  g.seed[place] = playing.seed;
  g.low[place] = playing.around ? base + playing.low * level : playing.low;
  g.span[place] = playing.around ? playing.span * level : playing.span;
  g.min[place] = stops ? -Infinity : playing.min;
  g.max[place] = stops ? Infinity : playing.max;
  g.level[place] = playing.around ? 1 : level;
  g.scale[place] = masterOf(stage, param);
  if (stops) {
    g.low[place] = 0;
    g.span[place] = 1;
    g.values.set(stops.values, place * stops.values.length);
  }
  g.last[0] = NaN;
  stage.source[param] = at;
  stage.fn[param] = 0;
  swings.group[param] = which + 1;
  swings.place[param] = place;
  return true;
}

/** Moves every group along; those of lists that are held stay as they are. */
export function runSwings({ stage, bytes }: Player): void {
  const { swings, effectNow, raw, value } = stage;
  const { plainBase, plainScale } = stage.rig;
  for (let k = 0; k < swings.groups.length; k++) {
    const g = swings.groups[k]!;
    if (g.count === 0) continue;
    const cycles = g.cycles + (effectNow[g.list]! - g.from) * g.speed;
    if (cycles === g.last[0]) continue;
    g.last[0] = cycles;
    fillHeights(g);
    const { count, param, to, low, span, min, max, level, scale, height } = g;
    for (let i = 0; i < count; i++) {
      const p = param[i]!;
      let v = low[i]! + span[i]! * height[i]!;
      if (v < min[i]!) v = min[i]!;
      else if (v > max[i]!) v = max[i]!;
      v *= level[i]!;
      raw[p] = v;
      v *= scale[i]!;
      value[p] = v;
      const o = to[i]!;
      if (o >= 0) bytes[o] = plainBase[p]! + v * plainScale[p]!;
      else if (o === -1) putFeeds(stage, bytes, p);
    }
  }
}
