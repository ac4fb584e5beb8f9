/** A change for who only follows it: without what was before, and what is held as plain pairs, since thousands change many times a second. */
import { applyDiff, readDiff, type Change, type Diff } from "./diff";
import type { Hands } from "./hands";
import type { World } from "./world";
import { z } from "../units/zod";

/** What was before and what is held, by its path. */
const isHeldEntry = ({ path }: Change): boolean => path.length === 3 && path[0] === "hands" && path[1] === "held";
/** Whether it comes before or after what is held: then all stays in its order. */
const touchesHeld = ({ path }: Change): boolean => path[0] === "hands" && (path.length < 2 || path[1] === "held");

const OnwardSchema = z.object({ held: z.array(z.unknown()), rest: z.string() });

/** As text, to be followed by `followOnward`. */
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

interface Onward {
  world: World;
  /** Parameters that are held otherwise. */
  held: string[];
  /** What else changed. */
  rest: Diff;
}

/**
 * A world that follows what a text of `writeOnward` or `writeDiff` tells; undefined where the text is none.
 * @throws when it belongs to another world.
 */
export function followOnward(world: World, text: string): Onward | undefined {
  if (!text.startsWith("{")) {
    const diff = readDiff(text);
    if (!diff) return undefined;
    const held = diff.flatMap(({ path }) => (path[0] === "hands" && path[1] === "held" ? (path[2] ?? []) : []));
    return { world: applyDiff(world, diff), held, rest: diff };
  }
  const read = readPairs(text);
  const rest = read && readDiff(read.rest);
  if (!rest) return undefined;
  const after = applyDiff(world, rest);
  const all: Record<string, unknown> = { ...after.hands.held };
  const held: string[] = [];
  for (let k = 0; k < read.held.length; k += 2) {
    const [key, to] = [read.held[k], read.held[k + 1]];
    if (typeof key !== "string" || key === "__proto__") return undefined;
    held.push(key);
    if (to === null || to === undefined) delete all[key];
    else all[key] = to;
  }
  return { world: { ...after, hands: { ...after.hands, held: all as Hands["held"] } }, held, rest };
}

function readPairs(text: string): z.infer<typeof OnwardSchema> | undefined {
  try {
    return OnwardSchema.safeParse(JSON.parse(text)).data;
  } catch {
    return undefined;
  }
}
