/** The clock of a chase: it counts beats while it runs, seconds otherwise (SEMANTICS 11). */
import type { CueList } from "../../show/schema";
import { listTime } from "../../units/units";
import { changeClock, listTimeAt } from "./clock";
import { bpmOf } from "./kinds/chase";
import { eachLayer, readFade, setOwn, setWeight, isEffect, type Fade } from "../stage/layers";
import type { ListRun } from "./run";
import type { Player } from "../state";

/** How fast a list's clock runs: its rate, and in beats as many of them as there are in a second. */
export const paceOf = (list: CueList, run: ListRun): number => run.rate * (run.beats ? bpmOf(list, run) / 60 : 1);

/** Brings a list's clock to its pace; its own time does not jump, so that a fade in flight is carried along. */
export function repace({ now }: Player, list: CueList, run: ListRun): void {
  // What is run by hand, or follows timecode, has another clock.
  if (run.hand || run.follows) return;
  run.clock = changeClock(run.clock, now, { rate: paceOf(list, run) });
}

const scaled = ({ from, to, at, delay, fade, bend }: Fade, by: number): Fade => ({
  from,
  to,
  at: at * by,
  delay: delay * by,
  fade: fade * by,
  ...(bend === undefined ? {} : { bend }),
});

/** Lets a list's clock count beats, or seconds again: all that is on its way goes on as fast as it went. */
export function countIn(player: Player, list: CueList, run: ListRun, beats: boolean): void {
  if (run.beats === beats) return;
  const { layers, stage, now } = player;
  const by = beats ? bpmOf(list, run) / 60 : 60 / bpmOf(list, run);
  const time = listTimeAt(run.clock, now) * by;
  for (const at of eachLayer(layers)) {
    if (layers.list[at] !== run.slot) continue;
    setWeight(layers, at, scaled(readFade(layers, at, "weight"), by));
    // The clock of an effect's cycles is another one.
    if (!isEffect(layers.role[at]!)) setOwn(layers, at, scaled(readFade(layers, at, "own"), by));
  }
  for (const layer of player.silent) {
    if (layer.list !== run.slot) continue;
    layer.weight = scaled(layer.weight, by);
    if (!isEffect(layer.role)) layer.own = scaled(layer.own, by);
  }
  for (const field of ["arrived", "complete", "roundAt", "since", "beatAt"] as const)
    run[field] = listTime(run[field] * by);
  run.beats = beats;
  run.clock = { ...run.clock, base: listTime(time), anchor: now, rate: paceOf(list, run) };
  stage.listNow[run.slot] = time;
}
