/** Lists that follow timecode: at any instant they stand as they would had it run there from its start (SEMANTICS 11). */
import type { Refusal } from "../../../show/refusal";
import type { CueList } from "../../../show/schema";
import { listTime, SAME_TIME, type StageTime } from "../../../units/units";
import { finish } from "../../arrive/arrive";
import { watchBlack } from "../../arrive/black/move";
import { carryOut } from "../deeds";
import type { PlayEvent } from "../../events";
import { timedCues } from "../kinds/cues";
import { kindOf } from "../kinds/kinds";
import { eachLayer } from "../../stage/layers";
import { dropLayers } from "../leave";
import type { ListRun } from "../run";
import { touch } from "../../stage/stage";
import type { Player } from "../../state";
import { framesAt, givenUpAt, secondsAt } from "./clock";

type Heard = Extract<PlayEvent, { kind: "timecode" }>;

/** A difference of more than this, frames, is a jump. */
const JUMP = 2 + 1e-6;

/** It is where it was thought to be: nothing is set anew for less, frames. */
const AS_EXPECTED = 0.1;

/** The lists that follow, with how they stand. */
function* followers({ order, world }: Player): Generator<[CueList, ListRun]> {
  for (const run of order) {
    const list = world.show.lists[run.id];
    if (list?.kind === "list" && list.timecode) yield [list, run];
  }
}

/** Ties a list's clocks to timecode as it runs, or stands. */
function tie(player: Player, run: ListRun): void {
  const { timecode, world, now, stage } = player;
  const base = listTime(secondsAt(timecode, world.show.timecode, now));
  const runs = timecode.speed === 1 && now < givenUpAt(timecode, world.show.timecode) - SAME_TIME;
  run.clock = { base, anchor: now, rate: runs ? 1 : 0, paused: false };
  run.effects = { ...run.clock };
  run.follows = runs;
  stage.listNow[run.slot] = base;
  stage.effectNow[run.slot] = base;
}

/** Lets a list stand as it would had timecode run to where it is from its start. */
function locate(player: Player, list: CueList, run: ListRun): void {
  const { world, stage, now } = player;
  const of = world.show.timecode;
  const seconds = secondsAt(player.timecode, of, now);
  finish(player);
  dropLayers(player, run);
  Object.assign(run, {
    carried: false,
    flashed: false,
    left: null,
    follows: true,
    since: listTime(-1),
    timedTo: listTime(-1),
  });
  const standAt = (time: number) => {
    run.clock = { base: listTime(time), anchor: now, rate: 0, paused: false };
    run.effects = { ...run.clock };
    stage.listNow[run.slot] = time;
    stage.effectNow[run.slot] = time;
  };
  const kind = kindOf(list);
  const most = timedCues(list, of).length + Object.keys(list.cues).length * 4 + 100;
  for (let k = 0; k < most; k++) {
    const due = kind.due(list, run, of);
    if (due > seconds + SAME_TIME) break;
    moveDark(player, run, due, standAt);
    standAt(due);
    carryOut(player, run, kind.happen(list, run, of), due);
    finish(player);
  }
  moveDark(player, run, seconds, standAt);
  run.synced = true;
  tie(player, run);
}

/** So often what moves in black is looked at on the way to a time, at the most. */
const MOST_LOOKS = 500;

/** Lets a list's moves in black go on to a list time as they would had it run there: each begins and ends at its own time. */
function moveDark(player: Player, run: ListRun, until: number, standAt: (time: number) => void): void {
  const { layers, stage } = player;
  for (let looks = 0; looks < MOST_LOOKS && run.black.some((move) => !move.done); looks++) {
    const now = stage.listNow[run.slot]!;
    let next = Infinity;
    const at = (time: number) => {
      if (time > now + SAME_TIME && time < next) next = time;
    };
    for (const { since, left, after } of run.black) at(since === null ? after : since + left);
    for (const layer of eachLayer(layers)) {
      if (layers.list[layer] !== run.slot) continue;
      at(layers.ownAt[layer]! + layers.ownDelay[layer]! + layers.ownFade[layer]!);
      at(layers.weightAt[layer]! + layers.weightDelay[layer]! + layers.weightFade[layer]!);
    }
    if (next > until + SAME_TIME) return;
    standAt(next);
    watchBlack(player);
  }
}

