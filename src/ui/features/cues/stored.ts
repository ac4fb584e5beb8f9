/** What cues store, by family, and what an edit makes of it: for tables that compare them. */
import { attributeInfo, FAMILIES, type Family } from "@/core/fixture/attribute";
import { splitKey, type Id, type ParamKey } from "@/core/show/ids";
import type { Cue } from "@/core/show/schema";
import { plural } from "@/core/units/plural";

export interface Stored {
  fixtures: ReadonlySet<Id>;
  values: number;
}

/** How many fixtures and values cues store together, by family. */
export function storedBy(cues: readonly (Cue | undefined)[]): ReadonlyMap<Family, Stored> {
  const found = new Map<Family, { fixtures: Set<Id>; values: number }>();
  for (const cue of cues)
    for (const [key, { attribute }] of Object.entries(cue?.entries ?? {})) {
      const { family } = attributeInfo(attribute);
      const row = found.get(family) ?? { fixtures: new Set<Id>(), values: 0 };
      row.fixtures.add(splitKey(key).fixture);
      row.values += 1;
      found.set(family, row);
    }
  return new Map(FAMILIES.flatMap((f) => (found.has(f) ? [[f, found.get(f)!]] : [])));
}

export const storedText = (stored: Stored | undefined): string =>
  stored ? plural(stored.fixtures.size, "fixture") : "–";

/** In how many fixtures values come to a cue, change, and go, by family. */
export function changesBetween(
  before: readonly (Cue | undefined)[],
  after: readonly (Cue | undefined)[],
): ReadonlyMap<Family, string> {
  const made = new Map<Family, Record<"new" | "changed" | "gone", Set<string>>>();
  const count = (what: "new" | "changed" | "gone", cue: number, key: ParamKey, attribute: string) => {
    const { family } = attributeInfo(attribute);
    const row = made.get(family) ?? { new: new Set(), changed: new Set(), gone: new Set() };
    row[what].add(`${cue} ${splitKey(key).fixture}`);
    made.set(family, row);
  };
  after.forEach((cue, k) => {
    const [was, is] = [before[k]?.entries ?? {}, cue?.entries ?? {}];
    for (const [key, entry] of Object.entries(is)) {
      const old = was[key];
      if (!old) count("new", k, key, entry.attribute);
      else if (JSON.stringify(old) !== JSON.stringify(entry)) count("changed", k, key, entry.attribute);
    }
    for (const [key, entry] of Object.entries(was)) if (!is[key]) count("gone", k, key, entry.attribute);
  });
  return new Map(
    [...made].map(([family, row]) => [
      family,
      (["new", "changed", "gone"] as const)
        .filter((what) => row[what].size > 0)
        .map((what) => `${row[what].size} ${what}`)
        .join(", "),
    ]),
  );
}
