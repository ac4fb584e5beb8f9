/**
 * One plain diff value for undo, the journal, other windows, the worker and ripple.
 * A change names a path in the world; `from` absent means added, `to` absent means removed.
 */
import { z } from "../units/zod";

export const ChangeSchema = z.object({
  path: z.array(z.string()).min(1).max(16),
  from: z.unknown().optional(),
  to: z.unknown().optional(),
});
export type Change = z.infer<typeof ChangeSchema>;
export const DiffSchema = z.array(ChangeSchema);
export type Diff = readonly Change[];

/** A diff as text: written once, read wherever it goes (storage, workers). */
export const writeDiff = (diff: Diff): string => JSON.stringify(diff);

/** A diff from its text; undefined where it is none. */
export function readDiff(text: string): Diff | undefined {
  try {
    return DiffSchema.safeParse(JSON.parse(text)).data;
  } catch {
    return undefined;
  }
}

type Plain = Record<string, unknown>;
const isPlain = (value: unknown): value is Plain =>
  typeof value === "object" && value !== null && !Array.isArray(value);
const sameLeaf = (a: unknown, b: unknown): boolean =>
  a === b || (typeof a === "object" && typeof b === "object" && JSON.stringify(a) === JSON.stringify(b));

/** What changed between two versions; shared parts (same reference) are not walked. */
export function diffOf(before: unknown, after: unknown): Diff {
  const changes: Change[] = [];
  walk(before, after, [], changes);
  return changes;
}

function walk(before: unknown, after: unknown, path: string[], out: Change[]): void {
  if (before === after) return;
  if (isPlain(before) && isPlain(after)) {
    for (const key of Object.keys(before))
      if (before[key] !== after[key]) walk(before[key], after[key], [...path, key], out);
    for (const key of Object.keys(after)) if (!(key in before)) walk(undefined, after[key], [...path, key], out);
    return;
  }
  if (sameLeaf(before, after)) return;
  out.push({ path, ...(before === undefined ? {} : { from: before }), ...(after === undefined ? {} : { to: after }) });
}

/** The diff that takes another back, last change first. */
export const invertDiff = (diff: Diff): Diff =>
  [...diff].reverse().map(({ path, ...rest }) => ({
    path,
    ...("to" in rest ? { from: rest.to } : {}),
    ...("from" in rest ? { to: rest.from } : {}),
  }));

/**
 * The document with a diff applied; untouched parts are shared.
 * @throws when a path leads nowhere: the diff belongs to another document.
 */
export function applyDiff<T extends object>(document: T, diff: Diff): T {
  const fresh = new Set<object>();
  const own = (value: unknown): Plain => {
    if (!isPlain(value)) throw new Error("this change does not fit this show");
    if (fresh.has(value)) return value;
    const copy = { ...value };
    fresh.add(copy);
    return copy;
  };
  const root = own(document);
  for (const change of diff) {
    if (change.path.includes("__proto__")) throw new Error("this change does not fit this show");
    let node = root;
    for (const key of change.path.slice(0, -1)) {
      if (!Object.hasOwn(node, key)) throw new Error(`this change does not fit this show: ${change.path.join("/")}`);
      node = node[key] = own(node[key]);
    }
    const last = change.path.at(-1)!;
    if ("to" in change && change.to !== undefined) node[last] = change.to;
    else delete node[last];
  }
  return root as T;
}
