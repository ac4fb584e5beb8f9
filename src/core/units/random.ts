/** Randomness from a seed: the same seed, the same numbers. */

/** Mulberry32 (T. Ettinger, public domain): 32-bit state, numbers in [0, 1). */
export function randomFrom(seed: number): () => number {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let t = state;
    t = Math.imul(t ^ (t >>> 15), t | 1);
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

/** Fisher-Yates with a seed; the input is left as it is. */
export function shuffled<T>(items: readonly T[], seed: number): T[] {
  const random = randomFrom(seed);
  const out = [...items];
  for (let i = out.length - 1; i > 0; i--) {
    const k = Math.floor(random() * (i + 1));
    [out[i], out[k]] = [out[k]!, out[i]!];
  }
  return out;
}
