/** A desk: a world, its history and a player on a virtual clock. Scripts, show tests and the demo run on one. */
import { askedOf } from "../program/asking";
import { EMPTY_HISTORY, type History } from "../show/change/history";
import { isRefusal, type Refusal } from "../show/refusal";
import { newWorld, type World } from "../show/world";
import { setWorld } from "../play/edit/edit";
import { isLit, stageBeforeMasters, stageSeen } from "../play/stage/look";
import { play } from "../play/lists/act";
import { advance } from "../play/lists/due";
import { compute, createPlayer } from "../play/player";
import { restorePlay, savePlay } from "../play/keep/saved";
import type { SavedPlay } from "../play/keep/savedSchema";
import type { Player } from "../play/state";
import { SAME_TIME, stageTime, type StageTime } from "../units/units";
import { runCueLines } from "./cueLines";
import { macroLines, runNow, type Rest } from "./macros";
import { perform, type Performed } from "./perform";
import type { Reading } from "../command/command";
import type { ReadContext } from "../command/context";
import { readLine } from "../command/read";

export interface Desk {
  world: World;
  history: History;
  player: Player;
  time: StageTime;
}

/** A desk at stage time 0 with nothing running. @param tell is told in words what was stopped or refused of what happens by itself. */
export function newDesk(world = newWorld(), tell: (text: string) => void = () => undefined): Desk {
  const player = createPlayer(world);
  compute(player);
  const desk: Desk = { world, history: EMPTY_HISTORY, player, time: stageTime(0) };
  runCueLines(
    player,
    () => contextOf(desk),
    tell,
    (rest) => void goOnWith(desk, rest),
  );
  return desk;
}

/** What lines are read against on a desk. */
export function contextOf(desk: Pick<Desk, "world" | "player">): ReadContext {
  const stage: ReadContext["stage"] = (key) => stageBeforeMasters(desk.player, key);
  return {
    world: desk.world,
    isLit: (id) => isLit(desk.player, id),
    stage,
    ...askedOf(desk.world, stage),
    seen: (key) => stageSeen(desk.player, key),
  };
}

/** Goes on with a macro on a desk, at the player's time. */
function goOnWith(desk: Desk, rest: Rest): Refusal | undefined {
  let before = { world: desk.world, history: desk.history };
  /** How the lists stood before its edits; null once it has played something, which is not taken back. */
  let stood: SavedPlay | null = null;
  return runNow(rest, `macro ${rest.macro}`, {
    context: () => contextOf(desk),
    edit(read, says, join) {
      if (!join) {
        before = { world: desk.world, history: desk.history };
        stood = savePlay(desk.player);
      }
      return putOn(desk, perform(desk, { intents: read.intents, events: [], says, join }));
    },
    event(event) {
      stood = null;
      return play(desk.player, event, desk.player.now);
    },
    takeBack() {
      Object.assign(desk, before);
      setWorld(desk.player, before.world);
      // Lists that its edits had ended or moved stand as they did.
      if (stood) restorePlay(desk.player, stood);
    },
    look: () => undefined,
  });
}

function putOn(desk: Desk, done: Performed | Refusal): Refusal | undefined {
  if (isRefusal(done)) return done;
  desk.history = done.history;
  if (done.world === desk.world) return undefined;
  desk.world = done.world;
  setWorld(desk.player, done.world);
  return undefined;
}

/** Does a line's reading on a desk, playing included. */
export function performOn(desk: Desk, read: Reading): Refusal | undefined {
  if (read.macro !== undefined) {
    const lines = macroLines(desk.world, read.macro);
    const refusal = isRefusal(lines) ? lines : goOnWith(desk, lines);
    advance(desk.player, desk.time);
    compute(desk.player);
    return refusal;
  }
  const done = perform(desk, read);
  const refused = putOn(desk, done);
  if (refused || isRefusal(done)) return refused;
  for (const event of done.events) {
    const refusal = play(desk.player, event, desk.time);
    if (refusal) return refusal;
  }
  advance(desk.player, desk.time);
  compute(desk.player);
  return undefined;
}

/** Reads and does a line on a desk. */
export function runLine(desk: Desk, text: string): Refusal | undefined {
  const read = readLine(text, contextOf(desk));
  if (read === undefined) return undefined;
  return isRefusal(read) ? read : performOn(desk, read);
}

/** Moves the desk's clock on; everything due up to and including then happens. @param time seconds from 0 up. */
export function wait(desk: Desk, time: number): void {
  // Whole microseconds, so that many short waits do not drift away from one long one.
  desk.time = stageTime(Math.round((desk.time + time) / SAME_TIME) * SAME_TIME);
  advance(desk.player, desk.time);
  compute(desk.player);
}
