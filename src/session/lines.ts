/** What was done in a window, as lines: typed ones as they were typed, others made from their intents when asked for. */
import { linesOf } from "@/core/desk/lines";
import type { Intent } from "@/core/show/intent";
import type { World } from "@/core/show/world";

/** A line that was typed, or what was done otherwise and in which world. */
export type DoneLine = string | { readonly before: World; readonly intents: readonly Intent[] };

const MOST_LINES = 200;
const made = new WeakMap<object, string>();

/** The text of a line; where one is not enough, those that follow are told by their number. */
export function lineText(line: DoneLine): string {
  if (typeof line === "string") return line;
  const known = made.get(line);
  if (known !== undefined) return known;
  const [first = "", ...more] = linesOf(line.before, line.intents);
  const text = more.length === 0 ? first : `${first} // and ${more.length} more`;
  made.set(line, text);
  return text;
}

const isSelecting = (line: DoneLine | undefined): boolean =>
  typeof line === "object" && line.intents.every((intent) => intent.kind === "select");

/** Lines with one more: a joined one takes the place of the last, as the next selection takes that of one before it. */
export function withLine(lines: readonly DoneLine[], line: DoneLine, join = false): readonly DoneLine[] {
  const last = lines.at(-1);
  if (typeof line === "string") return [...lines.filter((l) => l !== line), line].slice(-MOST_LINES);
  if (typeof last === "object" && (join || (isSelecting(last) && isSelecting(line))))
    return [...lines.slice(0, -1), { before: last.before, intents: line.intents }];
  return [...lines, line].slice(-MOST_LINES);
}
