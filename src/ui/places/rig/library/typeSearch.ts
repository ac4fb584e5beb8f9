/** Finding a fixture type by what is typed of its model and maker. */
import type { FixtureType } from "@/core/fixture/type";
import type { Shelf } from "./choices";

/** How well a type answers what is typed: every word must be somewhere; the model's beginning counts most. 0 for none. */
export function likeness({ maker, model, id }: Pick<FixtureType, "maker" | "model" | "id">, typed: string): number {
  const words = typed.toLowerCase().split(/\s+/).filter(Boolean);
  const [whole, name] = [`${maker} ${model} ${id}`.toLowerCase(), model.toLowerCase()];
  if (words.length === 0 || !words.every((word) => whole.includes(word))) return 0;
  const text = words.join(" ");
  return name === text ? 4 : name.startsWith(text) ? 3 : name.includes(text) ? 2 : 1;
}

/** Types that answer what is typed, the best first; all, by shelf, while nothing is. */
export function answers(shelves: readonly Shelf[], typed: string): Shelf[] {
  const seen = new Set<string>();
  const once = shelves.map(({ title, types }) => ({
    title,
    types: types.filter((t) => !seen.has(t.id) && seen.add(t.id)),
  }));
  if (typed.trim() === "") return once.filter(({ types }) => types.length > 0);
  const found = once
    .flatMap(({ types }) => types)
    .map((type) => ({ type, like: likeness(type, typed) }))
    .filter(({ like }) => like > 0);
  return found.length === 0
    ? []
    : [{ title: "Best match first", types: found.sort((a, b) => b.like - a.like).map(({ type }) => type) }];
}
