/** What of a description was left out, said by line. */
import { startOf, type Element } from "./xml";

/** Tells what was left out, and of which element. */
export type Note = (what: string, element?: Element) => void;

export interface Notes {
  note: Note;
  /** In the order they were made: "line 12: ..."; what is said of several lines stands once. */
  list(): string[];
}

/** @param source the text the elements were read from. @param most so many are kept. */
export function createNotes(source: string, most: number): Notes {
  const said = new Map<string, { line: number | undefined; more: number }>();
  const lineOf = lineFinder(source);
  return {
    note(what, element) {
      const before = said.get(what);
      if (before) before.more += 1;
      else if (said.size < most) said.set(what, { line: element && lineOf(startOf(element)), more: 0 });
    },
    list: () =>
      [...said].map(
        ([what, { line, more }]) =>
          `${line === undefined ? "" : `line ${line}: `}${what}${line !== undefined && more > 0 ? `; ${more} more like it` : ""}`,
      ),
  };
}

/** The line an index lies in, from 1; lines are counted when the first is asked for. */
function lineFinder(source: string): (index: number | undefined) => number | undefined {
  let starts: number[] | undefined;
  return (index) => {
    if (index === undefined) return undefined;
    starts ??= [0, ...[...source.matchAll(/\r\n?|\n/g)].map((m) => m.index + m[0].length)];
    let [low, high] = [0, starts.length];
    while (high - low > 1) {
      const mid = (low + high) >> 1;
      if (starts[mid]! <= index) low = mid;
      else high = mid;
    }
    return low + 1;
  };
}
