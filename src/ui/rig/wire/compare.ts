/** What we mean to send beside what arrived: a difference counts once it has stood a while, since packets take their time. */
export const STANDS_MS = 250;

export interface Compared {
  /** Bytes received, -1 where nothing ever came. */
  received: Int16Array;
  /** 1 where the slot differs for good. */
  differs: Uint8Array;
  /** When each slot began to differ; 0 where it does not. */
  since: Float64Array;
}

export const newCompared = (): Compared => ({ received: new Int16Array(512).fill(-1), differs: new Uint8Array(512), since: new Float64Array(512) });

/** Compares a universe now. @param now milliseconds. @returns how many slots differ. */
export function compare(state: Compared, meant: Uint8Array, received: Uint8Array | undefined, now: number): number {
  let count = 0;
  for (let i = 0; i < 512; i++) {
    const got = received ? received[i]! : -1;
    state.received[i] = got;
    if (got === meant[i]) state.since[i] = 0;
    else if (state.since[i] === 0) state.since[i] = now;
    state.differs[i] = state.since[i]! > 0 && now - state.since[i]! >= STANDS_MS ? 1 : 0;
    count += state.differs[i]!;
  }
  return count;
}
