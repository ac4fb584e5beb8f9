/** Which fixtures are dark on stage, and when that may next be otherwise: 0 from programmer, lists and effects (SEMANTICS 9). */
import { isIntensity, isLitBy } from "../../../program/light";
import { paramKey, type Id } from "../../../show/ids";
import { modelOf } from "../../../show/model";
import { SAME_TIME } from "../../../units/units";
import { stageTimeAt } from "../../lists/clock";
import { PLAYS } from "../../stage/heldEffects";
import { isEffect } from "../../stage/layers";
import { setClocks } from "../../player";
import { HERE } from "../../lists/reach";
import type { ListRun } from "../../lists/run";
import { peekRaw } from "../../stage/arbitration";
import { weightOf } from "../../stage/stage";
import type { Player } from "../../state";

/** What rises from now on is above 0 by then, and what ends now has ended. */
const JUST_AFTER = 2 * SAME_TIME;

/** The parameters of a fixture that light it, by their place; -1 for others. */
function dimmersOf(
  { world: { show }, rig }: Player,
  id: Id,
): { params: number[]; specs: ReturnType<typeof modelOf>["specs"] } {
  const fixture = show.fixtures[id];
  if (!fixture) return { params: [], specs: [] };
  const { specs } = modelOf(show, fixture);
  return {
    specs,
    params: specs.map((s) => (isIntensity(s) ? (rig.index.get(paramKey(id, s.cell, s.head)) ?? -1) : -1)),
  };
}

/** Whether an effect of a list or the hands plays on a parameter. */
function isPlayed({ stage, layers }: Player, param: number): boolean {
  if (!stage.blind && stage.heldEffects.way[param] === PLAYS) return true;
  for (let at = layers.head[param]!; at >= 0; at = layers.next[at]!)
    if (isEffect(layers.role[at]!) && layers.ownAt[at] === 0 && (layers.weightTo[at] !== 0 || weightOf(stage, at) > 0))
      return true;
  return false;
}

/** Looks at some fixtures as they are just after the player's time. @returns those that are dark. */
export function darkOf(player: Player, fixtures: Iterable<Id>): Set<Id> {
  const { stage } = player;
  const [now, lists] = [stage.now, Float64Array.from(stage.listNow)];
  setClocks(player, (now + JUST_AFTER) as typeof player.now);
  const dark = new Set<Id>();
  for (const id of fixtures) {
    const { specs, params } = dimmersOf(player, id);
    if (specs.length > 0 && !isLitBy(specs, (k) => isPlayed(player, params[k]!) || peekRaw(stage, params[k]!) > 0))
      dark.add(id);
  }
  setClocks(player, now as typeof player.now);
  stage.listNow.set(lists);
  return dark;
}

/** The stage time after now at which a fade that lights or darkens a fixture next begins or ends; Infinity for none. */
export function nextTurn(player: Player, id: Id, runs: readonly (ListRun | undefined)[]): number {
  const { stage, layers } = player;
  let first = Infinity;
  const take = (at: number) => {
    if (at > stage.now + SAME_TIME && at < first) first = at;
  };
  for (const param of dimmersOf(player, id).params) {
    if (param < 0) continue;
    for (let at = layers.head[param]!; at >= 0; at = layers.next[at]!) {
      const run = runs[layers.list[at]!];
      if (!run) continue;
      const fades = [
        [layers.weightAt[at]! + layers.weightDelay[at]!, layers.weightFade[at]!],
        ...(isEffect(layers.role[at]!) ? [] : [[layers.ownAt[at]! + layers.ownDelay[at]!, layers.ownFade[at]!]]),
      ] as [number, number][];
      for (const [begins, takes] of fades) {
        take(stageTimeAt(run.clock, begins as never));
        take(stageTimeAt(run.clock, (begins + takes) as never));
      }
    }
    if (stage.reach.way[param] !== HERE) take(stage.reach.at[param]! + stage.reach.seconds[param]!);
  }
  return first;
}
