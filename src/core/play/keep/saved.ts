/** Playing as plain data, so that a reload picks the stage up where it was. */
import { trackingOf } from "../../cue/tracking";
import { splitKey, type ParamKey } from "../../show/ids";
import type { Entry } from "../../show/value";
import { listTime, sequence, stageTime } from "../../units/units";
import { listTimeAt } from "../lists/clock";
import { framesAt } from "../lists/timecode/clock";
import { finish } from "../arrive/arrive";
import { planFor, watchBlack } from "../arrive/black/move";
import type { BlackMove } from "../arrive/black/plan";
import { refresh } from "../edit/edit";
import { placeOfCue, type ByHand, type ListRun } from "../lists/run";
import { heldCycles, PLAYS } from "../stage/heldEffects";
import { eachLayer, isEffect } from "../stage/layers";
import { loadLimits } from "../stage/overlays";
import { syncRuns } from "../player";
import { playingOf, type Playing } from "../stage/playing";
import type { Player } from "../state";
import type { SavedHand, SavedPlay } from "./savedSchema";
import { putLayer, readLayer, type KeptLayer } from "../stage/silent";
import { keepPlaying, touchAll } from "../stage/stage";

/** The running state, whole: lists with their clocks, layers, masters. Reading it back goes on from the same instant. */
export function savePlay(player: Player): SavedPlay {
  finish(player);
  const { layers, rig, stage } = player;
  const ids = new Map([...player.runs.values()].map((run) => [run.slot, run.id]));
  return {
    now: player.now,
    sequence: player.sequence,
    grand: stage.grand,
    blackout: stage.blackout,
    runs: [...player.runs.values()].map((run) => ({
      id: run.id,
      cue: run.cue,
      next: run.next,
      left: run.left,
      carried: run.carried,
      flash: run.flash,
      flashed: run.flashed,
      level: run.level,
      arrived: run.arrived,
      complete: run.complete,
      roundAt: run.roundAt,
      since: run.since,
      stamp: run.stamp,
      time: stage.listNow[run.slot]!,
      effectTime: stage.effectNow[run.slot]!,
      effectRate: run.effects.rate,
      rate: run.clock.rate,
      paused: run.clock.paused,
      pace: run.rate,
      beats: run.beats,
      bpm: run.bpm,
      beatAt: run.beatAt,
      stepped: player.now - run.steppedAt,
      way: run.way,
      steps: run.steps,
      end: run.end,
      byHand: run.byHand,
      follows: run.follows,
      synced: run.synced,
      timedTo: run.timedTo,
      hand: run.hand && savedHand(player, run.hand),
      black: run.black.map(({ fixture, left, since, after, begun, done }) => ({
        fixture,
        left,
        since,
        after: Number.isFinite(after) ? after : null,
        begun,
        done,
      })),
    })),
    ramps: player.ramps.map((r) => ({ ...r })),
    timecode: {
      frames: framesAt(player.timecode, player.world.show.timecode, player.now),
      speed: player.timecode.speed,
      outside: player.timecode.outside,
    },
    waiting: player.waiting.map(({ at, macro, lines }) => ({ ahead: at - player.now, macro, lines })),
    held: savedCycles(player),
    layers: [...player.silent, ...[...eachLayer(layers)].map((at) => readLayer(layers, rig, at))].map(
      ({ priority: _priority, list, ...layer }) => ({ ...layer, list: ids.get(list) ?? "" }),
    ),
  };
}

/** Where held effects are in their cycles. */
function savedCycles({ rig, stage: { heldEffects }, now }: Player): SavedPlay["held"] {
  const made: SavedPlay["held"] = [];
  for (let p = 0; p < rig.size; p++)
    if (heldEffects.way[p] === PLAYS) made.push({ key: rig.keys[p]!, cycles: heldCycles(heldEffects, p, now) });
  return made;
}

function savedHand(player: Player, { start, longest, before }: ByHand): SavedHand {
  const { clock, layers, ...rest } = before;
  return {
    start,
    longest,
    before: {
      ...rest,
      time: listTimeAt(clock, player.now),
      layers: layers.map(({ plays: _plays, list: _list, ...layer }) => ({ ...layer, list: "" })),
    },
  };
}

/** The way a list was on by hand; effects of before it are found again by their entries. */
function readHand(player: Player, run: ListRun, hand: SavedHand): ByHand {
  const { time, layers, arrived, complete, roundAt, since, stamp, ...rest } = hand.before;
  const list = player.world.show.lists[run.id]!;
  return {
    start: listTime(hand.start),
    longest: hand.longest,
    before: {
      ...rest,
      arrived: listTime(arrived),
      complete: listTime(complete),
      roundAt: listTime(roundAt),
      since: listTime(since),
      stamp: sequence(stamp),
      clock: { base: listTime(time), anchor: player.now, rate: run.rate, paused: false },
      layers: layers.flatMap(({ from, to, fromFn: _from, toFn: _to, list: _list, ...layer }): KeptLayer[] => {
        const entry = list.cues[layer.cue]?.entries[layer.key];
        const plays = isEffect(layer.role) && entry ? playingAt(player, layer.key, entry) : undefined;
        if (from === undefined || to === undefined || (isEffect(layer.role) && !plays)) return [];
        return [{ ...layer, from, to, list: run.slot, ...(plays ? { plays } : {}) }];
      }),
    },
  };
}

