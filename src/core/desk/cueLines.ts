/** The lines that cues run at their go, after their own moves have started (SEMANTICS 5). */
import { readLine } from "../command/read";
import type { ReadContext } from "../command/context";
import { play } from "../play/lists/act";
import { macroMay } from "../play/lists/halt";
import type { Player } from "../play/state";
import { macroLines, playLines, type Rest } from "./macros";
import { isRefusal, refusalText, refuse, type Refusal } from "../show/refusal";

/** A line that leads to itself again, this deep, is not gone on with. */
const DEEPEST = 16;

function does(
  player: Player,
  line: string,
  context: () => ReadContext,
  edit: (rest: Rest) => void,
): Refusal | undefined {
  const read = readLine(line, context());
  if (read === undefined) return undefined;
  if (isRefusal(read)) return read;
  if (read.macro !== undefined) {
    const lines = macroLines(context().world, read.macro);
    if (!isRefusal(lines) && !macroMay(player, lines.macro)) return undefined;
    const rest = isRefusal(lines) ? lines : playLines(player, lines, context);
    if (isRefusal(rest)) return rest;
    if (rest) edit(rest);
    return undefined;
  }
  if (read.intents.length > 0 || read.control || read.script || read.why)
    return refuse(
      "a cue runs macros, and lines that play: go, level, release and the like",
      "Record the line as a macro",
    );
  for (const event of read.events) {
    const refusal = play(player, event, player.now);
    if (refusal) return refusal;
  }
  return undefined;
}

/**
 * Lets a player's cues run their lines at the exact time of their go.
 * @param context what lines are read against then. @param tell is told what was refused; all else goes on.
 * @param edit is handed what is left of a macro from the first line that does more than play.
 */
export function runCueLines(
  player: Player,
  context: () => ReadContext,
  tell: (text: string) => void,
  edit: (rest: Rest) => void,
): void {
  let depth = 0;
  player.tell = tell;
  player.goOn = (waiting) => {
    const rest = playLines(player, waiting, context);
    if (isRefusal(rest)) tell(refusalText(rest));
    else if (rest) edit(rest);
  };
  player.runLine = (line) => {
    if (depth >= DEEPEST) return tell(`"${line}" leads to itself again and again: it was stopped`);
    depth += 1;
    try {
      const refusal = does(player, line, context, edit);
      if (refusal) tell(`"${line}", run by a cue: ${refusalText(refusal)}`);
    } finally {
      depth -= 1;
    }
  };
}
