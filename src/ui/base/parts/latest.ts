/** Of what was asked for several times only the last is wanted, in whatever order the answers come. */
export function createLatest(): <T>(asked: Promise<T>) => Promise<{ answer: T } | undefined> {
  let count = 0;
  return async (asked) => {
    const own = ++count;
    const answer = await asked;
    return own === count ? { answer } : undefined;
  };
}
