/** How often a property is tried: a share in every test run, in full by `npm run fuzz`, which brings its own seeds. */
export const isFull = process.env.FUZZ_SEED !== undefined;
const LEAST = 12;

/** @param full times by `npm run fuzz`. @param share one in so many of them in every test run. */
export const runs = (full: number, share = 3): number =>
  isFull ? full : Math.min(full, Math.max(LEAST, Math.ceil(full / share)));
