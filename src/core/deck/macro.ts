/** Macros: lines run in order as if typed (SEMANTICS 12). */
import type { Macro } from "../show/deckSchema";
import { refuse, type Refusal } from "../show/refusal";
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
      `a macro cannot ${bare(steps).toLowerCase()}: it would take back what it is not its own`,
      "Leave that line out",
    );
  const linesOf = (n: number) => (n === number ? lines : macrosByNumber(show).find((m) => m.number === n)?.lines);
  const round = (at: number, path: readonly number[]): readonly number[] | undefined => {
    for (const line of linesOf(at) ?? []) {
      const next = macroRunBy(line);
      if (next === undefined) continue;
      if (next === number) return [...path, next];
      if (path.includes(next)) continue;
      const found = round(next, [...path, next]);
      if (found) return found;
    }
    return undefined;
  };
  const path = round(number, [number]);
  return path && refuse(`macro ${path.join(" would run macro ")}: it would never end`, "Leave that line out");
}

/** All lines a macro comes to, those of the macros it runs in their places. */
export function allLines(show: Pick<Show, "macros">, macro: Macro): string[] | Refusal {
  const found: string[] = [];
  const add = ({ lines, number }: Macro, within: readonly number[]): Refusal | undefined => {
    for (const line of lines) {
      const next = macroRunBy(line);
      if (next === undefined) {
        if (bare(line) !== "") found.push(line);
        if (found.length > MOST_LINES) return refuse(`macro ${macro.number} comes to more than ${MOST_LINES} lines`);
        continue;
      }
      const other = macrosByNumber(show).find((m) => m.number === next);
      if (!other) return refuse(`macro ${number} runs macro ${next}, which does not exist`);
      if (within.includes(next)) return refuse(`macro ${next} would run itself`);
      const refusal = add(other, [...within, next]);
      if (refusal) return refusal;
    }
    return undefined;
  };
  return add(macro, [macro.number]) ?? found;
}

/** A macro in words. */
export const macroText = ({ number, name }: Pick<Macro, "number" | "name">): string =>
  `macro ${number}${name ? ` "${name}"` : ""}`;
