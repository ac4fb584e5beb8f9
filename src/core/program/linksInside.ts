/** Other palettes that a palette points at: what of it follows them, and what they give there now. */
import { resolveEntry } from "./resolve";
import type { Id, ParamKey } from "../show/ids";
import { namedBy } from "../show/checking/links";
import { allTargets, specOf } from "../show/model";
import type { PaletteEntry } from "../show/paletteSchema";
import type { Show } from "../show/schema";
import { isLink } from "../show/value";
import { fixturesByNumber } from "../show/world";
import { writtenFor } from "../palette/lookup";

export interface LinkInside {
  /** The palette that is followed. */
  to: Id;
  /** The parameters of patched fixtures that follow it. */
  keys: ParamKey[];
}

/** What of a palette follows others, one for each that is followed. */
export function linksInside(show: Show, id: Id): LinkInside[] {
  const palette = show.palettes[id];
  if (!palette || namedBy(palette).length === 0) return [];
  const found = new Map<Id, ParamKey[]>();
  for (const fixture of fixturesByNumber(show))
    for (const { key, spec } of allTargets(show, fixture.id)) {
      const value = writtenFor(show, palette, key, spec)?.value;
      if (typeof value !== "object" || !isLink(value)) continue;
      const keys = found.get(value.palette) ?? [];
      keys.push(key);
      found.set(value.palette, keys);
    }
  return [...found].map(([to, keys]) => ({ to, keys }));
}

/** What the links of some parameters give now, as values of the palette's own. */
export function ownOfLinks(show: Show, id: Id, keys: readonly ParamKey[]): Record<ParamKey, PaletteEntry> {
  const made: Record<ParamKey, PaletteEntry> = {};
  for (const key of keys) {
    const spec = specOf(show, key);
    const means = spec && resolveEntry(show, key, spec, { attribute: spec.head, value: { palette: id } });
    if (spec && means) made[key] = { attribute: spec.functions[means.fn]!.attribute, value: means.value };
  }
  return made;
}
