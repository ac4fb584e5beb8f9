/** Makes a record and all in it unchangeable: edits then share what they leave alone instead of copying it. */
export function frozen<T>(value: T): T {
  if (typeof value !== "object" || value === null || Object.isFrozen(value)) return value;
  Object.freeze(value);
  for (const part of Array.isArray(value) ? (value as unknown[]) : Object.values(value)) frozen(part);
  return value;
}
