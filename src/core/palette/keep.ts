/** What is recorded into a palette, at each of its widths (SEMANTICS 3). */
import { attributeInfo } from "../fixture/attribute";
import { paramKey, splitKey, type Id, type ParamKey } from "../show/ids";
import { modelOf, specOf } from "../show/model";
import type { Palette, PaletteEntry, Width } from "../show/paletteSchema";
import type { Fixture, Show } from "../show/schema";
import { isLink, isRelease, sameValue, type Entry } from "../show/value";
import { grouped } from "../units/grouped";
import { followedFor, saidBy, writtenFor, type Looking } from "./lookup";
import { colourSeen } from "./seen";

export type Kept = Pick<Palette, "own" | "types" | "any">;
export type Values = Readonly<Record<ParamKey, Entry>>;

/** A palette that says nothing. */
export const nothingKept = (): Kept => ({ own: {}, types: {}, any: { values: {}, colour: null } });

/** Entries as a palette can hold them: values alone, without releases and own timing. */
export function keepable(entries: Values): Record<ParamKey, PaletteEntry> {
  const made: Record<ParamKey, PaletteEntry> = {};
  for (const key in entries) {
    const { attribute, value } = entries[key]!;
    if (value !== undefined && !isRelease(value)) made[key] = { attribute, value };
  }
  return made;
}

/** The fixtures of entries, lowest number first. */
const fixturesIn = (show: Pick<Show, "fixtures">, keys: Iterable<ParamKey>): Fixture[] =>
  [...new Set([...keys].map((key) => splitKey(key).fixture))]
    .flatMap((id) => show.fixtures[id] ?? [])
    .sort((a, b) => a.number - b.number);

const placeOf = (key: ParamKey): string => {
  const { cell, head } = splitKey(key);
  return `${cell}.${head}`;
};

/** Entries at a width: what is kept of each fixture, of types, of any. */
export function keptAt(show: Looking, entries: Values, width: Width): Kept {
  const kept = nothingKept();
  const values = keepable(entries);
  if (width === "each") return { ...kept, own: values };
  const fixtures = fixturesIn(show, Object.keys(values));
  if (width === "any") return { ...kept, any: anyOf(show, fixtures, values) };
  const byFixture = grouped(Object.keys(values), (key) => splitKey(key).fixture);
  for (const [type, own] of grouped(fixtures, (f) => f.type)) {
    const reference = own[0]!.id;
    const followed = Object.fromEntries((byFixture.get(reference) ?? []).map((key) => [placeOf(key), values[key]!]));
    kept.types[type] = { reference, values: followed };
    for (const { id } of own.slice(1))
      for (const key of byFixture.get(id) ?? []) {
        const follows = followed[placeOf(key)];
        if (!follows || !sameValue(follows, values[key]!)) kept.own[key] = values[key]!;
      }
  }
  return kept;
}

/** Of fixtures that differ, the lowest number's; a colour as xy, from all colour parameters of the first that has some. */
function anyOf(show: Looking, fixtures: readonly Fixture[], values: Record<ParamKey, PaletteEntry>): Palette["any"] {
  const any: Palette["any"] = { values: {}, colour: null };
  const byFixture = grouped(Object.keys(values), (key) => splitKey(key).fixture);
  for (const fixture of fixtures) {
    const keys = byFixture.get(fixture.id) ?? [];
    const { specs } = modelOf(show, fixture);
    const colours = keys.filter((key) => attributeInfo(values[key]!.attribute).family === "Colour");
    const linked = colours.some((key) => isLink(values[key]!.value));
    if (colours.length > 0 && !linked && !any.colour)
      any.colour =
        colourSeen(specs, (spec) => {
          const at = values[paramKey(fixture.id, spec.cell, spec.head)];
          return at && typeof at.value === "number"
            ? { attribute: at.attribute, value: at.value }
            : { attribute: spec.head, value: spec.default };
        }) ?? null;
    for (const key of keys) {
      const { attribute, value } = values[key]!;
      const mixed = any.colour !== null && colours.includes(key);
      if (!mixed && any.values[attribute] === undefined) any.values[attribute] = value;
    }
  }
  return any;
}

