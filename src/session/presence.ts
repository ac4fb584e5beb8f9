/** Whether a window is there, told by a lock that the browser takes from it when it ends, however it ends. */

const lockOf = (window: string): string => `bold-comet-window-${window}`;
const locks = (): LockManager | undefined => (typeof navigator === "undefined" ? undefined : navigator.locks);

/** Shows that this window is there; resolves once it is shown. @returns a way to leave. */
export async function beThere(window: string): Promise<() => void> {
  const held = locks();
  if (!held) return () => undefined;
  return new Promise((there) => {
    void held.request(lockOf(window), () => new Promise<void>((leave) => there(leave)));
  });
}

/** Does something once a window that was there is gone. @returns a way not to. */
export function whenGone(window: string, then: () => void): () => void {
  const stop = new AbortController();
  locks()
    ?.request(lockOf(window), { signal: stop.signal }, then)
    .catch(() => undefined);
  return () => stop.abort();
}
