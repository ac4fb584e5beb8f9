/** What was done in a window, as lines: typed ones as they were typed, others made from what was done when asked for. */
import { linesOf } from "@/core/desk/lines";
import { eventLine, type PlayEvent } from "@/core/play/events";
import type { Intent } from "@/core/show/change/intent";
import type { World } from "@/core/show/world";
import { z } from "@/core/units/zod";

/** A line that was typed, or what was edited or played otherwise and in which world. */
export type DoneLine =
  | string
  | { readonly before: World; readonly intents: readonly Intent[] }
  | { readonly before: World; readonly event: PlayEvent };

const MOST_LINES = 200;
const made = new WeakMap<object, readonly string[]>();

/** All lines that do what was done; what no line does is left out. */
export function linesDone(line: DoneLine): readonly string[] {
  if (typeof line === "string") return [line];
  const known = made.get(line);
  if (known) return known;
  const lines = "event" in line ? [eventLine(line.before, line.event)] : linesOf(line.before, line.intents);
  made.set(line, lines);
  return lines;
}

/** The text of a line; where one is not enough, those that follow are told by their number. */
export function lineText(line: DoneLine): string {
  const [first = "", ...more] = linesDone(line);
  return more.length === 0 ? first : `${first} // and ${more.length} more`;
}

const isSelecting = (line: DoneLine | undefined): boolean =>
  typeof line === "object" && "intents" in line && line.intents.every((intent) => intent.kind === "select");

/** Moves of one fader: only where it ends counts. */
const FADERS = new Set<PlayEvent["kind"]>(["level", "grand", "rate", "effectRate"]);
const faderOf = (line: DoneLine | undefined): string | undefined =>
  typeof line === "object" && "event" in line && FADERS.has(line.event.kind)
    ? `${line.event.kind} ${"list" in line.event ? line.event.list : ""}`
    : undefined;

/** Lines with one more: a joined one takes the place of the last, as the next selection takes that of one before it. */
export function withLine(lines: readonly DoneLine[], line: DoneLine, join = false): readonly DoneLine[] {
  const last = lines.at(-1);
  const fader = faderOf(line);
  if (fader !== undefined && fader === faderOf(last)) return [...lines.slice(0, -1), line];
  if (typeof last === "object" && "intents" in last && typeof line === "object" && "intents" in line)
    if (join || (isSelecting(last) && isSelecting(line)))
      return [...lines.slice(0, -1), { before: last.before, intents: line.intents }];
  return [...lines, line].slice(-MOST_LINES);
}

/** What Arrow up brings back, the last first: each text once. */
export const recalled = (lines: readonly DoneLine[]): string[] => [...new Set([...lines].reverse().map(lineText))];

/** The cue that was recorded by what was done last; null where something else was. @param read what a typed line asks for. */
export function recordedLast(
  lines: readonly DoneLine[],
  read: (line: string) => readonly Intent[],
): { list: number; cue: number } | null {
  const last = lines.at(-1);
  if (last === undefined || (typeof last === "object" && "event" in last)) return null;
  const recorded = (typeof last === "string" ? read(last) : last.intents).find((i) => i.kind === "recordCue");
  const fields = RecordedSchema.safeParse(recorded);
  return fields.success ? { list: fields.data.list, cue: fields.data.cue } : null;
}
const RecordedSchema = z.object({ list: z.number(), cue: z.number() });
