/** Values by what they have in common, groups and members in the order they came. */
export function grouped<T, K>(values: Iterable<T>, of: (value: T) => K): Map<K, T[]> {
  const groups = new Map<K, T[]>();
  for (const value of values) {
    const key = of(value);
    const group = groups.get(key);
    if (group) group.push(value);
    else groups.set(key, [value]);
  }
  return groups;
}
