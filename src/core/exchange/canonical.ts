/** JSON with sorted keys: the same document gives the same text. */
export function canonical(value: unknown): string {
  return JSON.stringify(value, (_, inner: unknown) => {
    if (typeof inner !== "object" || inner === null || Array.isArray(inner)) return inner;
    const keys = Object.keys(inner);
    if (keys.every((key, k) => k === 0 || keys[k - 1]! < key)) return inner;
    return Object.fromEntries(Object.entries(inner).sort(([a], [b]) => (a < b ? -1 : 1)));
  });
}
