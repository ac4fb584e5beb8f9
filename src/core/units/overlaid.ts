/** A map of thousands with a few changes laid over it, so that the next version of it is not copied whole. */

/** With more changes than this the next version is a map of its own. */
const MOST = 256;

class Overlaid<K, V> implements ReadonlyMap<K, V> {
  readonly size: number;

  /** @param changes undefined for what is gone. */
  constructor(
    readonly base: ReadonlyMap<K, V>,
    readonly changes: ReadonlyMap<K, V | undefined>,
  ) {
    let { size } = base;
    for (const [key, value] of changes) size += Number(value !== undefined) - Number(base.has(key));
    this.size = size;
  }

  get(key: K): V | undefined {
    return this.changes.has(key) ? this.changes.get(key) : this.base.get(key);
  }

  has(key: K): boolean {
    return this.changes.has(key) ? this.changes.get(key) !== undefined : this.base.has(key);
  }

  *keys(): MapIterator<K> {
    for (const key of this.base.keys()) if (this.has(key)) yield key;
    for (const [key, value] of this.changes) if (value !== undefined && !this.base.has(key)) yield key;
  }

  *entries(): MapIterator<[K, V]> {
    for (const entry of this.base) {
      if (!this.changes.has(entry[0])) yield entry;
      else if (this.has(entry[0])) yield [entry[0], this.get(entry[0])!];
    }
    for (const [key, value] of this.changes) if (value !== undefined && !this.base.has(key)) yield [key, value];
  }

  *values(): MapIterator<V> {
    for (const key of this.keys()) yield this.get(key)!;
  }

  [Symbol.iterator](): MapIterator<[K, V]> {
    return this.entries();
  }

  forEach(each: (value: V, key: K, map: ReadonlyMap<K, V>) => void): void {
    for (const [key, value] of this) each(value, key, this);
  }
}

/** The map with these changes; undefined takes a key out. What is there keeps its order, what is new comes last. */
export function overlaid<K, V>(map: ReadonlyMap<K, V>, changes: ReadonlyMap<K, V | undefined>): ReadonlyMap<K, V> {
  const [base, all] =
    map instanceof Overlaid
      ? [(map as Overlaid<K, V>).base, new Map([...(map as Overlaid<K, V>).changes, ...changes])]
      : [map, changes];
  if (all.size <= MOST) return new Overlaid(base, all);
  const made = new Map(map);
  for (const [key, value] of changes)
    if (value === undefined) made.delete(key);
    else made.set(key, value);
  return made;
}

/** The keys under which two maps differ; quickly where one was made from the other. */
export function keysThatDiffer<K, V>(a: ReadonlyMap<K, V>, b: ReadonlyMap<K, V>): K[] {
  if (a === b) return [];
  const [baseA, baseB] = [a, b].map((map) => (map instanceof Overlaid ? (map as Overlaid<K, V>).base : map));
  const changesOf = (map: ReadonlyMap<K, V>): Iterable<K> =>
    map instanceof Overlaid ? (map as Overlaid<K, V>).changes.keys() : [];
  const among: Iterable<K> = baseA === baseB ? [...changesOf(a), ...changesOf(b)] : [...b.keys(), ...a.keys()];
  return [...new Set(among)].filter((key) => a.get(key) !== b.get(key));
}
