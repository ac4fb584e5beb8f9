/**
 * What loading will demand of a show, asked of the result of every edit before it is done: only of what
 * its diff touched, so that it stays cheap. No edit makes a show that does not open again.
 */
import { z } from "../../units/zod";
import { countOn } from "./counts";
import { HandsSchema } from "../hands";
import type { Change, Diff } from "../change/diff";
import { isParamKey } from "../ids";
import { faultRefusal } from "./faultWords";
import { lostLink } from "./links";
import { refuse, type Refusal } from "../refusal";
import { CueSchema, FixtureSchema, isPlainFixture, ShowSchema, type Show } from "../schema";
import { namesIn } from "../../units/names";
import { EntrySchema, isPlainEntry } from "../value";
import { fixturesProblem, recordsProblem, tooMany } from "./references";
import type { World } from "../world";

const WorldSchema = z.object({ show: ShowSchema, hands: HandsSchema });

interface Fault {
  path: readonly string[];
  issue: z.core.$ZodIssue;
}

/** Whether a change leaves a plain entry, held or stored in a cue: the quick way for thousands of them. */
function isPlainChange({ show, hands }: World, { path }: Change): boolean {
  const [, collection, id, part, cue, field] = path;
  if (path[0] === "hands")
    return path.length > 2 && collection === "held" && isParamKey(id!) && isPlainEntry(hands.held[id!]);
  if (path.length < 7 || collection !== "lists" || part !== "cues" || field !== "entries") return false;
  return isParamKey(path[6]!) && isPlainEntry(show.lists[id!]?.cues[cue!]?.entries[path[6]!]);
}

/** Whether what may be a cue stores nothing but plain entries. */
function hasPlainEntries(value: unknown): value is object {
  const entries = (value as { entries?: unknown } | null)?.entries;
  if (typeof entries !== "object" || entries === null || Array.isArray(entries)) return false;
  return namesIn(entries).every((key) => isParamKey(key) && isPlainEntry((entries as Record<string, unknown>)[key]));
}

/** Follows a change's path through the schema as far as it leads, and asks what stands there now. */
function faultAt(world: World, { path }: Change): Fault | undefined {
  let schema: z.ZodType = WorldSchema;
  let value: unknown = world;
  for (const [depth, key] of path.entries()) {
    if (typeof value !== "object" || value === null) break;
    const within: unknown = Object.hasOwn(value, key) ? (value as Record<string, unknown>)[key] : undefined;
    if (schema instanceof z.ZodRecord) {
      // Taken out of a collection: nothing stands there any more.
      if (within === undefined) return undefined;
      const named = (schema.keyType as z.ZodType).safeParse(key);
      if (!named.success) return { path: path.slice(0, depth + 1), issue: named.error.issues[0]! };
      schema = schema.valueType as z.ZodType;
    } else if (schema instanceof z.ZodObject) {
      const field = (schema.shape as Record<string, z.ZodType>)[key];
      // A field that only a newer version knows.
      if (!field) return undefined;
      schema = field;
    } else break;
    value = within;
  }
  if (schema === (EntrySchema as z.ZodType) && isPlainEntry(value)) return undefined;
  if (schema === (FixtureSchema as z.ZodType) && isPlainFixture(value)) return undefined;
  if (schema === (CueSchema as z.ZodType) && hasPlainEntries(value)) value = { ...value, entries: {} };
  const parsed = schema.safeParse(value);
  if (parsed.success) return undefined;
  const issue = parsed.error.issues[0]!;
  return { path: [...path, ...issue.path.map(String)], issue };
}

const COLLECTIONS: Record<string, string> = {
  fixtures: "fixture",
  groups: "group",
  palettes: "palette",
  effects: "effect",
  waves: "wave",
  lists: "list",
  types: "type",
  outputs: "the output of universe",
  scenery: "set piece",
  macros: "macro",
  pages: "page",
  views: "view",
};
/** "fixture 12", "cue 3 of list 1", or nothing where a change is of the show itself. */
function subject({ show }: World, path: readonly string[]): string {
  const [where, collection, id, part, cueId] = path;
  const word = where === "show" && collection !== undefined ? COLLECTIONS[collection] : undefined;
  if (!word || id === undefined) return where === "hands" ? "the programmer" : "the show";
  if (collection === "lists" && part === "cues" && cueId !== undefined)
    return `cue ${show.lists[id]?.cues[cueId]?.number ?? ""} of list ${show.lists[id]?.number ?? ""}`;
  const record = (show as unknown as Record<string, Record<string, { number?: number; name?: string }>>)[collection!]![
    id
  ];
  return collection === "outputs"
    ? `${word} ${id}`
    : collection === "scenery"
      ? `${word} "${record?.name ?? ""}"`
      : `${word} ${record?.number ?? id}`;
}

const PATCHED = new Set(["id", "number", "addresses", "type", "mode", "virtualDimmer"]);
const isPatch = ({ path: [where, collection, , field] }: Change): boolean =>
  where === "show" &&
  (collection === "types" || (collection === "fixtures" && (field === undefined || PATCHED.has(field))));
/** A record that came or went, or its number or id. */
const isRecord = ({ path }: Change): boolean =>
  path[0] === "show" &&
  path.length > 2 &&
  (path.length === 3 ||
    path[3] === "number" ||
    path[3] === "id" ||
    (path[1] === "lists" && path.length === 5) ||
    path.at(-1) === "id" ||
    (path[1] === "lists" && (path.at(-1) === "place" || path.at(-1) === "kind")));

/** Ids newly given out that the count of records does not cover. */
function uncounted(show: Show, diff: Diff): boolean {
  return diff.some(
    ({ path, from, to }) =>
      from === undefined &&
      to !== undefined &&
      path[0] === "show" &&
      ((path.length === 3 && path[1] !== "types" && path[1] !== "outputs") ||
        (path.length === 5 && path[1] === "lists")) &&
      Number(path.at(-1)!.slice(1)) >= show.nextId,
  );
}

/** Why the result of an edit could not be opened again; undefined where it can. @param after the world with the diff done. */
export function demandOf(before: World, after: World, diff: Diff): Refusal | undefined {
  countOn(before.show, after.show, diff);
  for (const change of diff) {
    if (isPlainChange(after, change)) continue;
    const fault = faultAt(after, change);
    if (fault) return faultRefusal(subject(after, fault.path), fault.path, fault.issue);
  }
  const { show } = after;
  if (uncounted(show, diff))
    return refuse("the show's count of records is wrong", "Open an earlier moment of the show");
  if (diff.some((c) => c.path[0] === "show" && c.from === undefined)) {
    const many = tooMany(show);
    if (many) return refuse(`the show would have ${many}`, "Nothing was changed");
  }
  const problem =
    (diff.some(isPatch) ? fixturesProblem(show) : undefined) ??
    (diff.some(isRecord) ? recordsProblem(show) : undefined);
  const lost = problem ?? lostLink(after, diff);
  return lost === undefined ? undefined : refuse(lost, "Nothing was changed");
}
