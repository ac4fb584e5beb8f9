/** A change for who only follows it: without what was before, and what is held as plain numbers, since thousands change many times a second. */
import { applyDiff, readDiff, type Change, type Diff } from "./diff";
import type { Entry } from "../value";
import type { World } from "../world";
import { z } from "../../units/zod";

/** What was before and what is held, by its path. */
const isHeldEntry = ({ path }: Change): boolean => path.length === 3 && path[0] === "hands" && path[1] === "held";
/** Whether it comes before or after what is held: then all stays in its order. */
const touchesHeld = ({ path }: Change): boolean => path[0] === "hands" && (path.length < 2 || path[1] === "held");

/** What is held of some keys: numbers of one attribute, or whole entries, null where it is let go. Without keys it is of those told last in its place. */
const RunSchema = z.object({
  keys: z.array(z.string()).optional(),
  /** Of a run of numbers. */
  attribute: z.string().optional(),
  entries: z.array(z.unknown()).optional(),
});
const OnwardSchema = z.object({ held: z.array(RunSchema), rest: z.string() });
type Told = z.infer<typeof OnwardSchema>;

/** A change as it is handed on: text, and the numbers of its runs one after another. */
export interface Onward {
  text: string;
  numbers?: Float64Array<ArrayBuffer>;
}

/** The attribute of an entry that says a number and nothing else. */
function attributeOfNumber(entry: Entry): string | undefined {
  for (const name in entry) if (name !== "attribute" && name !== "value") return undefined;
  return typeof entry.value === "number" ? entry.attribute : undefined;
}

const isSame = (a: readonly string[], b: readonly string[] | undefined): boolean =>
  a.length === b?.length && a.every((key, k) => key === b[k]);

interface Run {
  keys: string[];
  entries: (Entry | undefined)[];
}

/** What is held in runs by the attribute of their numbers, or none; undefined where a key is said twice. */
function runsOf(changes: Diff): Map<string | undefined, Run> | undefined {
  const runs = new Map<string | undefined, Run>();
  for (const { path, to } of changes) {
    const entry = to as Entry | undefined;
    const attribute = entry && attributeOfNumber(entry);
    let run = runs.get(attribute);
    if (!run) runs.set(attribute, (run = { keys: [], entries: [] }));
    run.keys.push(path[2]!);
    run.entries.push(entry);
  }
  if (runs.size > 1 && new Set([...runs.values()].flatMap(({ keys }) => keys)).size < changes.length) return undefined;
  return runs;
}

/** Writes changes for one who follows them all with `createFollower`: keys that stay the same from change to change, as in a drag, are told once. */
export function createTeller(): (diff: Diff) => Onward {
  const told: (readonly string[])[] = [];
  return (diff) => {
    const changes = diff.filter(isHeldEntry);
    const rest = changes.length === diff.length ? [] : diff.filter((change) => !isHeldEntry(change));
    const runs = changes.length === 0 || rest.some(touchesHeld) ? undefined : runsOf(changes);
    if (!runs) return { text: JSON.stringify(diff) };
    const values: number[] = [];
    const held = [...runs].map(([attribute, { keys, entries }], k) => {
      const whose = isSame(keys, told[k]) ? {} : { keys };
      told[k] = keys;
      if (attribute === undefined) return { ...whose, entries: entries.map((entry) => entry ?? null) };
      for (const entry of entries) values.push(entry!.value as number);
      return { ...whose, attribute };
    });
    told.length = runs.size;
    const onward = rest.map(({ path, to }) => ({ path, ...(to === undefined ? {} : { to }) }));
    const text = JSON.stringify({ held, rest: JSON.stringify(onward) } satisfies Told);
    return values.length > 0 ? { text, numbers: Float64Array.from(values) } : { text };
  };
}

interface Followed {
  world: World;
  /** Parameters that are held otherwise, the very same array for the same; undefined where all may be. */
  held: readonly string[] | undefined;
  /** What else changed. */
  rest: Diff;
}

/**
 * Follows what a teller tells, or texts of `writeDiff`: gives the world after each; undefined where the text is none.
 * The world given is taken over: where other values are held for the same parameters they are set in its own record,
 * since copying one of thousands takes longer than all the rest.
 * @throws when it belongs to another world.
 */
export function createFollower(): (world: World, onward: Onward) => Followed | undefined {
  const last: string[][] = [];
  let keys: readonly string[] = [];
  let fits = true;
  return (world, { text, numbers }) => {
    if (!text.startsWith("{")) {
      const diff = readDiff(text);
      if (!diff) return undefined;
      const touching = diff.filter(touchesHeld);
      const held = touching.every(({ path }) => path.length > 2) ? touching.map(({ path }) => path[2]!) : undefined;
      return { world: applyDiff(world, diff), held, rest: diff };
    }
    const read = readTold(text);
    const rest = read && readDiff(read.rest);
    if (!read || !rest) return undefined;
    read.held.forEach((run, k) => (last[k] = run.keys ?? last[k] ?? []));
    if (last.length !== read.held.length || read.held.some((run) => run.keys)) {
      last.length = read.held.length;
      keys = last.length === 1 ? last[0]! : last.flat();
      fits = !keys.includes("__proto__");
    }
    const entries = entriesOf(read, last, numbers ?? new Float64Array());
    if (!entries || !fits) return undefined;
    const after = applyDiff(world, rest);
    const held = heldAfter(after.hands.held, keys, entries);
    return { world: { ...after, hands: { ...after.hands, held } }, held: keys, rest };
  };
}

function heldAfter(
  before: World["hands"]["held"],
  keys: readonly string[],
  entries: readonly (Entry | null)[],
): World["hands"]["held"] {
  const all = keys.every((key, k) => entries[k] !== null && Object.hasOwn(before, key)) ? before : { ...before };
  for (let k = 0; k < keys.length; k++) {
    const to = entries[k]!;
    if (to === null) delete all[keys[k]!];
    else all[keys[k]!] = to;
  }
  return all;
}

function readTold(text: string): Told | undefined {
  try {
    return OnwardSchema.safeParse(JSON.parse(text)).data;
  } catch {
    return undefined;
  }
}

/** What is told of the keys of runs, one after another; undefined where it does not fit together. */
function entriesOf(
  { held }: Told,
  keys: readonly (readonly string[])[],
  numbers: Float64Array,
): (Entry | null)[] | undefined {
  const made: (Entry | null)[] = [];
  let at = 0;
  for (const [k, { attribute, entries }] of held.entries()) {
    const count = keys[k]!.length;
    if (attribute === undefined) {
      if (entries?.length !== count) return undefined;
      for (const entry of entries) made.push((entry ?? null) as Entry | null);
      continue;
    }
    for (const end = at + count; at < end; at++) {
      const value = numbers[at];
      if (value === undefined || !Number.isFinite(value)) return undefined;
      made.push({ attribute, value });
    }
  }
  return at === numbers.length ? made : undefined;
}
