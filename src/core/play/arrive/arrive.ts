/** A list arrives in a cue. */
import type { ParamKey } from "../../show/ids";
import { cuesOf } from "../../show/world";
import { listTime, sequence, type ListTime } from "../../units/units";
import type { Moving } from "../lists/kinds/kind";
import { startMoves } from "./moves";
import { placeOfCue, type ListRun } from "../lists/run";
import { comeOnTop, judgeBlack, watchBlack } from "./black/move";
import { listMay } from "../lists/halt";
import { setClocks } from "../player";
import type { Player } from "../state";

/** Starts the moves of an arrival in the cue at a place. Round the end, what tracked is dropped unless the list keeps it. */
export function arrive(
  player: Player,
  run: ListRun,
  to: number,
  how: { what: Moving; fade?: number | undefined; bends?: boolean; at: ListTime },
): void {
  const list = player.world.show.lists[run.id]!;
  player.sequence = sequence(player.sequence + 1);
  const from = placeOfCue(list, run.cue);
  const wraps = how.what === "change" && to === 0 && from === cuesOf(list).length - 1;
  // A chase always drops what tracked.
  const drops = how.what === "everything" || list.kind === "chase";
  const carried = drops ? false : wraps ? !list.wrapDrop : run.carried;
  const completes = how.what !== "assert";
  const cue = cuesOf(list)[to]!;
  const dark = judgeBlack(player, run, to, carried, how.what, list);
  const stamps = new Set<ParamKey>();
  const work = startMoves(player.stage, {
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
    passed: dark.passed,
    late: dark.late,
    stamps,
    ready: dark.comeUp,
    meant: dark.meant,
    ...(how.fade === undefined ? {} : { fade: how.fade, bends: how.bends === true }),
  });
  run.stamp = player.sequence;
  if (completes) {
    run.carried = carried;
    run.cue = cuesOf(list)[to]!.id;
    run.next = null;
    run.arrived = how.at;
    if (to === 0) run.roundAt = how.at;
    // Until the last of its moves is started; nobody asks for it before.
    const { up, down, delayUp, delayDown } = cue.times;
    run.complete = listTime(how.at + (how.fade ?? Math.max(delayUp + up, delayDown + down)));
  }
  run.black = dark.plan;
  run.blackStamps = stamps;
  player.unfinished = { run, work, at: player.now, listAt: how.at, completes, meant: dark.meant };
  if (!player.inPieces) return finish(player);
  // The first piece marks what waits.
  let pieces = 0;
  workOff(player, () => pieces++ === 0);
}

/**
 * Goes on with an arrival that is left unfinished, with the clocks as they stood when it came, so that it comes
 * to the same however it is cut.
 * @param goesOn asked before each piece.
 * @returns whether nothing is left.
 */
export function workOff(player: Player, goesOn: () => boolean): boolean {
  const { unfinished, stage } = player;
  if (!unfinished) return true;
  const { run, work, at, listAt, completes } = unfinished;
  setClocks(player, at);
  stage.listNow[run.slot] = listAt;
  while (goesOn()) {
    // One that cannot be finished is left as it is: whoever ticks is told, and the stage goes on.
    player.unfinished = undefined;
    const { done, value } = work.next();
    if (!done) {
      player.unfinished = unfinished;
      continue;
    }
    if (completes) run.complete = listTime(listAt + value);
    for (const move of run.black) {
      const took = unfinished.meant.get(move.fixture);
      if (took !== undefined) move.after = listTime(listAt + took);
    }
    comeOnTop(player, run, listAt);
    watchBlack(player);
    const line = completes ? player.world.show.lists[run.id]?.cues[run.cue ?? ""]?.runs : undefined;
    if (line && listMay(player, run)) player.runLine?.(line);
    return true;
  }
  return false;
}

const always = () => true;

/** Finishes what is left: whatever is done next finds all of it on its way. */
export function finish(player: Player): void {
  if (player.unfinished) workOff(player, always);
}
