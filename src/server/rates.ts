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
