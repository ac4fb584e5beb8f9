/** What a palette would be recorded from: what is held, and what of the stage goes along (SEMANTICS 9). */
import { attributeInfo, type Family } from "../fixture/attribute";
import { recordable } from "../program/intents";
import { paramKey, splitItem, splitKey, type Id, type ParamKey } from "../show/ids";
import { allTargets, modelOf } from "../show/model";
import type { Width } from "../show/paletteSchema";
import { isRelease, type Entry } from "../show/value";
import type { ReadContext } from "./context";

export interface Gathering {
  width: Width;
  /** Just these families of what is held; all of it where it is not given. */
  only?: readonly Family[] | undefined;
  /** All of these, where something of them is held. */
  whole?: readonly Family[] | undefined;
  /** All of these, of every fixture that something is held of (of the selection where nothing is). */
  along?: readonly Family[] | undefined;
}

const familyOf = (attribute: string): Family => attributeInfo(attribute).family;

/** The entries a palette would be made of. */
export function gather(
  context: ReadContext,
  { width, only, whole = [], along = [] }: Gathering,
): Record<ParamKey, Entry> {
  const { show, hands } = context.world;
  const held = Object.fromEntries(
    Object.entries(recordable(context.world)).filter(([, e]) => e.value !== undefined && !isRelease(e.value)),
  );
  const wanted = only && new Set([...only, ...whole, ...along]);
  const entries: Record<ParamKey, Entry> = {};
  const somethingHeld = new Set<string>();
  for (const [key, { attribute, value }] of Object.entries(held)) {
    somethingHeld.add(`${splitKey(key).fixture} ${familyOf(attribute)}`);
    if (!wanted || wanted.has(familyOf(attribute))) entries[key] = { attribute, value };
  }
  const of = (keys: Iterable<ParamKey>) => [...new Set([...keys].map((key) => splitKey(key).fixture))];
  const heldBy = of(Object.keys(held));
  const fixtures = heldBy.length > 0 ? heldBy : [...new Set(hands.selection.map((i) => splitItem(i).fixture))];
  const add = (fixture: Id, has: (family: Family) => boolean) => {
    for (const { key, attribute, spec } of allTargets(show, fixture)) {
      if (entries[key] || !has(familyOf(attribute))) continue;
      const now = context.stage(key) ?? { attribute: spec.head, value: spec.default };
      entries[key] = held[key] ?? { attribute: now.attribute, value: now.value };
    }
  };
  for (const fixture of fixtures)
    add(fixture, (f) => along.includes(f) || (whole.includes(f) && somethingHeld.has(`${fixture} ${f}`)));
  // A colour for any fixture is all of it: what is not held of it is taken as it is on stage.
  if (width === "any") {
    const coloured = of(Object.keys(entries).filter((key) => familyOf(entries[key]!.attribute) === "Colour"));
    const first = coloured.flatMap((id) => show.fixtures[id] ?? []).sort((a, b) => a.number - b.number)[0];
    if (first) for (const { cell, head } of modelOf(show, first).specs) completeColour(first.id, cell, head);
  }
  function completeColour(fixture: Id, cell: number, head: string): void {
    const key = paramKey(fixture, cell, head);
    if (familyOf(head) !== "Colour" || entries[key]) return;
    const now = context.stage(key);
    if (now) entries[key] = { attribute: now.attribute, value: now.value };
  }
  return entries;
}
