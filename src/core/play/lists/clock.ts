/** A list's own clock: it can be held and can run at another rate. */
import { listTime, stageTime, type ListTime, type StageTime } from "../../units/units";

export interface ListClock {
  /** List time at the anchor. */
  base: ListTime;
  /** Stage time of the anchor. */
  anchor: StageTime;
  /** 1 = as fast as the stage. */
  rate: number;
  paused: boolean;
}

/** A clock that runs from a stage time on at a rate, 1 being as written. */
export const newClock = (now: StageTime): ListClock => ({ base: listTime(0), anchor: now, rate: 1, paused: false });

/** List time at stage time `now`. */
export const listTimeAt = (clock: ListClock, now: StageTime): ListTime =>
  clock.paused ? clock.base : listTime(clock.base + (now - clock.anchor) * clock.rate);

/** The stage time at which the list's clock will show `time`; Infinity while it is held. */
export const stageTimeAt = (clock: ListClock, time: ListTime): StageTime =>
  stageTime(clock.paused || clock.rate === 0 ? Infinity : clock.anchor + (time - clock.base) / clock.rate);

/** The same clock from now on at another rate, or held; its own time does not jump. */
export function changeClock(
  clock: ListClock,
  now: StageTime,
  change: Partial<Pick<ListClock, "rate" | "paused">>,
): ListClock {
  return {
    base: listTimeAt(clock, now),
    anchor: now,
    rate: change.rate ?? clock.rate,
    paused: change.paused ?? clock.paused,
  };
}
