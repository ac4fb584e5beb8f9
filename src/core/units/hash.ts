/** Where FNV-1a begins. */
export const HASH_START = 0x811c9dc5;

/** FNV-1a, 32 bits (Fowler, Noll, Vo), over the characters of a text. @param from the hash of the text before it. @returns whole, 0 to 2^32 - 1. */
export function hashOf(text: string, from = HASH_START): number {
  let hash = from;
  for (let i = 0; i < text.length; i++) hash = Math.imul(hash ^ text.charCodeAt(i), 0x01000193);
  return hash >>> 0;
}
