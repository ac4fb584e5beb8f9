/** Levels and the grand master on their way to a value over a time: `over S` (SEMANTICS 5). */
import { clamp, SAME_TIME, stageTime, type StageTime } from "../../units/units";
import { showLevel } from "./deeds";
import { touch } from "../stage/stage";
import type { Player } from "../state";

/** As little as a level can be without being out: it has left 0. */
const HARDLY = 1e-9;

/** Sets the grand master, percent. */
export function setGrand({ stage }: Player, percent: number): void {
  stage.grand = percent / 100;
  for (let p = 0; p < stage.rig.size; p++) if (stage.rig.scaled[p]) touch(stage, p);
}

function put(player: Player, list: string | null, percent: number): void {
  if (list === null) return setGrand(player, percent);
  const [owner, run] = [player.world.show.lists[list], player.runs.get(list)];
  if (!owner || !run) return;
  const was = run.level;
  run.level = percent;
  showLevel(player, owner, run, was);
}

/** Takes a level, or with null the grand master, to a value; over no time at once. What was on its way goes no further. */
export function goTo(player: Player, list: string | null, percent: number, seconds = 0): void {
  const from = list === null ? player.stage.grand * 100 : player.runs.get(list)!.level;
  player.ramps = player.ramps.filter((r) => r.list !== list);
  if (seconds <= SAME_TIME || from === percent) return put(player, list, percent);
  player.ramps.push({ list, from, to: percent, at: player.now, seconds });
  if (list !== null && from === 0) put(player, list, HARDLY);
}

/** When the first of them is there; Infinity without any. */
export function firstEnd({ ramps }: Player): StageTime {
  let first = Infinity;
  for (let i = 0; i < ramps.length; i++) first = Math.min(first, ramps[i]!.at + ramps[i]!.seconds);
  return stageTime(first);
}

/** Brings them to the player's time; those that are there are done. */
export function moveRamps(player: Player): void {
  const { ramps, now } = player;
  for (let i = ramps.length - 1; i >= 0; i--) {
    const { list, from, to, at, seconds } = ramps[i]!;
    const there = now >= at + seconds - SAME_TIME;
    if (there) ramps.splice(i, 1);
    const level = there ? to : from + (to - from) * clamp((now - at) / seconds, 0, 1);
    put(player, list, list !== null && !there ? Math.max(level, HARDLY) : level);
  }
}
