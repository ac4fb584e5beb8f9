/** A list arrives in a cue. */
import { cuesOf } from "../show/world";
import { listTime, sequence, type ListTime } from "../units/units";
import type { Moving } from "./kinds/kind";
import { startMoves } from "./moves";
import { placeOfCue, type ListRun } from "./run";
import type { Player } from "./state";

/** Starts the moves of an arrival in the cue at a place. Round the end, what tracked is dropped unless the list keeps it. */
export function arrive(
  player: Player,
  run: ListRun,
  to: number,
  how: { what: Moving; fade?: number | undefined; at: ListTime },
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
