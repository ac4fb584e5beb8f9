/** A flat array with room for more, what was in it kept. */
export function grown<T extends Float64Array | Int32Array | Uint32Array | Uint8Array>(
  old: T,
  size = old.length * 2,
): T {
  const made = new (old.constructor as new (n: number) => T)(size);
  made.set(old);
  return made;
}
