/**
 * What happens by itself: one queue of what playbacks will do next, each at its exact time. It is asked of the
 * cards whenever time passes, so that no change of a clock, a trigger or a plan can leave something stale in it.
 */
import { SAME_TIME, stageTime, type StageTime } from "../../units/units";
import { finish } from "../arrive/arrive";
import { stageTimeAt } from "./clock";
import { watchBlack } from "../arrive/black/move";
import { carryOut } from "./deeds";
import { kindOf } from "./kinds/kinds";
import { listMay, macroMay } from "./halt";
import { setTime } from "../player";
import { firstEnd, moveRamps } from "./ramps";
import type { ListRun } from "./run";
import { loseTimecode, lostAt, runBackwards } from "./timecode/follow";
import type { Player, Waiting } from "../state";

/** The list that is due first, and when: kept outside so that a tick allocates nothing. At the same time the lower number comes first. */
let firstRun: ListRun | undefined;
let firstAt = Infinity;

function findFirst({ order, world }: Player): void {
  firstRun = undefined;
  firstAt = Infinity;
  for (let i = 0; i < order.length; i++) {
    const run = order[i]!;
    if (run.cue === null && !run.follows) continue;
    const list = world.show.lists[run.id]!;
    const due = kindOf(list).due(list, run, world.show.timecode);
    const at = due === Infinity ? Infinity : stageTimeAt(run.clock, due);
    if (at >= firstAt - SAME_TIME) continue;
    firstAt = at;
    firstRun = run;
  }
}

/** The longest pause between two taps that belong together, seconds (SEMANTICS 11). */
const TAPS_APART = 2;

/**
 * Whether time counts though nothing moves: something is due by itself, a macro waits, timecode runs, or a tap may follow
 * another. Whoever keeps the player's time keeps it meanwhile, too.
 */
export function isCounting(player: Player): boolean {
  const { waiting, timecode, order, now, blackNext } = player;
  if (waiting.length > 0 || timecode.speed !== 0 || blackNext < Infinity) return true;
  findFirst(player);
  if (firstAt < Infinity) return true;
  for (let i = 0; i < order.length; i++) {
    const { taps } = order[i]!;
    if (taps.length > 0 && now - taps[taps.length - 1]! <= TAPS_APART) return true;
  }
  return false;
}

/** The macro that goes on first; undefined where none waits. */
function firstWaiting({ waiting }: Player): Waiting | undefined {
  let first: Waiting | undefined;
  for (let i = 0; i < waiting.length; i++) if (!first || waiting[i]!.at < first.at) first = waiting[i];
  return first;
}

/**
 * Moves the clock to `to`: everything due up to and including then happens at its exact time, lower list number
 * first. Where arrivals are finished in pieces it ends early, with one of them unfinished.
 * @returns whether anything happened.
 */
export function advance(player: Player, to: StageTime): boolean {
  let happened = false;
  finish(player);
  for (;;) {
    findFirst(player);
    const lost = lostAt(player);
    if (lost <= to + SAME_TIME && lost < firstAt - SAME_TIME) {
      setTime(player, stageTime(Math.max(lost, player.now)));
      loseTimecode(player);
      happened = true;
      continue;
    }
    const waits = firstWaiting(player);
    if (waits && waits.at <= to + SAME_TIME && waits.at < firstAt - SAME_TIME) {
      setTime(player, stageTime(Math.max(waits.at, player.now)));
      moveRamps(player);
      player.waiting = player.waiting.filter((w) => w !== waits);
      if (macroMay(player, waits.macro)) player.goOn?.(waits);
      happened = true;
      continue;
    }
    const ramp = firstEnd(player);
    if (ramp <= to + SAME_TIME && ramp <= firstAt + SAME_TIME) {
      setTime(player, stageTime(Math.max(ramp, player.now)));
      moveRamps(player);
      watchBlack(player);
      happened = true;
      continue;
    }
    if (player.blackNext <= to + SAME_TIME && player.blackNext < firstAt - SAME_TIME) {
      setTime(player, stageTime(Math.max(player.blackNext, player.now)));
      moveRamps(player);
      watchBlack(player);
      happened = true;
      continue;
    }
    const run = firstRun;
    if (!run || firstAt > to + SAME_TIME) break;
    const list = player.world.show.lists[run.id]!;
    const kind = kindOf(list);
    const exact = kind.due(list, run, player.world.show.timecode);
    setTime(player, stageTime(Math.max(firstAt, player.now)));
    moveRamps(player);
    player.stage.listNow[run.slot] = exact;
    happened = true;
    if (!listMay(player, run)) continue;
    carryOut(player, run, kind.happen(list, run, player.world.show.timecode), exact);
    // The rest waits until this one is finished: it may bring more that is due.
    if (player.unfinished) return true;
  }
  const before = player.now;
  setTime(player, stageTime(Math.max(to, player.now)));
  moveRamps(player);
  if (player.now > before) runBackwards(player);
  return happened;
}
