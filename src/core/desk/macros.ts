/** Macros as they run: line by line, against the show and the stage as they are then (SEMANTICS 12). */
import { readLine, type Read } from "../command/read";
import type { ReadContext } from "../command/context";
import { allLines, macroText, waitOf } from "../deck/macro";
import { applied } from "./rehearse";
import { play } from "../play/lists/act";
import type { Player, Waiting } from "../play/state";
import { isRefusal, refuse, type Refusal } from "../show/refusal";
import type { World } from "../show/world";

/** What is left of a macro. */
export type Rest = Pick<Waiting, "macro" | "lines">;

/** All lines of a macro of the show, ready to be run. */
export function macroLines({ show }: World, id: string): Rest | Refusal {
  const macro = show.macros[id];
  if (!macro) return refuse("that macro does not exist");
  const lines = allLines(show, macro);
  return isRefusal(lines) ? lines : { macro: macro.number, lines };
}

/** What a line that was refused is told as. */
export const refusedIn = (macro: number, line: string, refusal: Refusal): Refusal =>
  refuse(`${macroText({ number: macro, name: "" })} stopped at "${line.trim()}": ${refusal.what}`, refusal.cure);

/** Whether a line only plays. */
const plays = ({ intents, control, script, why }: Read): boolean =>
  intents.length === 0 && control === undefined && script === undefined && why === undefined;

/**
 * Plays the lines of a macro that only play, up to a wait or to the first that edits.
 * @returns what is left for whoever can edit; undefined where all is done, or waits; or the refusal of a line.
 */
export function playLines(player: Player, rest: Rest, context: () => ReadContext): Rest | Refusal | undefined {
  for (const [k, line] of rest.lines.entries()) {
    const after = waitOf(line);
    if (after !== undefined) {
      const lines = rest.lines.slice(k + 1);
      return lines.length > 0
        ? play(player, { kind: "later", after, macro: rest.macro, lines }, player.now)
        : undefined;
    }
    const read = readLine(line, context());
    if (read === undefined) continue;
    if (isRefusal(read)) return refusedIn(rest.macro, line, read);
    if (!plays(read)) return { macro: rest.macro, lines: rest.lines.slice(k) };
    for (const event of read.events) {
      const refusal = play(player, event, player.now);
      if (refusal) return refusedIn(rest.macro, line, refusal);
    }
  }
  return undefined;
}

/** Whoever can do what a line asks for: one edit of several joins the step before. */
export interface Doer {
  context(): ReadContext;
  /** @param join part of the step this macro has begun. */
  edit(read: Read, says: string, join: boolean): Refusal | undefined;
  event(event: Read["events"][number]): Refusal | undefined | Promise<Refusal | undefined>;
  /** Takes back the step this macro has begun. */
  takeBack(): void;
  /** What only looks, or changes what is seen. */
  look(read: Read): void;
}

/** More lines than this are not gone through beforehand. */
const MOST_LOOKED_AT = 500;

/**
 * The first line that could not be done as things stand, its edits and those before it thought done; undefined where all
 * could be. What plays is not played: a line that hangs on what another has started is not found out.
 */
export function foreseenFault({ macro, lines }: Rest, context: ReadContext): Refusal | undefined {
  let { world } = context;
  for (const line of lines.slice(0, MOST_LOOKED_AT)) {
    if (waitOf(line) !== undefined) continue;
    const read = readLine(line, { ...context, world });
    if (read === undefined) continue;
    const done = isRefusal(read) || read.intents.length === 0 ? read : applied(world, read.intents);
    if (isRefusal(done))
      return refuse(`macro ${macro} is not begun: it could not do "${line.trim()}": ${done.what}`, done.cure);
    if ("world" in done) ({ world } = done);
  }
  return undefined;
}

/** Runs lines one after another; edits are one step; a refused line ends it and takes back what it had edited. */
export function* running(
  rest: Rest,
  name: string,
  doer: Doer,
): Generator<Refusal | undefined | Promise<Refusal | undefined>, Refusal | undefined, Refusal | undefined> {
  let edited = false;
  const stop = (line: string, refusal: Refusal): Refusal => {
    if (edited) doer.takeBack();
    return refusedIn(rest.macro, line, refusal);
  };
  for (const [k, line] of rest.lines.entries()) {
    const after = waitOf(line);
    if (after !== undefined) {
      const lines = rest.lines.slice(k + 1);
      if (lines.length === 0) return undefined;
      return yield doer.event({ kind: "later", after, macro: rest.macro, lines });
    }
    const read = readLine(line, doer.context());
    if (read === undefined) continue;
    if (isRefusal(read)) return stop(line, read);
    if (read.control || read.script) return stop(line, refuse("a macro cannot do that", "Leave that line out"));
    if (read.intents.length > 0) {
      const refusal = doer.edit(read, name, edited);
      if (refusal) return stop(line, refusal);
      edited = true;
    }
    for (const event of read.events) {
      const refusal = yield doer.event(event);
      if (refusal) return stop(line, refusal);
    }
    if (read.why || read.shows) doer.look(read);
  }
  return undefined;
}

/** Runs to the end where nothing has to be waited for. */
export function runNow(rest: Rest, name: string, doer: Doer): Refusal | undefined {
  const work = running(rest, name, doer);
  let next = work.next();
  while (!next.done) next = work.next(next.value as Refusal | undefined);
  return next.value;
}
