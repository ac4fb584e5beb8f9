/** A list's own clock: it can be held and can run at another rate. */

export interface ListClock {
  /** List time at the anchor. */
  base: number;
  /** Stage time of the anchor. */
  anchor: number;
  /** 1 = as fast as the stage. */
  rate: number;
  paused: boolean;
}

export const newClock = (now: number): ListClock => ({ base: 0, anchor: now, rate: 1, paused: false });

/** List time at stage time `now`. */
export const listTime = (clock: ListClock, now: number): number => (clock.paused ? clock.base : clock.base + (now - clock.anchor) * clock.rate);

/** The stage time at which the list's clock will show `time`; Infinity while it is held. */
export const stageTime = (clock: ListClock, time: number): number => (clock.paused || clock.rate === 0 ? Infinity : clock.anchor + (time - clock.base) / clock.rate);

export function changeClock(clock: ListClock, now: number, change: Partial<Pick<ListClock, "rate" | "paused">>): ListClock {
  return { base: listTime(clock, now), anchor: now, rate: change.rate ?? clock.rate, paused: change.paused ?? clock.paused };
}
