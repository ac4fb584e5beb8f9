/** What a step stored in cues, in words: what a hand is told after it has recorded. */
import { attributeInfo, FAMILIES, type Family } from "../fixture/attribute";
import type { Change, Diff } from "../show/change/diff";
import { placeIn, type ParamKey } from "../show/ids";
import type { Entry } from "../show/value";
import type { Cue, CueList } from "../show/schema";
import type { World } from "../show/world";
import { plain } from "../units/units";
import { plural } from "../units/plural";

interface Into {
  list: string;
  cue: string;
}

type Stored = [into: Into, entries: Readonly<Record<ParamKey, Entry>>];

/** The entries a change leaves in cues: of a list that came with it, of a cue, or one by one. */
function storedBy({ path, to }: Change): Stored[] {
  const [where, lists, list, cues, cue, field, key] = path;
  if (where !== "show" || lists !== "lists" || to === undefined) return [];
  if (path.length === 3)
    return Object.values((to as CueList).cues).map(({ id, entries }) => [{ list: list!, cue: id }, entries]);
  if (cues !== "cues") return [];
  if (path.length === 5) return [[{ list: list!, cue: cue! }, (to as Cue).entries]];
  if (field !== "entries") return [];
  const entries = key === undefined ? (to as Record<ParamKey, Entry>) : { [key]: to as Entry };
  return [[{ list: list!, cue: cue! }, entries]];
}

/** "Cue 5 stored: 16 fixtures, intensity and colour"; undefined for a step that stores nothing. @param world after it. */
export function storedWords({ show, hands }: World, diff: Diff): string | undefined {
  const cues = new Map<string, Into>();
  const fixtures = new Set<string>();
  const families = new Set<Family>();
  for (const [into, entries] of diff.flatMap(storedBy)) {
    cues.set(`${into.list} ${into.cue}`, into);
    for (const key in entries) {
      fixtures.add(placeIn(key).fixture);
      const attribute = entries[key]?.attribute;
      if (attribute !== undefined) families.add(attributeInfo(attribute).family);
    }
  }
  if (cues.size === 0) return undefined;
  const [{ list, cue } = { list: "", cue: "" }] = cues.values();
  const owner = show.lists[list];
  const where = owner && list !== hands.armed ? ` of ${owner.name || `list ${owner.number}`}` : "";
  const which = cues.size > 1 ? `${cues.size} cues` : `Cue ${plain(owner?.cues[cue]?.number ?? 0, 3)}${where}`;
  const words = FAMILIES.filter((f) => families.has(f)).map((f) => f.toLowerCase());
  const said = words.length > 1 ? `${words.slice(0, -1).join(", ")} and ${words.at(-1)}` : words.join("");
  return fixtures.size === 0
    ? `${which} stored, empty`
    : `${which} stored: ${plural(fixtures.size, "fixture")}, ${said}`;
}
