/** Running a script or show test on a virtual clock: no real time passes. */
import { EMPTY_HISTORY, type History } from "../show/history";
import { isRefusal, refusalText, type Refusal } from "../show/refusal";
import { newWorld, type World } from "../show/world";
import { newHands } from "../show/world";
import { setWorld } from "../play/edit";
import { isLit, stageBeforeMasters } from "../play/look";
import { advance, compute, createPlayer, play, type Player } from "../play/player";
import { SAME_TIME } from "../units/units";
import type { Show } from "../show/schema";
import type { ReadContext } from "./command";
import { checkExpectation } from "./expectation";
import { lex } from "./lexer";
import { perform } from "./perform";
import { readLine, type Read } from "./read";

/** The outside of a script: files, relative to it, and where printed lines go. */
export interface ScriptFiles {
  open(name: string): Show | Refusal;
  save(name: string, show: Show): Refusal | undefined;
  print(line: string): void;
}

export interface ScriptResult {
  passed: number;
  /** "LINE expected ... got ...". */
  failures: { line: number; text: string }[];
}

export interface Desk {
  world: World;
  history: History;
  player: Player;
  time: number;
}

export function newDesk(world = newWorld()): Desk {
  const player = createPlayer(world);
  compute(player);
  return { world, history: EMPTY_HISTORY, player, time: 0 };
}

export function contextOf(desk: Desk): ReadContext {
  return { world: desk.world, isLit: (id) => isLit(desk.player, id), stage: (key) => stageBeforeMasters(desk.player, key) };
}

/** Does a line's reading on a desk, playing included. */
export function performOn(desk: Desk, read: Read): Refusal | undefined {
  const done = perform(desk, read);
  if (isRefusal(done)) return done;
  desk.history = done.history;
  if (done.world !== desk.world) {
    desk.world = done.world;
    setWorld(desk.player, done.world);
  }
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

export function wait(desk: Desk, time: number): void {
  // Whole microseconds, so that many short waits do not drift away from one long one.
  desk.time = Math.round((desk.time + time) / SAME_TIME) * SAME_TIME;
  advance(desk.player, desk.time);
  compute(desk.player);
}

/** A line that must be refused: does it on a copy of the standing and tells whether it was. */
function checkRefused(desk: Desk, text: string): string | undefined {
  const before = desk.world;
  const refusal = runLine(desk, text);
  if (!refusal) return `expected a refusal of: ${text} got it done`;
  return desk.world === before ? undefined : `expected nothing changed by: ${text} got a change`;
}

/** Runs a script to its end, or to the first line refused outside `refuse`. */
export function runScript(source: string, files: ScriptFiles): ScriptResult {
  const desk = newDesk();
  const result: ScriptResult = { passed: 0, failures: [] };
  const lines = source.split(/\r?\n/);
  for (const [index, text] of lines.entries()) {
    const fail = (why: string) => result.failures.push({ line: index + 1, text: why });
    const read = readLine(text, contextOf(desk), { script: true });
    if (read === undefined) continue;
    if (isRefusal(read)) {
      fail(`refused: ${refusalText(read)}`);
      return result;
    }
    if (!read.script) {
      const refusal = performOn(desk, read);
      if (!refusal) continue;
      fail(`refused: ${refusalText(refusal)}`);
      return result;
    }
    const { kind, args } = read.script;
    if (kind === "wait") wait(desk, args.time as number);
    else if (kind === "open" || kind === "save") {
      const refusal = kind === "open" ? openShow(desk, files, args.file as string) : files.save(args.file as string, desk.world.show);
      if (!refusal) continue;
      fail(`refused: ${refusalText(refusal)}`);
      return result;
    } else {
      const wrong = kind === "refuse" ? checkRefused(desk, text.slice(lex(text)[args.line as number]!.at)) : checkExpectation(desk, read.script, files);
      if (wrong === undefined) result.passed += kind === "print" ? 0 : 1;
      else fail(wrong);
    }
  }
  return result;
}

function openShow(desk: Desk, files: ScriptFiles, name: string): Refusal | undefined {
  const show = files.open(name);
  if (isRefusal(show)) return show;
  Object.assign(desk, newDesk({ show, hands: newHands(show) }));
  return undefined;
}
