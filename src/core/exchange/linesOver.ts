/** Lines that macros keep and cues run, brought over from another show: what they name by number or name, and the same under other numbers. */
import { splitQuoted } from "../units/quoted";
import type { Show } from "../show/schema";
import type { Id } from "../show/ids";

const WORDS = {
  palette: "palettes",
  effect: "effects",
  group: "groups",
  macro: "macros",
  list: "lists",
  page: "pages",
  view: "views",
} as const;
/** What lines call by number. */
export type Named = keyof typeof WORDS;

/** "palette 21", "group 1 thru 4", and "list 1 + 2": after a group "+ 2" is a fixture. */
const CALLED =
  /\b(palette|effect|group|macro|list|page|view)(s?\s+)(\d+(?:\s*(?:thru|\.\.)\s*\d+)?)((?:\s*\+\s*\d+(?![\d.]))*)/gi;
/** "replace palette 3 by 7", "merge palette 3 into 7". */
const SECOND = /^(\s+(?:by|into)\s+)(\d+)/i;
/** A line that begins with fixtures, or adds and takes away some. */
const FIXTURES = /^\s*(?:all\b|\d)|[+-]\s*\d/;

type Low = number;
type High = number;

interface Call {
  what: Named;
  ranges: [Low, High][];
}

const rangeOf = (text: string): [Low, High] => {
  const [low, high = low] = text.split(/thru|\.\./i).map((part) => Number(part.trim())) as [number, number?];
  return low <= high ? [low, high] : [high, low];
};

/** Calls by number in a line; what stands in quotes is none. */
function callsIn(line: string): Call[] {
  return splitQuoted(line)
    .filter((part) => !part.quoted)
    .flatMap(({ text }) =>
      [...text.matchAll(CALLED)].map((found): Call => {
        const what = found[1]!.toLowerCase() as Named;
        const more = what === "group" ? [] : [...found[4]!.matchAll(/\d+/g)].map((n) => rangeOf(n[0]));
        const second = SECOND.exec(text.slice(found.index + found[0].length));
        return { what, ranges: [rangeOf(found[3]!), ...more, ...(second ? [rangeOf(second[2]!)] : [])] };
      }),
    );
}

/** The records of a show that lines call, by number or, in quotes, by name; each once. */
export function calledBy(show: Show, lines: readonly string[]): [Named, Id][] {
  const found = new Map<Id, Named>();
  const add = (what: Named, is: (record: { number: number; name: string }) => boolean) => {
    for (const record of Object.values(show[WORDS[what]])) if (is(record)) found.set(record.id, what);
  };
  for (const line of lines) {
    for (const { what, ranges } of callsIn(line))
      add(what, ({ number }) => ranges.some(([low, high]) => number >= low && number <= high));
    const parts = splitQuoted(line);
    parts.forEach(({ text, quoted }, k) => {
      const word = !quoted && parts[k + 1]?.quoted ? /\b(palette|effect|group)\s*$/i.exec(text)?.[1] : undefined;
      if (word) add(word.toLowerCase() as Named, ({ name }) => name === parts[k + 1]!.text);
    });
  }
  return [...found].map(([id, what]) => [what, id]);
}

/** Whether lines name fixtures by their numbers. */
export const nameFixtures = (lines: readonly string[]): boolean =>
  lines.some((line) => splitQuoted(line).some(({ text, quoted }) => !quoted && FIXTURES.test(text)));

/**
 * A line with what it calls under other numbers; undefined where a range has come apart and cannot be said any more.
 * @param as the number something has now; the same where it has not moved.
 */
export function lineOver(line: string, as: (what: Named, number: number) => number): string | undefined {
  let apart = false;
  const over = (what: Named, text: string): string => {
    const [low, high] = rangeOf(text);
    const shift = as(what, low) - low;
    for (let n = low; n <= Math.min(high, low + 10_000); n++) if (as(what, n) - n !== shift) apart = true;
    return text.replace(/\d+/g, (n) => String(Number(n) + shift));
  };
  const made = splitQuoted(line).map(({ text, quoted }) => {
    if (quoted) return `"${text.replaceAll('"', '""')}"`;
    let last: Named | undefined;
    let end = -1;
    const once = text.replace(CALLED, (all: string, word: string, gap: string, first: string, more: string, at) => {
      const what = word.toLowerCase() as Named;
      [last, end] = [what, (at as number) + all.length];
      const others = what === "group" ? more : more.replace(/\d+/g, (n) => String(as(what, Number(n))));
      return `${word}${gap}${over(what, first)}${others}`;
    });
    const second = last && SECOND.exec(text.slice(end));
    if (!second) return once;
    const tail = text.slice(end);
    return `${once.slice(0, once.length - tail.length)}${second[1]!}${as(last!, Number(second[2]))}${tail.slice(second[0].length)}`;
  });
  return apart ? undefined : made.join("");
}
