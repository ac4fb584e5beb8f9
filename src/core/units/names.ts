const known = new WeakMap<object, readonly string[]>();

/** The names in a record; of one that cannot change they are gathered once, as thousands of them take their time. */
export function namesIn(record: object): readonly string[] {
  const before = known.get(record);
  if (before) return before;
  const made = Object.keys(record);
  if (Object.isFrozen(record)) known.set(record, made);
  return made;
}
