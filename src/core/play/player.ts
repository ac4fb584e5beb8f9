/**
 * The player: the show's lists being played, on a clock that is handed in. The same code runs in the
 * browser's worker, in Node and in tests; what it gives does not depend on when it is asked.
 */
import type { World } from "../show/world";
import { listsByNumber } from "../show/world";
import { sequence, stageTime, type StageTime } from "../units/units";
import { newBudget } from "./lists/budget";
import { listTimeAt } from "./lists/clock";
import { kindOf } from "./lists/kinds/kinds";
import { withLanes } from "./lists/lanes";
import { createLayers, LATEST } from "./stage/layers";
import { glide, tryGlide } from "./stage/glide";
import { createBytes, putFeeds, putPlain } from "./stage/bytes";
import { loadHands, loadLimits } from "./stage/overlays";
import { compileRig, NOWHERE, type Rig } from "./stage/rig";
import { levelShown, newRun } from "./lists/run";
import { newTimecode } from "./lists/timecode/clock";
import { runStacks, tryStack } from "./stage/stack";
import { stacksMove } from "./stage/stacks";
import { runSwings, trySwing } from "./stage/swing";
import { swingsMove } from "./stage/swings";
import type { Player } from "./state";
import { computeParameter } from "./stage/arbitration";
import { createStage } from "./stage/stage";

/** A player at rest at stage time `now`. */
export function createPlayer(given: World, now: StageTime = stageTime(0)): Player {
  const world = withLanes(given);
  const rig = compileRig(world.show);
  const layers = createLayers(rig.size);
  const player: Player = {
    given,
    world,
    rig,
    layers,
    stage: createStage(rig, layers, 1),
    ...newBytes(rig),
    runs: new Map(),
    silent: [],
    order: [],
    ramps: [],
    blackNext: stageTime(Infinity),
    now,
    sequence: sequence(0),
    generation: 1,
    inPieces: false,
    unfinished: undefined,
    timecode: newTimecode(now),
    waiting: [],
    budget: newBudget(),
  };
  player.stage.now = now;
  syncRuns(player);
  loadHands(player);
  loadLimits(player);
  return player;
}

/** Fresh bytes of a rig, for the writer and for readers. */
export function newBytes(rig: Rig): Pick<Player, "frame" | "bytes"> {
  const bytes = createBytes(rig.universes.length);
  return { bytes, frame: new Uint8Array(bytes.buffer) };
}

/** Makes a run for every list; slots stay with their list. */
export function syncRuns(player: Player): void {
  const { stage, runs, world } = player;
  let slot = Math.max(-1, ...[...runs.values()].map((run) => run.slot)) + 1;
  for (const list of listsByNumber(world.show))
    if (!runs.has(list.id))
      runs.set(list.id, newRun(list, slot++, player.now, kindOf(list).firstLevel, world.show.seed));
  if (stage.listNow.length < slot) {
    const [now, level, effectNow] = [stage.listNow, stage.listLevel, stage.effectNow];
    stage.effectNow = new Float64Array(slot * 2);
    stage.effectNow.set(effectNow);
    stage.listNow = new Float64Array(slot * 2);
    stage.listLevel = new Float64Array(slot * 2).fill(1);
    stage.listLetsGo = new Uint8Array(slot * 2);
    stage.listMixes = new Uint8Array(slot * 2);
    stage.listNow.set(now);
    stage.listLevel.set(level);
  }
  player.order = listsByNumber(world.show).flatMap((list) => runs.get(list.id) ?? []);
  stage.othersUsed = listsByNumber(world.show).some((list) => kindOf(list).role(list, true) !== LATEST);
  for (const run of runs.values()) {
    stage.listNow[run.slot] = listTimeAt(run.clock, player.now);
    const list = world.show.lists[run.id];
    stage.listLevel[run.slot] = list ? levelShown(run, list) / 100 : 1;
    stage.listLetsGo[run.slot] = list?.letGo ? 1 : 0;
    stage.listMixes[run.slot] = list && kindOf(list).mixes ? 1 : 0;
  }
}

/** Sets the stage time a player stands at, and with it every list's own. */
export function setTime(player: Player, now: StageTime): void {
  player.now = now;
  const { order, stage } = player;
  stage.now = now;
  for (let i = 0; i < order.length; i++) {
    const { slot, clock, effects } = order[i]!;
    stage.listNow[slot] = listTimeAt(clock, now);
    stage.effectNow[slot] = listTimeAt(effects, now);
  }
}

/** Sets the lists' clocks alone, for a look at the stage as it is at another time. */
export function setClocks(player: Player, now: StageTime): void {
  const { now: kept } = player;
  setTime(player, now);
  player.now = kept;
}

/** Whether anything is on its way. */
export const isMoving = ({ stage, ramps }: Player): boolean =>
  stage.activeCount > 0 ||
  ramps.length > 0 ||
  stage.glides.groups.some((g) => g.count > 0) ||
  stacksMove(stage.stacks) ||
  swingsMove(stage.swings);

/** Computes everything that may have changed at the player's time, DMX included. */
export function compute(player: Player): void {
  const { stage, bytes } = player;
  glide(player);
  runStacks(player);
  runSwings(player);
  const count = stage.activeCount;
  // Until an arrival is finished, this is a look ahead: something may be due before the time that is shown.
  const settles = player.unfinished === undefined;
  let kept = 0;
  for (let i = 0; i < count; i++) {
    const p = stage.active[i]!;
    stage.touched[i] = p;
    if (stage.waits[p] === 1) stage.active[kept++] = p;
    else if (
      computeParameter(stage, p, settles) &&
      !tryGlide(player, p) &&
      !tryStack(player, p) &&
      !trySwing(player, p)
    )
      stage.active[kept++] = p;
    else stage.isActive[p] = 0;
  }
  stage.activeCount = kept;
  const { plainOffset, plainBase, plainScale } = stage.rig;
  for (let i = 0; i < count; i++) {
    const p = stage.touched[i]!;
    const at = plainOffset[p]!;
    if (at >= 0 && stage.fn[p] === 0) putPlain(bytes, at, plainBase[p]!, plainScale[p]!, stage.value[p]!);
    else if (at !== NOWHERE) putFeeds(stage, bytes, p);
  }
}
