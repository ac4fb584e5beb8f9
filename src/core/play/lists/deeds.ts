/** Carries out what the cards of playbacks decide. */
import { isRefusal, type Refusal } from "../../show/refusal";
import type { CueList } from "../../show/schema";
import { listTime, type ListTime } from "../../units/units";
import { arrive, finish } from "../arrive/arrive";
import { countIn, paceOf } from "./beats";
import { endByHand, moveByHand, putBack, standing } from "./byHand";
import { listTimeAt } from "./clock";
import type { Answer, Deed } from "./kinds/kind";
import { kindOf } from "./kinds/kinds";
import { eachLayer } from "../stage/layers";
import { layMorph } from "../stage/layMorph";
import { dropLayers, holdClocks, release, releaseOthers, resume } from "./leave";
import { loadLimits } from "../stage/overlays";
import { levelShown, type ListRun } from "./run";
import { touch } from "../stage/stage";
import type { Player } from "../state";

/** @param at the list time at which it happens, where that is not now. */
export function carryOut(player: Player, run: ListRun, answer: Answer, at?: ListTime): Refusal | undefined {
  if (answer === undefined || isRefusal(answer)) return answer;
  switch (answer.do) {
    case "arrive":
      return void goInto(player, run, answer, at);
    case "release":
      return void release(player, run, answer.time);
    case "byHand":
      return void moveByHand(player, player.world.show.lists[run.id]!, run, answer.was);
    case "lay":
      return void layMorph(player, player.world.show.lists[run.id]!, run);
    case "drop":
      return void dropLayers(player, run);
    case "resume":
      return void resume(player, run);
    case "pause":
      holdClocks(player, run, true);
      return undefined;
  }
}

/** A hand brings a list on timecode somewhere while that stands: it runs in real time until timecode runs or jumps. */
function runByItself({ now, stage }: Player, run: ListRun): void {
  const of = (base: number, rate: number) => ({ base: listTime(base), anchor: now, rate, paused: false });
  run.clock = of(stage.listNow[run.slot]!, run.rate);
  run.effects = of(stage.effectNow[run.slot]!, 1);
  run.synced = false;
}

function goInto(player: Player, run: ListRun, answer: Extract<Deed, { do: "arrive" }>, at?: ListTime): void {
  const list = player.world.show.lists[run.id]!;
  const { place, what, fade, step } = answer;
  if (answer.byHand) releaseOthers(player, run);
  if (answer.afresh) Object.assign(run, { flashed: false, cue: null });
  if (what !== "assert") endByHand(player, run);
  if (list.timecode && at === undefined && !run.follows) runByItself(player, run);
  if (at === undefined) resume(player, run);
  countIn(player, list, run, list.kind === "chase");
  const when = at ?? listTimeAt(run.clock, player.now);
  // Seconds told for a go are beats for a chase.
  const takes = fade !== undefined && answer.seconds ? fade * paceOf(list, run) : fade;
  arrive(player, run, place, { what, fade: takes, bends: answer.seconds === true, at: when });
  if (step) Object.assign(run, { beatAt: when, steppedAt: player.now, way: step.way, steps: step.steps });
  run.timedTo = listTime(Math.max(run.timedTo, when));
}

/** A level, or a flash, takes effect. @param was the level before it, percent. */
export function showLevel(player: Player, list: CueList, run: ListRun, was = run.level): void {
  const { stage, layers } = player;
  const kind = kindOf(list);
  finish(player);
  stage.listLevel[run.slot] = levelShown(run, list) / 100;
  if (kind.limits) return loadLimits(player);
  carryOut(player, run, kind.level(list, run, was));
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
  if (on && run.cue === null) run.releasing = standing(player, run);
  const { releasing } = run;
  if (!on && run.flashed && releasing) putBack(player, run, releasing);
  else carryOut(player, run, answer);
  if (!on) run.releasing = null;
  if (answer) Object.assign(run, { flashed: on, next }, on ? {} : { left });
  showLevel(player, list, run);
  return undefined;
}

/** Ends every flash: whoever held it is not there any more. */
export function endFlashes(player: Player): void {
  for (const run of player.runs.values()) {
    const list = player.world.show.lists[run.id];
    if (list && run.flash) flash(player, list, run, false);
  }
}
