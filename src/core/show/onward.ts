/** A diff for who only follows it: without what was before, and what is held as plain pairs, since thousands change many times a second. */
import { readDiff, type Change, type Diff } from "./diff";
import { z } from "../units/zod";

const HELD = ["hands", "held"] as const;
const isHeldEntry = ({ path }: Change): boolean => path.length === 3 && path[0] === HELD[0] && path[1] === HELD[1];
/** Whether it comes before or after what is held: then all stays in its order. */
const touchesHeld = ({ path }: Change): boolean => path[0] === HELD[0] && (path.length < 2 || path[1] === HELD[1]);

const OnwardSchema = z.object({ held: z.array(z.unknown()), rest: z.string() });

/** As text, to be read by `readOnward`. */
export function writeOnward(diff: Diff): string {
  const held: unknown[] = [];
  const rest: Change[] = [];
  for (const change of diff) {
    if (isHeldEntry(change)) held.push(change.path[2], change.to ?? null);
    else rest.push({ path: change.path, ...(change.to === undefined ? {} : { to: change.to }) });
  }
  if (held.length === 0 || rest.some(touchesHeld)) return JSON.stringify(diff);
  return JSON.stringify({ held, rest: JSON.stringify(rest) });
}

/** The diff of a text of `writeOnward` or `writeDiff`; undefined where it is none. What was before is not in it. */
export function readOnward(text: string): Diff | undefined {
  if (!text.startsWith("{")) return readDiff(text);
  try {
    const read = OnwardSchema.safeParse(JSON.parse(text)).data;
    const rest = read && readDiff(read.rest);
    if (!rest || read.held.length % 2 !== 0) return undefined;
    const diff: Change[] = [...rest];
    for (let k = 0; k < read.held.length; k += 2) {
      const [key, to] = [read.held[k], read.held[k + 1]];
      if (typeof key !== "string") return undefined;
      diff.push(to === null ? { path: [...HELD, key] } : { path: [...HELD, key], to });
    }
    return diff;
  } catch {
    return undefined;
  }
}
