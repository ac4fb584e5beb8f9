/** An arrival in a cue, and what every move of it needs: how a list's values count, their times, and how they go. */
import { moveTime, type MoveTime } from "../../cue/times";
import { inForceAt, trackingOf, type InForce, type Tracking } from "../../cue/tracking";
import type { Resolving } from "../../program/resolve";
import { paramKey, splitKey, type Id, type ParamKey } from "../../show/ids";
import type { Cue, CueList } from "../../show/schema";
import type { Timing } from "../../show/value";
import type { ListTime, Sequence } from "../../units/units";
import type { Moving } from "../lists/kinds/kind";
import { kindOf } from "../lists/kinds/kinds";
import { isEffect, layerOf, setWeight, steady, type Fade } from "../stage/layers";
import { BEND_CODES } from "../stage/progress";
import type { Rig } from "../stage/rig";
import { touch, weightOf, type Stage } from "../stage/stage";

export interface Arrival {
  /** What values resolve in. */
  show: Resolving;
  list: CueList;
  slot: number;
  /** Places in the list; -1 for a released list. */
  from: number;
  to: number;
  /** Whether what tracked came round the end, before and now. */
  carriedFrom: boolean;
  carriedTo: boolean;
  what: Moving;
  /** One fade for all moves instead of the cue's own times, and whether the cue's curve bends it. */
  fade?: number;
  bends?: boolean;
  stamp: Sequence;
  at: ListTime;
  /** Parameters of dark fixtures that go straight to where they will next be lit: only stamped. */
  passed?: ReadonlySet<ParamKey>;
  /** Parameters whose move in black is not complete when their fixture lights: they go on over the cue's time. */
  late?: ReadonlySet<ParamKey>;
  /** Those that have yet to come on top with that stamp. */
  stamps?: Set<ParamKey>;
  /** Fixtures that come up standing where they belong: their other parameters do not fade there. */
  ready?: ReadonlySet<Id>;
  /** Fixtures whose moves in the dark are meant, with the longest delay + fade of each so far. */
  meant?: Map<Id, number>;
}

/** How a list's values count for a parameter. */
export const roleOf = (list: CueList, rig: Rig, param: number): number =>
  kindOf(list).role(list, rig.intensity[param] === 1);

/** Levels scale once: what masters scale, or a cell's Dimmer where the list holds nothing of its fixture's now. @param place of the cue it stands in. */
export function isScaledIn(
  list: CueList,
  tracking: Tracking,
  rig: Rig,
  param: number,
  place: number,
  carried: boolean,
): boolean {
  if (!kindOf(list).scales) return false;
  if (rig.scaled[param] === 1) return true;
  if (rig.intensity[param] === 0) return false;
  return inForceAt(tracking, fixtureDimmer(rig, param), place, carried) === undefined;
}

const fixtureDimmer = (rig: Rig, param: number): ParamKey => paramKey(splitKey(rig.keys[param]!).fixture, 0, "Dimmer");

/** Once a list takes or lets go of a fixture's Dimmer, its level scales that, or the cells' again. */
export function rescaleCells(
  stage: Stage,
  arrival: Pick<Arrival, "show" | "list" | "slot" | "to" | "carriedTo">,
  key: ParamKey,
): void {
  if (!key.endsWith(".0.Dimmer")) return;
  const { rig, layers } = stage;
  const { fixture } = splitKey(key);
  const tracking = trackingOf(arrival.list, arrival.show);
  for (let number = 1; ; number++) {
    const param = rig.index.get(paramKey(fixture, number, "Dimmer"));
    if (param === undefined) return;
    const layer = layerOf(layers, param, arrival.slot);
    if (layer < 0) continue;
    layers.scaled[layer] = isScaledIn(arrival.list, tracking, rig, param, arrival.to, arrival.carriedTo) ? 1 : 0;
    touch(stage, param);
  }
}

/**
 * The times of a move: a list's one fade, else own timing stored in the cue, else the cue's. What a fixture that
 * comes up ready has besides its intensity does not fade, unless its own timing says so.
 */
export function timeOf(
  arrival: Arrival,
  cue: Cue,
  key: ParamKey,
  attribute: string,
  falling: boolean,
  target?: InForce,
): MoveTime {
  const own = target && target.at === arrival.to ? target.entry.time : undefined;
  return timeBy(arrival, cue, key, attribute, falling, own);
}

/** The same with own timing at hand. */
export function timeBy(
  arrival: Arrival,
  cue: Cue,
  key: ParamKey,
  attribute: string,
  falling: boolean,
  own: Timing | undefined,
): MoveTime {
  const ready = arrival.ready?.size && !key.endsWith(".Dimmer") && arrival.ready.has(splitKey(key).fixture);
  const time = moveTime(cue.times, attribute, falling, own);
  if (arrival.fade !== undefined)
    return { delay: 0, fade: ready ? 0 : arrival.fade, curve: arrival.bends ? time.curve : undefined };
  return ready ? { ...time, fade: own?.fade ?? 0 } : time;
}

/** The timing of a fade by a move's times. */
export const fadeOf = ({ delay, curve }: MoveTime, fade: number): Pick<Fade, "delay" | "fade" | "bend"> => ({
  delay,
  fade,
  ...(curve ? { bend: BEND_CODES[curve] } : {}),
});

/**
 * Takes the weight of every layer a list has on a parameter from where it is to nothing; what has none yet is gone at once.
 * @param what its values, or its effects; or all it gives, what is on its way out already included: so does a release.
 */
export function fadeAway(
  stage: Stage,
  param: number,
  slot: number,
  at: ListTime,
  time: MoveTime,
  what: { effects?: boolean; all?: boolean },
): void {
  const { layers } = stage;
  for (let layer = layers.head[param]!; layer >= 0; layer = layers.next[layer]!) {
    if (layers.list[layer] !== slot) continue;
    if (!what.all && (isEffect(layers.role[layer]!) !== (what.effects ?? false) || layers.weightTo[layer] === 0))
      continue;
    const from = weightOf(stage, layer);
    if (isEffect(layers.role[layer]!)) layers.ownAt[layer] = 0;
    setWeight(layers, layer, from > 0 ? { from, to: 0, at, ...fadeOf(time, time.fade) } : steady(0));
  }
  touch(stage, param);
}
