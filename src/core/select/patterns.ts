/** Patterns worth trying on a selection: spreads that give different steps (SEMANTICS 2). */
import { NO_SPREAD, type Spread } from "../show/hands";
import { placesOf } from "./spread";

export interface Pattern {
  name: string;
  spread: Spread;
  /** The step of each item, and how many there are. */
  step: readonly number[];
  count: number;
}

const HALVES = [2, 3, 4];
const MOST = 14;

/** Spreads by order that make sense for n items, each with steps of its own, the plain one left out. */
export function patternsFor(n: number): Pattern[] {
  const tries: [string, Partial<Spread>][] = [
    ["from both ends", { mirror: 2 }],
    ...HALVES.map((r): [string, Partial<Spread>] => [
      r === 2 ? "every other" : `every ${r === 3 ? "third" : "fourth"}`,
      { repeat: r },
    ]),
    ...HALVES.map((b): [string, Partial<Spread>] => [`in groups of ${b}`, { bunch: b }]),
    ["in pairs from both ends", { mirror: 2, bunch: 2 }],
    ["three-fold", { mirror: 3 }],
    ["four-fold", { mirror: 4 }],
    ["two waves", { repeat: Math.ceil(n / 2) }],
    ["three waves", { repeat: Math.ceil(n / 3) }],
    ["halves", { bunch: Math.ceil(n / 2) }],
    ["three-fold, every other", { mirror: 3, repeat: 2 }],
    ["pairs, every third", { bunch: 2, repeat: 3 }],
    ["four-fold in pairs", { mirror: 4, bunch: 2 }],
  ];
  const seen = new Set([placesOf(n, NO_SPREAD).step.join()]);
  return tries
    .flatMap(([name, change]): Pattern[] => {
      const spread = { ...NO_SPREAD, ...change };
      const { step, count } = placesOf(n, spread);
      const text = step.join();
      if (count < 2 || seen.has(text)) return [];
      seen.add(text);
      return [{ name, spread, step, count }];
    })
    .slice(0, MOST);
}
