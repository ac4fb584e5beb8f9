/** The families a palette says something of. */
import { attributeInfo, FAMILIES, type Family } from "../fixture/attribute";
import type { Palette } from "../show/paletteSchema";

const known = new WeakMap<Palette, readonly Family[]>();

/** In the usual order. */
export function familiesOf(palette: Palette): readonly Family[] {
  const held = known.get(palette);
  if (held) return held;
  const found = new Set<Family>(palette.any.colour ? ["Colour"] : []);
  for (const key in palette.own) found.add(attributeInfo(palette.own[key]!.attribute).family);
  for (const type of Object.values(palette.types))
    for (const place in type.values) found.add(attributeInfo(type.values[place]!.attribute).family);
  for (const attribute in palette.any.values) found.add(attributeInfo(attribute).family);
  const made = FAMILIES.filter((f) => found.has(f));
  known.set(palette, made);
  return made;
}
