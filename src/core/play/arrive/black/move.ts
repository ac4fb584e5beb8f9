/** Moves in black as they run: begun when a fixture is dark from every source, held while one lights it (SEMANTICS 8 and 9). */
import type { Id, ParamKey } from "../../../show/ids";
import { isLitIn, lifeOf, usedIn } from "../../../cue/life";
import { trackingOf } from "../../../cue/tracking";
import type { CueList } from "../../../show/schema";
import { cuesOf } from "../../../show/world";
import { listTime, SAME_TIME, stageTime, type ListTime } from "../../../units/units";
import { roleOf } from "../arrival";
import { stageTimeAt } from "../../lists/clock";
import type { Moving } from "../../lists/kinds/kind";
import { kindOf } from "../../lists/kinds/kinds";
import { addLayer, layerOf, setOwn, setWeight, steady } from "../../stage/layers";
import { placeOfCue, type ListRun } from "../../lists/run";
import { ownValue } from "../../stage/arbitration";
import { hasStage, settleNow, touch, weightOf } from "../../stage/stage";
import type { Player } from "../../state";
import { darkOf, nextTurn } from "./dark";
import { planBlack, sameTargets, type BlackMove } from "./plan";

/** Values nearer than this are the same. */
const SAME_VALUE = 1e-9;

/** Whether a list moves in black at all: chases do not, nor what is run by hand. */
export const movesDark = (list: CueList): boolean => kindOf(list).movesInBlack && list.fader !== "crossfade";

/** The moves of a list in a cue; those that led to the same go on where they are. */
export function planFor(player: Player, run: ListRun, place: number, carried: boolean, edited = false): BlackMove[] {
  const list = player.world.show.lists[run.id];
  if (!list || !movesDark(list)) return [];
  const before = new Map(run.black.map((move) => [move.fixture, move]));
  return planBlack(player.world.show, list, place, carried).map((move) => {
    const old = before.get(move.fixture);
    if (!old) return move;
    if (sameTargets(old, move)) return { ...old, lights: move.lights };
    // An edit of where a move leads to leaves it the time it has.
    if (edited && old.begun && !old.done) {
      hold(player, run, old);
      return { ...move, left: old.left, after: old.after, begun: true };
    }
    return move;
  });
}

/** Sets the parameters of a move on their way, over the time it has left. */
function run(player: Player, list: CueList, of: ListRun, move: BlackMove): void {
  const { stage, layers, rig } = player;
  const at = stage.listNow[of.slot]!;
  for (const { key, value, fn, cue } of move.to) {
    const param = rig.index.get(key);
    if (param === undefined) continue;
    settleNow(stage, param);
    const layer = layerOf(layers, param, of.slot);
    // What is on its way there already is not begun anew.
    const isOnItsWay =
      layer >= 0 &&
      !of.blackStamps.has(key) &&
      layers.toFn[layer] === fn &&
      layers.weightTo[layer] === 1 &&
      Math.abs(layers.ownTo[layer]! - value) < SAME_VALUE;
    if (isOnItsWay) continue;
    const smooth = rig.mixes[param]![fn] === true;
    if (layer < 0 || (of.blackStamps.has(key) && !hasStage(stage, layer))) {
      addLayer(layers, {
        param,
        list: of.slot,
        priority: list.priority,
        stamp: of.stamp,
        cue: `c${cue}`,
        fromFn: fn,
        toFn: fn,
        role: roleOf(list, rig, param),
        scaled: false,
        own: steady(value),
        weight: { from: 0, to: 1, at, delay: 0, fade: smooth ? move.left : 0 },
      });
    } else {
      const from = ownValue(stage, layer);
      const same = layers.toFn[layer] === fn;
      setOwn(layers, layer, { from, to: value, at, delay: 0, fade: smooth && same ? move.left : 0 });
      const weight = weightOf(stage, layer);
      setWeight(
        layers,
        layer,
        weight >= 1 ? steady(1) : { from: weight, to: 1, at, delay: 0, fade: smooth ? move.left : 0 },
      );
      layers.fromFn[layer] = layers.toFn[layer]!;
      layers.toFn[layer] = fn;
      layers.cue[layer] = cue;
    }
    of.blackStamps.delete(key);
    touch(stage, param);
  }
  move.since = listTime(at);
  move.begun = true;
}

/** Leaves a move's parameters where they are, with the time it has left. */
function hold({ stage, layers, rig }: Player, of: ListRun, move: BlackMove): void {
  if (move.since === null) return;
  move.left = Math.max(0, move.left - (stage.listNow[of.slot]! - move.since));
  move.since = null;
  for (const { key } of move.to) {
    const param = rig.index.get(key);
    const layer = param === undefined ? -1 : layerOf(layers, param, of.slot);
    if (layer < 0) continue;
    const [own, weight] = [ownValue(stage, layer), weightOf(stage, layer)];
    const fn = layers.toFn[layer]!;
    setOwn(layers, layer, steady(own));
    setWeight(layers, layer, steady(weight));
    layers.fromFn[layer] = fn;
    touch(stage, param!);
  }
}

