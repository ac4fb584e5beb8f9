/** Finding things of the show by name: what the Ask bar offers beside commands. */
import { typeGroups } from "@/core/select/expression";
import { cuesOf, fixturesByNumber, groupsByNumber, listsByNumber, type World } from "@/core/show/world";

export interface Found {
  label: string;
  /** The line that acts on it. */
  line: string;
}

const MOST = 5;

export function findByName({ show }: World, text: string): Found[] {
  const wanted = text.trim().toLowerCase();
  if (wanted.length < 2) return [];
  const has = (name: string) => name.toLowerCase().includes(wanted);
  return [
    ...typeGroups(show)
      .filter((t) => has(t.name))
      .map((t) => ({ label: `all ${t.members.length} × ${t.name}`, line: `group "${t.name}"` })),
    ...groupsByNumber(show)
      .filter((g) => has(g.name))
      .map((g) => ({ label: `group ${g.number} ${g.name}`, line: `group ${g.number}` })),
    ...listsByNumber(show).flatMap((list) =>
      cuesOf(list)
        .filter((c) => has(c.name))
        .map((c) => ({ label: `cue ${c.number} ${c.name}`, line: `go list ${list.number} cue ${c.number}` })),
    ),
    ...fixturesByNumber(show)
      .filter((f) => has(f.name))
      .map((f) => ({ label: `fixture ${f.number} ${f.name}`, line: String(f.number) })),
  ].slice(0, MOST);
}
