/**
 * The player: the show's lists being played, on a clock that is handed in. The same code runs in the
 * browser's worker, in Node and in tests; what it gives does not depend on when it is asked.
 */
import type { World } from "../show/world";
import { cuesOf, listsByNumber } from "../show/world";
import { listTime, SAME_TIME, sequence, stageTime, type ListTime, type StageTime } from "../units/units";
import { listTimeAt } from "./clock";
import { createLayers } from "./layers";
import { startMoves, type Arrival } from "./moves";
import { glide, tryGlide } from "./glide";
import { createBytes, putFeeds } from "./bytes";
import { loadHands, loadLimits } from "./overlays";
import { compileRig, type Rig } from "./rig";
import { automaticAt, dueAt, levelShown, newRun, nextPlace, placeOfCue, type ListRun } from "./run";
import { runStacks, tryStack } from "./stack";
import { stacksMove } from "./stacks";
import type { Player } from "./state";
import { computeParameter, createStage } from "./stage";

/** A player at rest at stage time `now`. */
export function createPlayer(world: World, now: StageTime = stageTime(0)): Player {
  const rig = compileRig(world.show);
  const layers = createLayers(rig.size);
  const player: Player = {
    world,
    rig,
    layers,
    stage: createStage(rig, layers, 1),
    ...newBytes(rig),
    runs: new Map(),
    silent: [],
    order: [],
    now,
    sequence: sequence(0),
    generation: 1,
  };
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
    if (!runs.has(list.id)) runs.set(list.id, newRun(list, slot++, player.now));
  if (stage.listNow.length < slot) {
    const [now, level] = [stage.listNow, stage.listLevel];
    stage.listNow = new Float64Array(slot * 2);
    stage.listLevel = new Float64Array(slot * 2).fill(1);
    stage.listLetsGo = new Uint8Array(slot * 2);
    stage.listNow.set(now);
    stage.listLevel.set(level);
  }
  player.order = listsByNumber(world.show).flatMap((list) => runs.get(list.id) ?? []);
  stage.othersUsed = listsByNumber(world.show).some(
    (list) => list.htp || list.kind === "submaster" || list.kind === "takeover",
  );
  for (const run of runs.values()) {
    stage.listNow[run.slot] = listTimeAt(run.clock, player.now);
    stage.listLevel[run.slot] = levelShown(run) / 100;
    stage.listLetsGo[run.slot] = world.show.lists[run.id]?.letGo ? 1 : 0;
  }
}

export function setTime(player: Player, now: StageTime): void {
  player.now = now;
  const { order, stage } = player;
  for (let i = 0; i < order.length; i++) stage.listNow[order[i]!.slot] = listTimeAt(order[i]!.clock, now);
}

/** Moves the clock to `to`: every automatic cue due up to and including then happens at its exact time, lower list number first. */
export function advance(player: Player, to: StageTime): boolean {
  let happened = false;
  for (;;) {
    let due = stageTime(Infinity);
    let which: ListRun | undefined;
    for (let i = 0; i < player.order.length; i++) {
      const run = player.order[i]!;
      if (run.cue === null) continue;
      const at = dueAt(player.world.show.lists[run.id]!, run);
      if (at < due - SAME_TIME) {
        due = at;
        which = run;
      }
    }
    if (!which || due > to + SAME_TIME) break;
    const list = player.world.show.lists[which.id]!;
    const exact = automaticAt(list, which);
    const before = placeOfCue(list, which.cue);
    setTime(player, stageTime(Math.max(due, player.now)));
    player.stage.listNow[which.slot] = exact;
    const place = nextPlace(list, which);
    const jumps = place !== nextPlace(list, { ...which, next: null });
    arrive(player, which, place, { what: jumps || before < 0 ? "everything" : "change", at: exact });
    happened = true;
  }
  setTime(player, stageTime(Math.max(to, player.now)));
  return happened;
}

/** Whether anything is on its way. */
export const isMoving = ({ stage }: Player): boolean =>
  stage.activeCount > 0 || stage.glides.groups.some((g) => g.count > 0) || stacksMove(stage.stacks);

/** Computes everything that may have changed at the player's time, DMX included. */
export function compute(player: Player): void {
  const { stage, bytes } = player;
  glide(player);
  runStacks(player);
  const count = stage.activeCount;
  let kept = 0;
  for (let i = 0; i < count; i++) {
    const p = stage.active[i]!;
    stage.touched[i] = p;
    if (computeParameter(stage, p) && !tryGlide(player, p) && !tryStack(player, p)) stage.active[kept++] = p;
    else stage.isActive[p] = 0;
  }
  stage.activeCount = kept;
  for (let i = 0; i < count; i++) putFeeds(stage, bytes, stage.touched[i]!);
}

/** A list arrives in a cue. Round the end, what tracked is dropped unless the list keeps it. */
export function arrive(
  player: Player,
  run: ListRun,
  to: number,
  how: { what: Arrival["what"]; fade?: number; at: ListTime },
): void {
  const list = player.world.show.lists[run.id]!;
  player.sequence = sequence(player.sequence + 1);
  const from = placeOfCue(list, run.cue);
  const wraps = how.what === "change" && to === 0 && from === cuesOf(list).length - 1;
  const carried = how.what === "everything" ? false : wraps ? !list.wrapDrop : run.carried;
  const longest = startMoves(player.stage, {
    show: player.world.show,
    list,
    slot: run.slot,
    from,
    to,
    carriedFrom: run.carried,
    carriedTo: carried,
    stamp: player.sequence,
    at: how.at,
    what: from < 0 ? "everything" : how.what,
    ...(how.fade === undefined ? {} : { fade: how.fade }),
  });
  run.stamp = player.sequence;
  if (how.what === "assert") return;
  run.carried = carried;
  run.cue = cuesOf(list)[to]!.id;
  run.next = null;
  run.arrived = how.at;
  if (to === 0) run.roundAt = how.at;
  run.complete = listTime(how.at + longest);
}
