/** Speed by tapping (SEMANTICS 11). */
import { clamp, listTime, SAME_TIME } from "../../units/units";
import type { CueList } from "../../show/schema";
import { repace } from "./beats";
import { listTimeAt } from "./clock";
import { beatEffects } from "./cycles";
import { carryOut } from "./deeds";
import { beatOf, fadeOf } from "./kinds/chase";
import type { ListRun } from "./run";
import type { Player } from "../state";

/** A pause longer than this, seconds, begins a new series of taps; so many intervals are counted. */
const PAUSE = 2;
const COUNTED = 7;
/** Beats a minute a chase can have. */
const [SLOWEST, FASTEST] = [0.1, 6000];

/** A tap of a list, and of all that share its tempo. */
export function tapTogether(player: Player, list: CueList, run: ListRun): void {
  if (list.tempo === undefined) return tap(player, list, run);
  for (const other of player.order) {
    const of = player.world.show.lists[other.id];
    if (of?.tempo === list.tempo) tap(player, of, other);
  }
}

/** From the second tap on, a beat is the mean of the last intervals and starts at the tap. */
function tap(player: Player, list: CueList, run: ListRun): void {
  const { now } = player;
  const last = run.taps.at(-1);
  run.taps =
    last !== undefined && now - last <= PAUSE + SAME_TIME && now > last + SAME_TIME
      ? [...run.taps, now].slice(-COUNTED - 1)
      : [now];
  if (run.taps.length < 2) return;
  const beat = (now - run.taps[0]!) / (run.taps.length - 1);
  if (list.kind === "chase") beatSteps(player, list, run, beat);
  beatEffects(player, run, beat);
}

/** The step comes with the tap, unless one came less than half a new beat before: then that was it, and only the beat moves. */
function beatSteps(player: Player, list: CueList, run: ListRun, beat: number): void {
  const { now } = player;
  if (run.rate > 0) run.bpm = clamp(60 / beat / run.rate, SLOWEST, FASTEST);
  repace(player, list, run);
  if (run.cue === null || run.flashed || run.clock.paused) return;
  const came = now - run.steppedAt < beat / 2 - SAME_TIME;
  if (came) {
    run.beatAt = listTime(listTimeAt(run.clock, now));
    return;
  }
  const step = beatOf(list, run);
  carryOut(player, run, { do: "arrive", place: step.place, what: "change", fade: fadeOf(list), step });
}
