/** Stops what would happen by itself without end, and names it. */
import { isTooMuch } from "./budget";
import { holdClocks, release } from "./leave";
import { cuesOf } from "../../show/world";
import type { ListRun } from "./run";
import type { Player } from "../state";

/** Counts what a list does by itself; one that does too much is paused where it stands, and named. @returns whether it may. */
export function listMay(player: Player, run: ListRun): boolean {
  const list = player.world.show.lists[run.id]!;
  const cues = cuesOf(list).length;
  if (!isTooMuch(player.budget, player.now, { list: run.id, cues })) return true;
  // A list on timecode goes on with that, whatever its own clock does.
  if (run.follows) release(player, run, 0);
  else holdClocks(player, run, true);
  const name = `list ${list.number}${list.name ? ` ${list.name}` : ""}`;
  player.tell?.(
    `${name} was ${run.follows ? "released" : "paused"}: its cues led to themselves without end. Look at what they start and run, then give it a go`,
  );
  return false;
}

/** Counts a macro run by itself; one that is run too often is not gone on with, and named. @returns whether it may. */
export function macroMay(player: Player, macro: number): boolean {
  if (!isTooMuch(player.budget, player.now, { macro })) return true;
  player.tell?.(`macro ${macro} was stopped: it led to itself without end. Look at what its lines lead to`);
  return false;
}
