/** Edits of the table that clash with something stay a draft, marked, until they are put right: the show never holds a clash. */
import { addressText, autoAddresses, occupancyOf } from "@/core/show/address";
import { clashesIn, type Clash } from "@/core/patch/clash";
import { footprint } from "@/core/fixture/type";
import { modeOf } from "@/core/fixture/parameters";
import type { Fixture, Show } from "@/core/show/schema";
import type { Changes } from "./cells";

export const drafted = (fixture: Fixture, draft: Changes): Fixture => ({ ...fixture, ...draft.get(fixture.id) });

const bears = (changes: Changes): boolean =>
  [...changes.values()].some((c) => c.number !== undefined || c.addresses !== undefined || c.mode !== undefined);

/** The clashes the show would have with a draft. */
export const clashesOf = (show: Show, draft: Changes): Clash[] =>
  bears(draft)
    ? clashesIn(
        show.types,
        Object.values(show.fixtures).map((f) => drafted(f, draft)),
        (id) => !draft.has(id),
      )
    : [];

/** Both together; the later wins cell by cell. */
export function together(before: Changes, more: Changes): Changes {
  const made: Changes = new Map(before);
  more.forEach((change, id) => made.set(id, { ...made.get(id), ...change }));
  return made;
}

/** The draft with its clashing addresses at the next free runs. */
export function withFreeAddresses(show: Show, draft: Changes, clashes: readonly Clash[]): Changes {
  const bad = [...new Set(clashes.filter((c) => c.field === "addresses").map((c) => c.fixture))];
  const fixtures = bad.map((id) => drafted(show.fixtures[id]!, draft));
  const others = {
    types: show.types,
    fixtures: Object.fromEntries(
      Object.values(show.fixtures)
        .filter((f) => !bad.includes(f.id))
        .map((f) => [f.id, drafted(f, draft)]),
    ),
  };
  const sizes = fixtures.map((f) => footprint(modeOf(show.types[f.type]!, f.mode)!));
  const free = autoAddresses(occupancyOf(others), sizes, bad);
  return together(draft, new Map(bad.map((id, k) => [id, { addresses: [free[k]!] }])));
}

/** The draft with its clashing numbers counting on from the first number that has room for them all. */
export function withFreeNumbers(
  show: Show,
  draft: Changes,
  clashes: readonly Clash[],
): { changes: Changes; from: number } {
  // In the order they had: who came first has the first number again.
  const bad = [...new Set(clashes.filter((c) => c.field === "number").map((c) => c.fixture))].sort(
    (a, b) => show.fixtures[a]!.number - show.fixtures[b]!.number,
  );
  const taken = new Set(
    Object.values(show.fixtures)
      .filter((f) => !bad.includes(f.id))
      .map((f) => drafted(f, draft).number),
  );
  let from = bad.length > 0 ? drafted(show.fixtures[bad[0]!]!, draft).number : 1;
  while (bad.some((_, k) => taken.has(from + k))) from += 1;
  return { from, changes: together(draft, new Map(bad.map((id, k) => [id, { number: from + k }]))) };
}

/** What a draft would change, in words. */
export function sayChanges(show: Show, changes: Changes): string {
  const fields = new Set([...changes.values()].flatMap((c) => Object.keys(c)));
  const only = changes.size === 1 ? show.fixtures[[...changes.keys()][0]!] : undefined;
  const address = only && changes.get(only.id)?.addresses;
  if (only && address && fields.size === 1)
    return address.length
      ? `addresses ${only.number} at ${address.map((a) => addressText(a)).join(" and ")}`
      : `takes the address from ${only.number}`;
  return `sets ${[...fields].join(", ")} of ${only ? only.number : `${changes.size} fixtures`}`;
}
