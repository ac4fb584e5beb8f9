/** The lines that cues run at their go, after their own moves have started (SEMANTICS 5). */
import { readLine } from "../command/read";
import type { ReadContext } from "../command/context";
import { play } from "../play/act";
import type { Player } from "../play/state";
import { isRefusal, refusalText, refuse, type Refusal } from "../show/refusal";

/** A line that leads to itself again, this deep, is not gone on with. */
const DEEPEST = 16;

function does(player: Player, line: string, context: ReadContext): Refusal | undefined {
  const read = readLine(line, context);
  if (read === undefined) return undefined;
  if (isRefusal(read)) return read;
  if (read.intents.length > 0 || read.control || read.script || read.why)
    return refuse("a cue runs lines that play: go, level, release and the like", "Change the show by hand");
  for (const event of read.events) {
    const refusal = play(player, event, player.now);
    if (refusal) return refusal;
  }
  return undefined;
}

/**
 * Lets a player's cues run their lines at the exact time of their go.
 * @param context what lines are read against then. @param tell is told what was refused; all else goes on.
 */
export function runCueLines(player: Player, context: () => ReadContext, tell: (text: string) => void): void {
  let depth = 0;
  player.runLine = (line) => {
    if (depth >= DEEPEST) return tell(`"${line}" leads to itself again and again: it was not gone on with`);
    depth += 1;
    try {
      const refusal = does(player, line, context());
      if (refusal) tell(`"${line}", run by a cue: ${refusalText(refusal)}`);
    } finally {
      depth -= 1;
    }
  };
}