/** Begins, holds and ends moves as their fixtures are dark or lit now, and finds out when to look again. */
export function watchBlack(player: Player): void {
  const { stage } = player;
  player.blackNext = stageTime(Infinity);
  if (player.unfinished) return;
  const open = player.order.filter((r) => r.cue !== null && r.black.some((m) => !m.done));
  if (open.length === 0) return;
  const moves = open.flatMap((r) => r.black.filter((m) => !m.done));
  const dark = darkOf(player, new Set(moves.map((m) => m.fixture)));
  const runs: (ListRun | undefined)[] = [];
  for (const r of player.order) runs[r.slot] = r;
  let next = Infinity;
  for (const of of open) {
    const list = player.world.show.lists[of.id]!;
    const now = stage.listNow[of.slot]!;
    for (const move of of.black) {
      if (move.done) continue;
      if (move.since !== null && now >= move.since + move.left - SAME_TIME) {
        move.done = true;
        continue;
      }
      if (!dark.has(move.fixture)) hold(player, of, move);
      else if (move.since === null) {
        if (now >= move.after - SAME_TIME) run(player, list, of, move);
        else next = Math.min(next, stageTimeAt(of.clock, move.after));
      }
      if (move.since !== null) next = Math.min(next, stageTimeAt(of.clock, listTime(move.since + move.left)));
      next = Math.min(next, nextTurn(player, move.fixture, runs));
    }
  }
  player.blackNext = stageTime(next);
}

/** What is stamped under another list comes on top anew, in the time its move has left. */
export function comeOnTop(player: Player, of: ListRun, at: ListTime): void {
  for (const move of of.black) {
    if (!move.begun || !move.to.some(({ key }) => of.blackStamps.has(key))) continue;
    if (move.done) move.left = player.world.show.lists[of.id]!.blackTime;
    else if (move.since !== null) move.left = Math.max(0, move.left - (at - move.since));
    Object.assign(move, { since: null, done: false });
  }
}

/** Plans anew what running lists move in black, after an edit of the show. */
export function replanBlack(player: Player): void {
  for (const of of player.runs.values()) {
    const list = player.world.show.lists[of.id];
    if (!list || of.cue === null) continue;
    of.black = planFor(player, of, placeOfCue(list, of.cue), of.carried, true);
  }
}

/** The parameters that a list's moves in black have taken, or are taking, elsewhere than its cue has them. */
export const aheadOf = (run: ListRun): ReadonlySet<ParamKey> =>
  new Set(run.black.flatMap((m) => (m.begun ? m.to.map((t) => t.key) : [])));

export interface InTheDark {
  /** The moves from now on. */
  plan: BlackMove[];
  /** Parameters that go straight to where they will next be lit. */
  passed: ReadonlySet<ParamKey>;
  /** Parameters still on their way when their fixture lights. */
  late: ReadonlySet<ParamKey>;
  /** Fixtures that come up from the dark and are to stand where they belong. */
  comeUp: ReadonlySet<Id>;
  /** Fixtures whose moves in the dark are meant, for the length of each to be noted. */
  meant: Map<Id, number>;
}

/** What an arrival in the cue at a place means for the dark, judged on stage as it comes. */
export function judgeBlack(
  player: Player,
  of: ListRun,
  to: number,
  carried: boolean,
  what: Moving,
  list: CueList,
): InTheDark {
  const { show } = player.world;
  const cue = cuesOf(list)[to]!;
  const asserts = what === "assert";
  const plan = asserts ? of.black : planFor(player, of, to, carried);
  const readies = !asserts && kindOf(list).movesInBlack && (cue.ready ?? list.ready);
  const comesUp = readies
    ? usedIn(show, trackingOf(list, show))
        .filter((f) => isLitIn(lifeOf(show, list, f), to))
        .map((f) => f.id)
    : [];
  const asked = [...plan.map((m) => m.fixture), ...comesUp];
  const dark = asked.length > 0 ? darkOf(player, new Set(asked)) : new Set<Id>();
  const passed = new Set<ParamKey>();
  const meant = new Map<Id, number>();
  const moves = plan.map((move) => {
    if (asserts) {
      if (move.begun) for (const { key } of move.to) passed.add(key);
      return move;
    }
    const isMeant = cue.meant?.includes(move.fixture) ?? false;
    if (isMeant) meant.set(move.fixture, 0);
    if (dark.has(move.fixture) && !isMeant) {
      for (const { key } of move.to) passed.add(key);
      return move;
    }
    // It goes where this cue has it first: what has been moved before is to be moved again.
    return move.done || isMeant ? { ...move, left: list.blackTime, since: null, begun: false, done: false } : move;
  });
  const planned = new Set(plan.map((m) => m.fixture));
  const late = new Set(
    of.black.flatMap((m) => (m.begun && !m.done && !planned.has(m.fixture) ? m.to.map((t) => t.key) : [])),
  );
  return { plan: moves, passed, late, comeUp: new Set(comesUp.filter((id) => dark.has(id))), meant };
}
