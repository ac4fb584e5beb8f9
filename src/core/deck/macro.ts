/** Macros: lines run in order as if typed (SEMANTICS 12). */
import type { Macro } from "../show/deckSchema";
import { isRefusal, refuse, type Refusal } from "../show/refusal";
import type { Show } from "../show/schema";
import { macrosByNumber } from "../show/world";

/** The most lines a macro comes to, those of the macros it runs included. */
const MOST_LINES = 10_000;

/** A line without its comment, blanks at its ends and capitals left out. */
const bare = (line: string): string => {
  let quoted = false;
  for (let i = 0; i < line.length; i++) {
    if (line[i] === '"') quoted = !quoted;
    if (!quoted && line.startsWith("//", i)) return line.slice(0, i).trim();
  }
  return line.trim();
};

/** The number of the macro a line runs; undefined where it runs none. */
export function macroRunBy(line: string): number | undefined {
  const found = /^macro\s+(\d{1,6})$/i.exec(bare(line));
  return found ? Number(found[1]) : undefined;
}

/** The seconds a line waits; undefined where it does something else. */
export function waitOf(line: string): number | undefined {
  const found = /^wait\s+(\d{1,6}(?:\.\d+)?)$/i.exec(bare(line));
  return found && Number(found[1]) <= 86_400 ? Number(found[1]) : undefined;
}

/** Why lines cannot be a macro; undefined where they can. @param number the macro they would be. */
export function notAMacro(show: Pick<Show, "macros">, number: number, lines: readonly string[]): Refusal | undefined {
  const steps = lines.find((line) => /^(undo|redo)\b/i.test(bare(line)));
  if (steps !== undefined)
    return refuse(
      `a macro cannot ${bare(steps).toLowerCase()}: it would take back what is not its own`,
      "Leave that line out",
    );
  const path = wayRound(show, number, lines);
  return path && refuse(`macro ${path.join(" would run macro ")}: it would never end`, "Leave that line out");
}

/** The macros that lead from one back to itself, it at both ends; undefined where none do. Each macro is looked at once. */
function wayRound(show: Pick<Show, "macros">, number: number, lines: readonly string[]): number[] | undefined {
  const linesOf = new Map(macrosByNumber(show).map((macro) => [macro.number, macro.lines]));
  linesOf.set(number, [...lines]);
  const seen = new Set<number>();
  const search = (at: number): number[] | undefined => {
    seen.add(at);
    for (const line of linesOf.get(at) ?? []) {
      const next = macroRunBy(line);
      if (next === undefined) continue;
      if (next === number) return [at, next];
      const found = seen.has(next) ? undefined : search(next);
      if (found) return [at, ...found];
    }
    return undefined;
  };
  return search(number);
}

/** All lines a macro comes to, those of the macros it runs in their places. Each macro is gone through once, however often it is run. */
export function allLines(show: Pick<Show, "macros">, macro: Macro): string[] | Refusal {
  const byNumber = new Map(macrosByNumber(show).map((m) => [m.number, m]));
  const known = new Map<number, string[]>();
  const within = new Set<number>();
  const tooMany = refuse(`macro ${macro.number} comes to more than ${MOST_LINES} lines`);
  const linesOf = ({ number, lines }: Macro): string[] | Refusal => {
    const done = known.get(number);
    if (done) return done;
    within.add(number);
    const found: string[] = [];
    for (const line of lines) {
      const next = macroRunBy(line);
      if (next === undefined) {
        if (bare(line) !== "") found.push(line);
      } else {
        const other = byNumber.get(next);
        if (!other) return refuse(`macro ${number} runs macro ${next}, which does not exist`);
        if (within.has(next)) return refuse(`macro ${next} would run itself`);
        const inner = linesOf(other);
        if (isRefusal(inner)) return inner;
        if (found.length + inner.length > MOST_LINES) return tooMany;
        found.push(...inner);
      }
      if (found.length > MOST_LINES) return tooMany;
    }
    within.delete(number);
    known.set(number, found);
    return found;
  };
  return linesOf(macro);
}

/** A macro in words. */
export const macroText = ({ number, name }: Pick<Macro, "number" | "name">): string =>
  `macro ${number}${name ? ` "${name}"` : ""}`;