/** What is there, with what is recorded over it. Whoever is recorded at a width anew follows it. */
export function mergedKept(old: Kept, made: Kept, recorded: Iterable<ParamKey>): Kept {
  const own = { ...old.own };
  const widened =
    Object.keys(made.types).length > 0 || made.any.colour !== null || Object.keys(made.any.values).length > 0;
  if (widened) for (const key of recorded) delete own[key];
  const types = { ...old.types };
  for (const [type, of] of Object.entries(made.types))
    types[type] = { reference: of.reference, values: { ...types[type]?.values, ...of.values } };
  return {
    own: { ...own, ...made.own },
    types,
    any: { values: { ...old.any.values, ...made.any.values }, colour: made.any.colour ?? old.any.colour },
  };
}

/** A palette with values as exceptions of just those fixtures, or as what their types follow. */
export function withValues(
  show: Looking,
  palette: Palette,
  values: Record<ParamKey, PaletteEntry>,
  type: boolean,
): Kept {
  const own = { ...palette.own };
  if (!type) return { own: Object.assign(own, values), types: palette.types, any: palette.any };
  const typed = keptAt(show, values, "type");
  const types = { ...palette.types };
  for (const [name, of] of Object.entries(typed.types)) {
    const old = types[name];
    types[name] = { reference: old?.reference ?? of.reference, values: { ...old?.values, ...of.values } };
  }
  for (const key in values) delete own[key];
  return { own: { ...own, ...typed.own }, types, any: palette.any };
}

/** All parameters of patched fixtures of which a palette says something. */
export function saidKeys(
  show: Looking,
  palette: Palette,
  fixtures: Iterable<Id> = Object.keys(show.fixtures),
): ParamKey[] {
  const found: ParamKey[] = [];
  for (const id of fixtures) {
    const fixture = show.fixtures[id];
    if (!fixture) continue;
    for (const { cell, head } of modelOf(show, fixture).specs) {
      const key = paramKey(id, cell, head);
      if (writtenFor(show, palette, key)) found.push(key);
    }
  }
  return found;
}

/** The same palette at another width: what it says of every patched fixture stays, where it must by exceptions. */
export function atWidth(show: Looking, palette: Palette, width: Width): Kept {
  const keys = saidKeys(show, palette);
  const before: Record<ParamKey, PaletteEntry> = {};
  for (const key of keys) {
    const { attribute, value } = writtenFor(show, palette, key)!;
    before[key] = { attribute, value };
  }
  const made = keptAt(show, before, width);
  if (width === "each") return made;
  const next: Palette = { ...palette, ...made, own: {} };
  const looking = { ...show, palettes: { ...show.palettes, [palette.id]: next } };
  const own: Record<ParamKey, PaletteEntry> = {};
  for (const key of keys) {
    const now = writtenFor(looking, next, key);
    if (!now || !sameValue(now, before[key]!)) own[key] = before[key]!;
  }
  return { ...made, own };
}

/** The exceptions that say what would be followed anyway. */
export function foldable(show: Looking, palette: Palette): ParamKey[] {
  return Object.keys(palette.own).filter((key) => {
    const spec = specOf(show, key);
    const follows = spec && followedFor(show, palette, key, spec);
    return follows !== undefined && sameValue(follows, palette.own[key]!);
  });
}

/** Another fixture as the one its type follows; what every fixture gets stays. */
export function referredTo(show: Looking, palette: Palette, reference: Fixture): Kept {
  const { type } = reference;
  const before = new Map<ParamKey, PaletteEntry>();
  const own = { ...palette.own };
  const ofType = Object.values(show.fixtures).filter((f) => f.type === type);
  for (const key of saidKeys(
    show,
    palette,
    ofType.map((f) => f.id),
  )) {
    const { attribute, value } = writtenFor(show, palette, key)!;
    before.set(key, { attribute, value });
    if (splitKey(key).fixture === reference.id) delete own[key];
  }
  const values = { ...palette.types[type]?.values };
  for (const [key, entry] of before) if (splitKey(key).fixture === reference.id) values[placeOf(key)] = entry;
  const kept: Kept = {
    own,
    any: palette.any,
    types: { ...palette.types, [type]: { reference: reference.id, values } },
  };
  const next: Palette = { ...palette, ...kept };
  for (const [key, entry] of before) {
    const now = writtenFor(show, next, key);
    if (!now || !sameValue(now, entry)) own[key] = entry;
  }
  return kept;
}

/** What a palette says in the end, as numbers and points, for hard values in place of it. */
export function hardValue(show: Looking, id: Id, key: ParamKey): PaletteEntry | undefined {
  const said = saidBy(show, id, key);
  return said && { attribute: said.attribute, value: said.value };
}
