/** What was done, as lines of the command language. */
import { eventLine, type PlayEvent } from "../play/events";
import { INTENTS } from "../intents";
import { applyIntents, type Intent } from "../show/change/intent";
import { isRefusal } from "../show/refusal";
import type { World } from "../show/world";

/** The lines that do what intents do, one after another, where all of them can be done. */
export function linesOf(world: World, intents: readonly Intent[], events: readonly PlayEvent[] = []): string[] {
  const lines: string[] = [];
  let now = world;
  for (const [k, intent] of intents.entries()) {
    lines.push(...INTENTS.get(intent.kind)!.lines(now, intent));
    if (k === intents.length - 1 && events.length === 0) break;
    const done = applyIntents(INTENTS, now, [intent]);
    if (isRefusal(done)) return lines;
    now = done.world;
  }
  // One line may do both.
  return [...lines, ...events.map((event) => eventLine(now, event)).filter((line) => !lines.includes(line))];
}
