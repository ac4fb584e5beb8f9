/** Packets a second over the last two seconds, so that a kept-alive stream does not read as none. */
const WINDOW_MS = 2000;

/** @param everyMs how often each count is handed in. */
export function createRates(everyMs: number): { of(key: string, packets: number): number } {
  const most = Math.max(1, Math.round(WINDOW_MS / everyMs));
  const kept = new Map<string, number[]>();
  return {
    of(key, packets) {
      const counts = [...(kept.get(key) ?? []), packets].slice(-most);
      kept.set(key, counts);
      return (counts.reduce((a, b) => a + b, 0) * 1000) / (counts.length * everyMs);
    },
  };
}

/** Whether one more fits: as many at once as come in a second, and no more than that over time. @returns asked with the time, milliseconds. */
export function createAllowance(perSecond: number): (now: number) => boolean {
  let left = perSecond;
  let at: number | undefined;
  return (now) => {
    left = Math.min(perSecond, left + ((now - (at ?? now)) * perSecond) / 1000);
    at = now;
    if (left < 1) return false;
    left -= 1;
    return true;
  };
}
