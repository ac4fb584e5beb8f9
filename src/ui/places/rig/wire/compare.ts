/** What we mean to send beside what arrived: a difference counts once what is meant has stood a while, since packets take their time. */
export const STANDS_MS = 250;

export interface Compared {
  /** Bytes received, -1 where nothing ever came. */
  received: Int16Array;
  /** 1 where the slot differs for good. */
  differs: Uint8Array;
  /** What was meant last, and since when it is so. */
  meant: Int16Array;
  since: Float64Array;
  began: number;
}

export const newCompared = (): Compared => ({
  received: new Int16Array(512).fill(-1),
  differs: new Uint8Array(512),
  meant: new Int16Array(512).fill(-1),
  since: new Float64Array(512),
  began: -1,
});

/** Compares a universe now. @param now milliseconds. @returns how many slots differ. */
export function compare(state: Compared, meant: Uint8Array, received: Uint8Array | undefined, now: number): number {
  if (state.began < 0) state.began = now;
  let count = 0;
  for (let i = 0; i < 512; i++) {
    if (state.meant[i] !== meant[i]) {
      state.meant[i] = meant[i]!;
      state.since[i] = now;
    }
    const got = received ? received[i]! : -1;
    state.received[i] = got;
    const stood = now - (got < 0 ? state.began : state.since[i]!) >= STANDS_MS;
    state.differs[i] = stood && got !== meant[i] ? 1 : 0;
    count += state.differs[i]!;
  }
  return count;
}
