/** Questions to a worker or another window, each answered once and known by its number. */

export interface Asking<A> {
  /** @param send sends the question under its number. */
  ask(send: (id: number) => void): Promise<A>;
  /** An answer that came; one that nobody waits for is left. */
  answer(id: number, answer: A): void;
  /** Answers all that wait: nobody else will. */
  end(answer: A): void;
}

/** @param late how long an answer may take, milliseconds, and what is answered then; without it there is no hurry. */
export function createAsking<A>(late?: { after: number; answer: () => A }): Asking<A> {
  const waiting = new Map<number, (answer: A) => void>();
  let count = 0;
  const answer = (id: number, given: A): void => {
    waiting.get(id)?.(given);
    waiting.delete(id);
  };
  return {
    ask: (send) =>
      new Promise((resolve) => {
        const id = ++count;
        const timer = late && setTimeout(() => answer(id, late.answer()), late.after);
        waiting.set(id, (given) => (clearTimeout(timer), resolve(given)));
        send(id);
      }),
    answer,
    end(given) {
      for (const id of [...waiting.keys()]) answer(id, given);
    },
  };
}
