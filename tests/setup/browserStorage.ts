/**
 * What a browser remembers, in a test: its localStorage over a map, and nobody to be told of changes.
 * It stands there while the suite runs that asked for it, and no longer: suites share their world.
 */
export function fakeBrowserStorage(): Map<string, string> {
  const kept = new Map<string, string>();
  const browser = {
    localStorage: {
      get length() {
        return kept.size;
      },
      key: (i: number) => [...kept.keys()][i] ?? null,
      getItem: (key: string) => kept.get(key) ?? null,
      setItem: (key: string, value: string) => void kept.set(key, value),
    },
    dispatchEvent: () => true,
  };
  const names = Object.keys(browser) as (keyof typeof browser)[];
  let before: (PropertyDescriptor | undefined)[];
  beforeAll(() => {
    before = names.map((name) => Object.getOwnPropertyDescriptor(globalThis, name));
    for (const name of names)
      Object.defineProperty(globalThis, name, { value: browser[name], configurable: true, writable: true });
  });
  afterAll(() =>
    names.forEach((name, i) => {
      if (before[i]) Object.defineProperty(globalThis, name, before[i]);
      else Reflect.deleteProperty(globalThis, name);
    }),
  );
  return kept;
}