/** Puts a saved state on a fresh player. List clocks go on from the saved instant; what no longer exists is left out. */
export function restorePlay(player: Player, saved: SavedPlay): void {
  player.sequence = sequence(saved.sequence);
  player.stage.grand = saved.grand;
  player.stage.blackout = saved.blackout;
  for (const run of saved.runs) {
    const list = player.world.show.lists[run.id];
    const made = player.runs.get(run.id);
    if (!list || !made) continue;
    const cue = run.cue !== null && list.cues[run.cue] ? run.cue : null;
    Object.assign(made, {
      cue,
      next: run.next !== null && list.cues[run.next] ? run.next : null,
      left: run.left,
      carried: run.carried,
      flash: run.flash,
      flashed: run.flashed,
      level: run.level,
      arrived: listTime(run.arrived),
      complete: listTime(run.complete),
      roundAt: listTime(run.roundAt),
      since: listTime(run.since),
      stamp: sequence(run.stamp),
      rate: run.pace ?? run.rate,
      beats: run.beats,
      bpm: run.bpm,
      beatAt: listTime(run.beatAt),
      steppedAt: stageTime(player.now - run.stepped),
      way: run.way,
      steps: run.steps,
      end: run.end,
      byHand: run.byHand,
      follows: run.follows,
      synced: run.synced,
      timedTo: listTime(run.timedTo),
      clock: { base: listTime(run.time), anchor: player.now, rate: run.rate, paused: run.paused },
      effects: {
        base: listTime(run.effectTime ?? run.time),
        anchor: player.now,
        rate: run.effectRate,
        paused: run.paused,
      },
    });
    if (run.hand) made.hand = readHand(player, made, run.hand);
    made.black = planFor(player, made, placeOfCue(list, cue), run.carried).map((move): BlackMove => {
      const old = run.black.find((m) => m.fixture === move.fixture);
      if (!old) return move;
      const { left, since, after, begun, done } = old;
      return {
        ...move,
        left,
        since: since === null ? null : listTime(since),
        after: listTime(after ?? -Infinity),
        begun,
        done,
      };
    });
    player.stage.listNow[made.slot] = run.time;
    player.stage.effectNow[made.slot] = run.effectTime ?? run.time;
  }
  if (saved.timecode) {
    const { frames, speed, outside } = saved.timecode;
    Object.assign(player.timecode, { base: frames, anchor: player.now, speed, outside, heard: player.now });
  }
  player.waiting = saved.waiting.map(({ ahead, ...rest }) => ({
    ...rest,
    at: stageTime(player.now + Math.max(0, ahead)),
  }));
  player.ramps = saved.ramps
    .filter((r) => r.list === null || player.runs.has(r.list))
    .map((r) => ({ ...r, at: stageTime(r.at) }));
  syncRuns(player);
  loadLimits(player);
  for (const layer of saved.layers) {
    const run = player.runs.get(layer.list);
    const list = player.world.show.lists[layer.list];
    if (!run || !list) continue;
    const functions = player.rig.specs[player.rig.index.get(layer.key) ?? -1]?.functions;
    const [from, to] = [
      layer.from ?? functions?.[layer.fromFn ?? 0]?.attribute,
      layer.to ?? functions?.[layer.toFn ?? 0]?.attribute,
    ];
    if (from === undefined || to === undefined) continue;
    const entry = list.cues[layer.cue]?.entries[layer.key];
    const plays = isEffect(layer.role) && entry ? playingAt(player, layer.key, entry) : undefined;
    if (isEffect(layer.role) && !plays) continue;
    const made = {
      key: layer.key,
      list: run.slot,
      priority: list.priority,
      stamp: layer.stamp,
      cue: layer.cue,
      own: plays ? { ...layer.own, to: keepPlaying(player.stage, plays) } : layer.own,
      weight: layer.weight,
      role: layer.role,
      scaled: layer.scaled,
      from,
      to,
    };
    if (
      !putLayer(player.layers, player.rig, player.world.show, made) &&
      player.world.show.fixtures[splitKey(layer.key).fixture]
    )
      player.silent.push(made);
  }
  for (const { key, cycles } of saved.held) {
    const p = player.rig.index.get(key);
    if (p !== undefined) Object.assign(player.stage.heldEffects.cycles, { [p]: cycles });
  }
  // What was edited after the last save is on stage all the same.
  for (const run of player.runs.values()) {
    const list = player.world.show.lists[run.id]!;
    if (run.cue !== null) refresh(player, run, list, trackingOf(list, player.world.show).columns.keys(), !list.letGo);
  }
  touchAll(player.stage);
  watchBlack(player);
}

function playingAt({ rig, world }: Player, key: ParamKey, entry: Entry): Playing | undefined {
  const p = rig.index.get(key);
  return p === undefined ? undefined : playingOf(world.show, key, rig.specs[p]!, rig.mixes[p]!, entry);
}
