/** Carries out what the cards of playbacks decide. */
import { isRefusal, type Refusal } from "../show/refusal";
import type { CueList } from "../show/schema";
import type { ListTime } from "../units/units";
import { arrive, finish } from "./arrive";
import { listTimeAt } from "./clock";
import type { Answer } from "./kinds/kind";
import { kindOf } from "./kinds/kinds";
import { eachLayer } from "./layers";
import { dropLayers, holdClocks, release, resume } from "./leave";
import { loadLimits } from "./overlays";
import { levelShown, type ListRun } from "./run";
import { touch } from "./stage";
import type { Player } from "./state";

/** @param at the list time at which it happens, where that is not now. */
export function carryOut(player: Player, run: ListRun, answer: Answer, at?: ListTime): Refusal | undefined {
  if (answer === undefined || isRefusal(answer)) return answer;
  switch (answer.do) {
    case "arrive": {
      if (answer.byHand)
        for (const other of player.runs.values())
          if (other !== run && player.world.show.lists[other.id]?.bowOut) release(player, other);
      if (answer.afresh) Object.assign(run, { flashed: false, cue: null });
      if (at === undefined) resume(player, run);
      const { place, what, fade } = answer;
      return void arrive(player, run, place, { what, fade, at: at ?? listTimeAt(run.clock, player.now) });
    }
    case "release":
      return void release(player, run, answer.time);
    case "drop":
      return void dropLayers(player, run);
    case "resume":
      return void resume(player, run);
    case "pause":
      holdClocks(player, run, true);
      return undefined;
  }
}

/** A level, or a flash, takes effect. */
export function showLevel(player: Player, list: CueList, run: ListRun): void {
  const { stage, layers } = player;
  const kind = kindOf(list);
  finish(player);
  stage.listLevel[run.slot] = levelShown(run) / 100;
  if (kind.limits) return loadLimits(player);
  carryOut(player, run, kind.level(list, run));
  for (const layer of eachLayer(layers)) if (layers.list[layer] === run.slot) touch(stage, layers.param[layer]!);
}

/** Level 100 while held; a released cue list shows its first cue while held. */
export function flash(player: Player, list: CueList, run: ListRun, on: boolean): Refusal | undefined {
  const answer = kindOf(list).flash(list, run, on);
  if (isRefusal(answer)) return answer;
  if (run.flash === on) return undefined;
  run.flash = on;
  // A planned go, and where it was left, are none of a flash's business.
  const { next, left } = run;
  carryOut(player, run, answer);
  if (answer) Object.assign(run, { flashed: on, next }, on ? {} : { left });
  showLevel(player, list, run);
  return undefined;
}
