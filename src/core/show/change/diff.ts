/**
 * One plain diff value for undo, the journal, other windows, the worker and ripple.
 * A change names a path in the world; `from` absent means added, `to` absent means removed.
 */
import { namesIn } from "../../units/names";
import { z } from "../../units/zod";

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

/** Whether a value is plainly a diff: the quick way for the thousands of changes of a drag. */
function isPlainDiff(value: unknown): value is Diff {
  if (!Array.isArray(value)) return false;
  for (const change of value as unknown[]) {
    if (!isPlain(change)) return false;
    for (const name in change) if (name !== "path" && name !== "from" && name !== "to") return false;
    const { path } = change;
    if (!Array.isArray(path) || path.length === 0 || path.length > 16) return false;
    for (const key of path) if (typeof key !== "string") return false;
  }
  return true;
}

/** A diff from its text; undefined where it is none. */
export function readDiff(text: string): Diff | undefined {
  try {
    const read: unknown = JSON.parse(text);
    return isPlainDiff(read) ? read : DiffSchema.safeParse(read).data;
  } catch {
    return undefined;
  }
}

type Plain = Record<string, unknown>;
const isPlain = (value: unknown): value is Plain =>
  typeof value === "object" && value !== null && !Array.isArray(value);

function sameLeaf(a: unknown, b: unknown): boolean {
  if (a === b) return true;
  if (typeof a !== "object" || typeof b !== "object" || a === null || b === null) return false;
  if (Array.isArray(a) || Array.isArray(b)) return JSON.stringify(a) === JSON.stringify(b);
  const [one, other] = [a as Plain, b as Plain];
  for (const key in one) if (!sameLeaf(one[key], other[key])) return false;
  for (const key in other) if (!(key in one)) return false;
  return true;
}

/** What changed between two versions; shared parts (same reference) are not walked. */
export function diffOf(before: unknown, after: unknown): Diff {
  const changes: Change[] = [];
  walk(before, after, [], changes);
  return changes;
}

/** What is held changes as whole entries: thousands of them, many times a second. */
const isHeld = (path: readonly string[]): boolean => path[0] === "hands" && path[1] === "held";

function walk(before: unknown, after: unknown, path: string[], out: Change[]): void {
  if (before === after) return;
  if (isPlain(before) && isPlain(after)) {
    const whole = path.length === 2 && isHeld(path);
    for (const key of namesIn(before)) {
      const [from, to] = [before[key], after[key]];
      if (from === to) continue;
      if (!whole) walk(from, to, [...path, key], out);
      else if (to === undefined) out.push({ path: [path[0]!, path[1]!, key], from });
      else if (!sameLeaf(from, to)) out.push({ path: [path[0]!, path[1]!, key], from, to });
    }
    for (const key of namesIn(after))
      if (before[key] === undefined && !(key in before)) walk(undefined, after[key], [...path, key], out);
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

const heldKey = ({ path }: Change): string | undefined => (path.length === 3 && isHeld(path) ? path[2] : undefined);

/** Two diffs, one after the other, as one; what is held is said once, so that a drag over thousands does not grow. */
export function joinDiffs(first: Diff, second: Diff): Diff {
  // A journal of an older version tells of parts of entries: what comes after them stays after them.
  if (first.some(({ path }) => isHeld(path) && path.length !== 3)) return [...first, ...second];
  const joined = [...first];
  const at = new Map<string, number>();
  for (const [k, change] of first.entries()) {
    const key = heldKey(change);
    if (key !== undefined) at.set(key, k);
  }
  for (const change of second) {
    const key = heldKey(change);
    const before = key === undefined ? undefined : at.get(key);
    if (before === undefined) joined.push(change);
    else {
      const { path, from } = joined[before]!;
      joined[before] = {
        path,
        ...(from === undefined ? {} : { from }),
        ...(change.to === undefined ? {} : { to: change.to }),
      };
    }
  }
  return joined;
}

/** Whether two paths lead into the same record. */
function isBeside(path: readonly string[], other: readonly string[]): boolean {
  if (path.length !== other.length) return false;
  for (let k = path.length - 2; k >= 0; k--) if (path[k] !== other[k]) return false;
  return true;
}

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
  // Thousands of changes in a row are of one record: it is looked for once.
  let before: readonly string[] = [];
  let node = root;
  for (const change of diff) {
    const { path } = change;
    if (path.includes("__proto__")) throw new Error("this change does not fit this show");
    const depth = path.length - 1;
    if (!isBeside(path, before)) {
      node = root;
      for (let k = 0; k < depth; k++) {
        const key = path[k]!;
        if (!Object.hasOwn(node, key)) throw new Error(`this change does not fit this show: ${path.join("/")}`);
        node = node[key] = own(node[key]);
      }
    }
    before = path;
    const last = path[depth]!;
    if ("to" in change && change.to !== undefined) node[last] = change.to;
    else delete node[last];
  }
  return root as T;
}
