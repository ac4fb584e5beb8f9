/** What a browser remembers, by the names it stands under: everything that reads or writes some of it asks here what it is. */

/**
 * arrangement: how panels, sheets and shelves lie; it goes into views and into the settings file.
 * setting: how a person works; it goes into the settings file.
 * own: of this browser alone. What people agreed to, what listens and sends, and where somebody is just now is never handed on.
 */
export type Kind = "arrangement" | "setting" | "own";

const KINDS: readonly [RegExp, Kind][] = [
  [/^bold-comet-(build|groups|cues|run|check|rig)-(down|below|across)(-[a-z]+)*$/, "arrangement"],
  [/^bold-comet-(values|patch|palette)-view$/, "arrangement"],
  [/^bold-comet-(shelf-tab|rig-tab|lists-order|cues-shape|cues-follow|palette-names)$/, "arrangement"],
  [/^bold-comet-(keys|shelf-width|go-guard|viewpoints|recent-types|first-steps|worth-trying)$/, "setting"],
  [/^bold-comet-(browser|page|surface|osc-in|osc-out)$/, "own"],
  [/^bold-comet-(consent|dismissed)-[\w-]{1,80}$/, "own"],
];

/** What stands under a name; undefined where it is nothing of ours. */
export const kindOf = (key: string): Kind | undefined => KINDS.find(([of]) => of.test(key))?.[1];

/** Everything of some kinds that is remembered, as text, by name. @param most so many at most. @param longest characters of each. */
export function rememberedOf(kinds: readonly Kind[], most: number, longest: number): Record<string, string> {
  const found: Record<string, string> = {};
  for (let i = 0; i < localStorage.length && Object.keys(found).length < most; i++) {
    const key = localStorage.key(i)!;
    const kind = kindOf(key);
    const text = localStorage.getItem(key) ?? "";
    if (kind && kinds.includes(kind) && text.length <= longest) found[key] = text;
  }
  return found;
}
