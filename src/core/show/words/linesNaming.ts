/** Which lines, of macros and of cues that run them, name something by its number. */
import type { Show } from "../schema";

type Named = "palette" | "effect" | "group" | "macro";

/** A number, or numbers and ranges, after the word: "palette 21", "effects 1 thru 3 + 7". */
const NAMED = /\b(palette|effect|group|macro)s?\s+(\d+(?:\.\d+)?(?:\s*(?:\+|thru)\s*\d+(?:\.\d+)?)*)/gi;

function names(line: string, word: Named, number: number): boolean {
  for (const [, kind, all] of line.matchAll(NAMED)) {
    if (kind!.toLowerCase() !== word) continue;
    for (const part of all!.split("+")) {
      const [low, high = low] = part.split(/thru/i).map(Number) as [number, number?];
      if (number >= Math.min(low, high) && number <= Math.max(low, high)) return true;
    }
  }
  return false;
}

/** The numbers of the macros whose lines name it, in order, and how many cues run a line that does. */
export function linesNaming(
  { macros, lists }: Pick<Show, "macros" | "lists">,
  word: Named,
  number: number,
): { macros: number[]; cues: number } {
  return {
    macros: Object.values(macros)
      .filter((macro) => macro.lines.some((line) => names(line, word, number)))
      .map((macro) => macro.number)
      .sort((a, b) => a - b),
    cues: Object.values(lists).reduce(
      (n, list) => n + Object.values(list.cues).filter((cue) => cue.runs && names(cue.runs, word, number)).length,
      0,
    ),
  };
}

/** "in macro 2", "in macros 1, 3, run by 2 cues"; empty where none does. */
export const namingText = ({ macros, cues }: ReturnType<typeof linesNaming>): string =>
  [
    macros.length > 0 && `in ${macros.length === 1 ? "macro" : "macros"} ${macros.join(", ")}`,
    cues > 0 && `in a line that ${cues === 1 ? "a cue runs" : `${cues} cues run`}`,
  ]
    .filter(Boolean)
    .join(", ");
