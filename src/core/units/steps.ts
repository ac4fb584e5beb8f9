/** Work that is done in steps, so that whoever waits can be served between them. */

/** Does all steps at once. @returns what the work comes to. */
export function atOnce<T>(steps: Generator<void, T>): T {
  for (;;) {
    const { done, value } = steps.next();
    if (done) return value;
  }
}