/** All that lists give is to be looked at again: their clocks were set. */
function lookAgain({ layers, stage }: Player, runs: readonly ListRun[]): void {
  if (runs.length === 0) return;
  const slots = new Set(runs.map((run) => run.slot));
  for (let param = 0; param < layers.head.length; param++)
    for (let at = layers.head[param]!; at >= 0; at = layers.next[at]!)
      if (slots.has(layers.list[at]!)) {
        touch(stage, param);
        break;
      }
}

/** Timecode is somewhere else, or runs otherwise. @param jumps whether all that follow are worked out anew. */
function set(player: Player, frames: number, speed: 1 | 0 | -1, outside: boolean, jumps: boolean): void {
  Object.assign(player.timecode, { base: frames, anchor: player.now, speed, outside, heard: player.now });
  const set: ListRun[] = [];
  for (const [list, run] of followers(player)) {
    // One that never stood by timecode is told where it stands.
    const isNew = run.cue === null && run.timedTo < 0;
    if (jumps || (speed !== 0 && !run.synced) || (isNew && !run.synced)) locate(player, list, run);
    // What a hand brought meanwhile runs on in real time until it runs or jumps.
    else if (run.synced) tie(player, run);
    else continue;
    set.push(run);
  }
  lookAgain(player, set);
}

/** Runs, stops or moves it, or hears it from outside. */
export function moveTimecode(player: Player, event: Heard): Refusal | undefined {
  const { timecode, world, now } = player;
  const at = framesAt(timecode, world.show.timecode, now);
  switch (event.does) {
    case "run":
      if (timecode.speed !== 1 || timecode.outside) set(player, at, 1, false, false);
      return undefined;
    case "stop":
      set(player, at, 0, false, false);
      return undefined;
    case "at":
      set(player, event.frames, timecode.outside ? 0 : timecode.speed, false, Math.abs(event.frames - at) > JUMP);
      return undefined;
    case "heard": {
      const off = Math.abs(event.frames - at);
      if (event.speed === 1 && timecode.speed === 1 && timecode.outside && off <= AS_EXPECTED) {
        timecode.heard = now;
        return undefined;
      }
      const jumps = off > JUMP || event.speed === -1 || timecode.speed === -1;
      set(player, event.frames, event.speed, true, jumps);
      return undefined;
    }
  }
}

/** When a source that is not heard of any more is given up; Infinity where there is nothing to give up. */
export const lostAt = ({ timecode, world }: Player): StageTime => givenUpAt(timecode, world.show.timecode);

/** The source is given up: all hold where they are. */
export function loseTimecode(player: Player): void {
  const { timecode, world, now } = player;
  Object.assign(timecode, { base: framesAt(timecode, world.show.timecode, now), anchor: now, speed: 0 });
  const held = [...followers(player)].map(([, run]) => run).filter((run) => run.synced);
  for (const run of held) tie(player, run);
  lookAgain(player, held);
}

/** Running backwards, all stand as after a locate at every instant that is looked at. */
export function runBackwards(player: Player): void {
  if (player.timecode.speed !== -1) return;
  for (const [list, run] of followers(player)) locate(player, list, run);
}

/** A list that begins to follow timecode, or ceases to. */
export function followEdit(player: Player, list: CueList, run: ListRun): void {
  if (list.timecode && player.timecode.speed !== 0) return locate(player, list, run);
  if (list.timecode || !run.follows) return;
  run.follows = false;
  run.clock = { ...run.clock, base: listTime(player.stage.listNow[run.slot]!), anchor: player.now, rate: run.rate };
  run.effects = { ...run.effects, base: listTime(player.stage.effectNow[run.slot]!), anchor: player.now, rate: 1 };
}
