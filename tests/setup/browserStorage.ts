/** What a browser remembers, in a test: its localStorage over a map, and nobody to be told of changes. */
export function fakeBrowserStorage(): Map<string, string> {
  const kept = new Map<string, string>();
  Object.assign(globalThis, {
    localStorage: {
      get length() {
        return kept.size;
      },
      key: (i: number) => [...kept.keys()][i] ?? null,
      getItem: (key: string) => kept.get(key) ?? null,
      setItem: (key: string, value: string) => void kept.set(key, value),
    },
    dispatchEvent: () => true,
  });
  return kept;
}
