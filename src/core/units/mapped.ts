/** Records made of others, under the same ids. */
export const mapped = <T, U>(records: Readonly<Record<string, T>>, make: (record: T) => U): Record<string, U> =>
  Object.fromEntries(Object.entries(records).map(([id, record]) => [id, make(record)]));
