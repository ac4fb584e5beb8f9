/** Finding things of the show by name: what the Ask bar offers beside commands. */
import { typeGroups } from "@/core/select/expression";
import { MEANINGS } from "@/ui/shell/handbook/meanings";
import {
  cuesOf,
  effectsByNumber,
  fixturesByNumber,
  groupsByNumber,
  listsByNumber,
  macrosByNumber,
  palettesByNumber,
  type World,
} from "@/core/show/world";

export interface Found {
  label: string;
  /** The line that acts on it, or the page of the handbook. */
  line: string;
  page?: string;
}

const MOST = 8;
/** Of one kind, so that no kind hides the others. */
const MOST_OF_KIND = 3;

export function findByName({ show }: World, text: string): Found[] {
  const wanted = text.trim().toLowerCase();
  if (wanted.length < 2) return [];
  const has = (name: string) => name.toLowerCase().includes(wanted);
  const named = <T extends { name: string }>(of: readonly T[], found: (one: T) => Found): Found[] =>
    of
      .filter((one) => has(one.name))
      .slice(0, MOST_OF_KIND)
      .map(found);
  const numbered = (kind: string) => (one: { number: number; name: string }) => ({
    label: `${kind} ${one.number} ${one.name}`,
    line: `${kind} ${one.number}`,
  });
  return [
    ...named(typeGroups(show), (t) => ({ label: `all ${t.members.length} × ${t.name}`, line: `group "${t.name}"` })),
    ...named(groupsByNumber(show), numbered("group")),
    ...named(palettesByNumber(show), numbered("palette")),
    ...named(
      listsByNumber(show).flatMap((list) =>
        cuesOf(list)
          .filter((cue) => has(cue.name))
          .map(({ number, name }) => ({ number, name, list: list.number })),
      ),
      (c) => ({ label: `cue ${c.number} ${c.name}`, line: `go list ${c.list} cue ${c.number}` }),
    ),
    ...named(effectsByNumber(show), numbered("effect")),
    ...named(macrosByNumber(show), numbered("macro")),
    ...named(fixturesByNumber(show), (f) => ({ label: `fixture ${f.number} ${f.name}`, line: String(f.number) })),
  ].slice(0, MOST);
}

/** Pages of the handbook that a text may mean. */
export function findInHandbook(text: string): Found[] {
  const wanted = text.trim().toLowerCase();
  if (wanted.length < 2) return [];
  const pages = MEANINGS.filter((m) => m.title.toLowerCase().includes(wanted)).slice(0, MOST_OF_KIND);
  return [
    ...pages.map(({ title }) => ({ label: `handbook: ${title}`, line: `handbook ${title}`, page: title })),
    ...(["handbook", "help"].some((word) => word.startsWith(wanted))
      ? [{ label: "handbook: every command, and what the words mean", line: "handbook", page: "" }]
      : []),
  ];
}
