/** Palettes when fixtures become another type: exceptions of fixtures, and what is said of the type. */
import { splitKey, type Id } from "../show/ids";
import type { Palette } from "../show/paletteSchema";
import type { Show } from "../show/schema";
import { isLink, type Entry } from "../show/value";
import { converted, convertedMany } from "./convert";
import { numberAt } from "./standing";
import type { Standing, Swapping } from "./way";

/** All palettes after the swap. @param after the show with its fixtures swapped. */
export function swappedPalettes(show: Show, after: Show, swaps: readonly Swapping[]): Show["palettes"] {
  const to = swaps[0]?.to;
  if (!to) return show.palettes;
  const made: Show["palettes"] = {};
  for (const palette of Object.values(show.palettes)) made[palette.id] = swappedPalette(show, after, palette, swaps);
  return made;
}

function swappedPalette(show: Show, after: Show, palette: Palette, swaps: readonly Swapping[]): Palette {
  let result = palette;
  const excepted = new Set<Id>();
  for (const key in palette.own) excepted.add(key.slice(0, key.indexOf(".")));
  const mine = excepted.size === 0 ? [] : swaps.filter((s) => excepted.has(s.fixture));
  if (mine.length > 0) {
    const standing: Standing = (key) =>
      numberAt(show, key, { attribute: splitKey(key).head, value: { palette: palette.id } });
    result = {
      ...result,
      own: convertedMany(palette.own, mine, standing) as Palette["own"],
    };
  }
  const types = swappedTypes(show, after, palette, swaps);
  return types === palette.types ? result : { ...result, types };
}

type OfType = Palette["types"][string];

/** What a palette says of a type, in the terms of another. */
export function ofOtherType(show: Show, of: OfType, swap: Swapping): OfType {
  const prefix = `${swap.fixture}.`;
  const entries = Object.fromEntries(
    Object.entries(of.values).map(([place, entry]) => [prefix + place, entry as Entry]),
  );
  const quiet: Swapping = { ...swap, note: () => undefined };
  const standing: Standing = (key) => {
    const entry = entries[key];
    return entry && typeof entry.value === "object" && isLink(entry.value)
      ? numberAt(show, key, entry)
      : entry && typeof entry.value === "number"
        ? { attribute: entry.attribute, value: entry.value }
        : undefined;
  };
  const made = converted(entries, quiet, standing);
  // What the other type cannot do stays with the one it is of.
  const kept = Object.entries(made).filter(([, { of }]) => of === undefined);
  const values = Object.fromEntries(
    kept.map(([key, { of: _of, was: _was, ...entry }]) => [key.slice(prefix.length), entry]),
  );
  return { reference: swap.fixture, values: values as OfType["values"] };
}

function swappedTypes(show: Show, after: Show, palette: Palette, swaps: readonly Swapping[]): Palette["types"] {
  const types = { ...palette.types };
  let changed = false;
  const to = swaps[0]!.to.type.id;
  const remain = (type: string) => Object.values(after.fixtures).some((f) => f.type === type);
  for (const [from, first] of new Map(swaps.map((s) => [s.from.type.id, s])).entries()) {
    const values = palette.types[from];
    if (!values || from === to) continue;
    const swap = swaps.find((s) => s.fixture === values.reference && s.from.type.id === from) ?? first;
    const made = ofOtherType(show, values, swap);
    const there = types[to];
    const back: Swapping = { ...swap, from: swap.to, to: swap.from, colours: new Map() };
    // What the type has already holds, unless it was only what this would have been made from, and has been edited since.
    if (there) {
      const nobody = !Object.values(show.fixtures).some((f) => f.type === to);
      const derived = ofOtherType(show, there, back);
      const edited = nobody && Object.keys(made.values).length > 0 && !alike(derived.values, values.values);
      if (edited) types[to] = { ...made, reference: there.reference };
      if (edited) changed = true;
      // Nobody of the type is left, and what it said can be made again.
      if (!remain(from) && alike(derived.values, values.values)) {
        delete types[from];
        changed = true;
      }
    } else if (Object.keys(made.values).length > 0) {
      types[to] = made;
      changed = true;
    }
  }
  return changed ? types : palette.types;
}

function alike(a: OfType["values"], b: OfType["values"]): boolean {
  const names = Object.keys(a);
  return (
    names.length === Object.keys(b).length &&
    names.every((name) => {
      const [x, y] = [a[name]!, b[name]];
      if (!y || x.attribute !== y.attribute) return false;
      return typeof x.value === "number" && typeof y.value === "number"
        ? Math.abs(x.value - y.value) <= 0.01
        : JSON.stringify(x.value) === JSON.stringify(y.value);
    })
  );
}
