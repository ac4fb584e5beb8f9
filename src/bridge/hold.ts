/**
 * Who holds the output. One show at a time sends; another one waits until it is free, or until a person
 * takes it. A show that hands over from one window to another keeps it without asking. Time is handed in.
 */

/** So long the output is kept for a show whose window has just gone: another window of it takes over. */
export const KEPT_MS = 2000;

export interface Claimant {
  /** The same for all windows of one show in one browser. */
  show: string;
  /** The show's name, for people. */
  name: string;
  /** Whether it has anything to send. */
  wants: boolean;
  /** It held the output and somebody took it. */
  lost: boolean;
  /** When it last held the output; -Infinity where it never did. */
  heldAt: number;
}

export interface Hold<C extends Claimant> {
  join(claimant: C): void;
  leave(claimant: C, now: number): void;
  /** It has something to send, or nothing any more. */
  want(claimant: C, wants: boolean, now: number): void;
  /** A person takes the output for it. */
  take(claimant: C, now: number): void;
  /** Frees what is kept no longer. */
  tick(now: number): void;
  holder(): C | undefined;
  claimants(): Iterable<C>;
}

/** @param changed told the new holder, undefined where there is none. */
export function createHold<C extends Claimant>(changed: (holder: C | undefined, now: number) => void): Hold<C> {
  const all = new Set<C>();
  let holder: C | undefined;
  let kept: { show: string; until: number } | undefined;

  function give(to: C | undefined, now: number): void {
    if (to === holder) return;
    if (holder) holder.heldAt = now;
    if (to) to.lost = false;
    holder = to;
    changed(to, now);
  }
  /** The one who held it last comes first, then whoever came first. */
  function next(now: number): void {
    const waiting = [...all].filter((c) => c.wants && c !== holder);
    const own = kept && waiting.find((c) => c.show === kept!.show);
    if (kept && !own && now < kept.until) return give(undefined, now);
    kept = undefined;
    give(
      own ?? waiting.reduce<C | undefined>((best, c) => (best && best.heldAt >= c.heldAt ? best : c), undefined),
      now,
    );
  }

  return {
    join: (claimant) => void all.add(claimant),
    leave(claimant, now) {
      all.delete(claimant);
      if (claimant !== holder) return;
      kept = { show: claimant.show, until: now + KEPT_MS };
      holder = undefined;
      const own = [...all].some((c) => c.wants && c.show === claimant.show);
      if (own) next(now);
      else changed(undefined, now);
    },
    want(claimant, wants, now) {
      claimant.wants = wants;
      if (claimant === holder) {
        if (!wants) next(now);
      } else if (wants && (!holder || holder.show === claimant.show)) {
        if (holder) give(claimant, now);
        else next(now);
      }
    },
    take(claimant, now) {
      if (holder && holder !== claimant && holder.show !== claimant.show) holder.lost = true;
      kept = undefined;
      give(claimant, now);
    },
    tick(now) {
      if (kept && now >= kept.until && !holder) next(now);
    },
    holder: () => holder,
    claimants: () => all,
  };
}
