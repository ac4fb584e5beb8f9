/** A change for who only follows it: without what was before, and what is held as plain pairs, since thousands change many times a second. */
import { applyDiff, readDiff, type Change, type Diff } from "./diff";
import type { Entry } from "./value";
import type { World } from "./world";
import { z } from "../units/zod";

/** What was before and what is held, by its path. */
const isHeldEntry = ({ path }: Change): boolean => path.length === 3 && path[0] === "hands" && path[1] === "held";
/** Whether it comes before or after what is held: then all stays in its order. */
const touchesHeld = ({ path }: Change): boolean => path[0] === "hands" && (path.length < 2 || path[1] === "held");

/** What is held of some keys, in order: numbers of one attribute, or whole entries, null where it is let go. */
const RunSchema = z.union([
  z.object({ attribute: z.string(), keys: z.array(z.string()), values: z.array(z.number()) }),
  z.object({ keys: z.array(z.string()), entries: z.array(z.unknown()) }),
]);
type Run = z.infer<typeof RunSchema>;
const OnwardSchema = z.object({ held: z.array(RunSchema), rest: z.string() });
type Told = z.infer<typeof OnwardSchema>;

/** The attribute of an entry that says a number and nothing else. */
function attributeOfNumber(entry: Entry): string | undefined {
  for (const name in entry) if (name !== "attribute" && name !== "value") return undefined;
  return typeof entry.value === "number" ? entry.attribute : undefined;
}

/** As text, to be followed by `followOnward`. */
export function writeOnward(diff: Diff): string {
  const held: Run[] = [];
  const rest: Change[] = [];
  for (const change of diff) {
    if (isHeldEntry(change)) addTo(held, change.path[2]!, change.to as Entry | undefined);
    else rest.push({ path: change.path, ...(change.to === undefined ? {} : { to: change.to }) });
  }
  if (held.length === 0 || rest.some(touchesHeld)) return JSON.stringify(diff);
  return JSON.stringify({ held, rest: JSON.stringify(rest) });
}

/** Adds to the run that goes on, or begins one. */
function addTo(runs: Run[], key: string, entry: Entry | undefined): void {
  const attribute = entry && attributeOfNumber(entry);
  let last = runs.at(-1);
  if (!last || ("attribute" in last ? last.attribute : undefined) !== attribute) {
    last = attribute === undefined ? { keys: [], entries: [] } : { attribute, keys: [], values: [] };
    runs.push(last);
  }
  last.keys.push(key);
  if ("values" in last) last.values.push(entry!.value as number);
  else last.entries.push(entry ?? null);
}

interface Onward {
  world: World;
  /** Parameters that are held otherwise; undefined where all may be. */
  held: string[] | undefined;
  /** What else changed. */
  rest: Diff;
}

/**
 * A world that follows what a text of `writeOnward` or `writeDiff` tells; undefined where the text is none.
 * The world given is taken over: where other values are held for the same parameters they are set in its own record,
 * since copying one of thousands takes longer than all the rest.
 * @throws when it belongs to another world.
 */
export function followOnward(world: World, text: string): Onward | undefined {
  if (!text.startsWith("{")) {
    const diff = readDiff(text);
    if (!diff) return undefined;
    const touching = diff.filter(touchesHeld);
    const held = touching.every(({ path }) => path.length > 2) ? touching.map(({ path }) => path[2]!) : undefined;
    return { world: applyDiff(world, diff), held, rest: diff };
  }
  const read = readTold(text);
  const rest = read && readDiff(read.rest);
  const told = read && pairsOf(read);
  if (!rest || !told) return undefined;
  const after = applyDiff(world, rest);
  const before = after.hands.held;
  const all = told.every(([key, to]) => to !== null && Object.hasOwn(before, key)) ? before : { ...before };
  for (const [key, to] of told) {
    if (to === null) delete all[key];
    else all[key] = to;
  }
  return { world: { ...after, hands: { ...after.hands, held: all } }, held: told.map(([key]) => key), rest };
}

function readTold(text: string): Told | undefined {
  try {
    return OnwardSchema.safeParse(JSON.parse(text)).data;
  } catch {
    return undefined;
  }
}

/** Keys with what is held for them; undefined where the text does not fit together. */
function pairsOf({ held }: Told): [string, Entry | null][] | undefined {
  const pairs: [string, Entry | null][] = [];
  for (const run of held) {
    const numbers = "values" in run;
    if (run.keys.length !== (numbers ? run.values : run.entries).length) return undefined;
    run.keys.forEach((key, k) =>
      pairs.push([
        key,
        numbers ? { attribute: run.attribute, value: run.values[k]! } : ((run.entries[k] ?? null) as Entry | null),
      ]),
    );
  }
  return pairs.some(([key]) => key === "__proto__") ? undefined : pairs;
}
