/** Palettes in words. */
import { attributeInfo, FAMILIES } from "../fixture/attribute";
import { splitKey, type Id, type ParamKey } from "../show/ids";
import { itemsText } from "../show/words/itemsText";
import type { Palette } from "../show/paletteSchema";
import type { Entry } from "../show/value";
import type { World } from "../show/world";
import { keepable, type Kept } from "./keep";
import { plural } from "../units/plural";

/** A palette by number and name. */
export const paletteText = ({ show }: Pick<World, "show">, id: Id): string => {
  const palette = show.palettes[id];
  return palette ? `palette ${palette.number}${palette.name ? ` "${palette.name}"` : ""}` : "a palette that is gone";
};
/** A palette as a line names it. */
export const numberText = ({ show }: World, id: Id): string => `palette ${show.palettes[id]?.number ?? "?"}`;

/** What a width means. */
export const wideText: Record<Palette["width"], string> = {
  each: "of each fixture",
  type: "for their types",
  any: "for any fixture",
};

/** What would be kept, in words: fixtures and families. */
export function keptText(world: World, entries: Readonly<Record<ParamKey, Entry>>): string {
  const kept = keepable(entries);
  const keys = Object.keys(kept);
  const fixtures = [...new Set(keys.map((key) => splitKey(key).fixture))];
  const found = new Set(keys.map((key) => attributeInfo(kept[key]!.attribute).family));
  return `${itemsText(world, fixtures)}: ${FAMILIES.filter((f) => found.has(f))
    .join(", ")
    .toLowerCase()} (${plural(keys.length, "value")})`;
}

/** How much a palette holds, in words. */
export function countsText({ own, types, any }: Kept): string {
  const shared = Object.values(types).reduce((n, t) => n + Object.keys(t.values).length, 0);
  const forAny = Object.keys(any.values).length + (any.colour ? 1 : 0);
  const owned = Object.keys(own).length;
  const parts = [
    shared > 0 && plural(shared, "shared value"),
    forAny > 0 && `${plural(forAny, "value")} for any fixture`,
    owned > 0 && (shared + forAny > 0 ? plural(owned, "exception") : `${plural(owned, "value")}, each fixture its own`),
  ].filter(Boolean);
  return parts.join(", ") || "nothing";
}
