/** Expected failure is returned, never thrown: what is wrong, and what would do. */
export interface Refusal {
  refused: true;
  what: string;
  cure?: string;
}

/** Why something was not done, and what would do. */
export const refuse = (what: string, cure?: string): Refusal => ({ refused: true, what, ...(cure ? { cure } : {}) });

/** Whether something is a refusal. */
export const isRefusal = (value: unknown): value is Refusal =>
  typeof value === "object" && value !== null && (value as { refused?: unknown }).refused === true;

/** A refusal as one sentence or two. */
export const refusalText = (refusal: Refusal): string =>
  refusal.cure ? `${refusal.what}. ${refusal.cure}` : refusal.what;

const TAG = Symbol("refusal");
class Refused extends Error {
  readonly [TAG] = true;
  constructor(readonly refusal: Refusal) {
    super(refusalText(refusal));
  }
}

/** Ends the surrounding `attempt` with a refusal: for the inside of intents, where it keeps the straight path straight. */
export function fail(what: string, cure?: string): never {
  throw new Refused(refuse(what, cure));
}

/** Runs `work`; a `fail` inside becomes the returned refusal. Anything else thrown is misuse and goes on. */
export function attempt<T>(work: () => T): T | Refusal {
  try {
    return work();
  } catch (error) {
    if (error instanceof Refused) return error.refusal;
    throw error;
  }
}
