/** When a worker that died is started again: at once, then later and later, then no more. */
const AT_MOST = 6;
/** What happened before this is forgotten. */
const WITHIN_MS = 5 * 60_000;
const FIRST_WAIT_MS = 1000;

/** @returns what is told of each death, at a time in milliseconds: how long to wait, or undefined where it ends. */
export function createRestarts(): (now: number) => number | undefined {
  let deaths: number[] = [];
  return (now) => {
    deaths = [...deaths.filter((at) => now - at < WITHIN_MS), now];
    if (deaths.length > AT_MOST) return undefined;
    return deaths.length === 1 ? 0 : FIRST_WAIT_MS * 2 ** (deaths.length - 2);
  };
}
