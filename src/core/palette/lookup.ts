/** What a palette says of a parameter: each, then type, then any (SEMANTICS 3). */
import { attributeInfo } from "../fixture/attribute";
import { functionOf, type ParameterSpec } from "../fixture/parameters";
import { placeIn, type Id, type ParamKey } from "../show/ids";
import { modelOf, specOf } from "../show/model";
import type { AnyColour, Palette, PaletteEntry } from "../show/paletteSchema";
import type { Fixture, Show } from "../show/schema";
import { namedBy } from "../show/checking/links";
import { own } from "../show/hasOwn";
import { isLink } from "../show/value";
import { colourOf, type Wanted } from "./colour";

/** What looking up looks at. */
export type Looking = Pick<Show, "types" | "fixtures" | "palettes">;

/** Links may lead on so often; a show whose links go round says nothing there. */
const DEEPEST = 16;

/** Where a palette has what it says of a parameter. */
export type From = "own" | "type" | "any";
export interface Said extends PaletteEntry {
  from: From;
}

/** What a palette itself says of a parameter, as it is written: a number, a point or another palette. Undefined where it says nothing. */
export function writtenFor(
  show: Looking,
  palette: Palette,
  key: ParamKey,
  spec: ParameterSpec | undefined = specOf(show, key),
): Said | undefined {
  if (!spec) return undefined;
  // Most have no exception: asking whether is quicker than asking for it.
  const exception = own(palette.own, key);
  if (exception && functionOf(spec, exception.attribute)) return { ...exception, from: "own" };
  return followedFor(show, palette, key, spec);
}

/** By palette and by the parameter of a mode: all fixtures of a mode follow the same. */
const followed = new WeakMap<Palette, WeakMap<ParameterSpec, Said | null>>();

/** What a parameter would follow if it had no exception: of its type, then of any. Worked out once for all of a mode. */
export function followedFor(show: Looking, palette: Palette, key: ParamKey, spec: ParameterSpec): Said | undefined {
  let ofPalette = followed.get(palette);
  if (!ofPalette) followed.set(palette, (ofPalette = new WeakMap()));
  const known = ofPalette.get(spec);
  if (known !== undefined) return known ?? undefined;
  const fixture = show.fixtures[placeIn(key).fixture]!;
  const typed = ofType(palette, fixture, spec.cell, spec);
  const any = typed ? undefined : ofAny(show, palette, fixture, spec.cell, spec);
  const made: Said | null = typed ? { ...typed, from: "type" } : any ? { ...any, from: "any" } : null;
  ofPalette.set(spec, made);
  return made ?? undefined;
}

function ofType(palette: Palette, fixture: Fixture, cell: number, spec: ParameterSpec): PaletteEntry | undefined {
  const values = palette.types[fixture.type]?.values;
  if (!values) return undefined;
  const entry = values[`${cell}.${spec.head}`];
  if (entry && functionOf(spec, entry.attribute)) return entry;
  // Another mode may carry it on a channel of another name.
  for (const place in values) {
    const other = values[place]!;
    if (place.startsWith(`${cell}.`) && functionOf(spec, other.attribute)) return other;
  }
  return undefined;
}

const wanted = new WeakMap<AnyColour, Wanted>();

/** The same colour is asked for by thousands: it is one object for all of them. */
function wantedOf(colour: AnyColour): Wanted {
  const known = wanted.get(colour) ?? { xy: colour.xy, white: colour.white, level: colour.level };
  wanted.set(colour, known);
  return known;
}

function ofAny(
  show: Looking,
  { any }: Palette,
  fixture: Fixture,
  cell: number,
  spec: ParameterSpec,
): PaletteEntry | undefined {
  if (any.colour && attributeInfo(spec.head).family === "Colour") {
    const made = colourOf(show, fixture, `${cell}.${spec.head}`, wantedOf(any.colour));
    if (made) return made;
  }
  for (const { attribute } of spec.functions) {
    const value = any.values[attribute];
    if (value === undefined) continue;
    // Addressed at the fixture, an attribute is its own, else that of its cells.
    const own = modelOf(show, fixture).specs.some((s) => s.cell === 0 && functionOf(s, attribute));
    if (cell === 0 || !own) return { attribute, value };
  }
  return undefined;
}

/**
 * What a palette says of a parameter in the end: a number or a point, through whatever palettes it names.
 * @param spec the parameter's own, where it is at hand.
 */
export function saidBy(
  show: Looking,
  id: Id,
  key: ParamKey,
  spec: ParameterSpec | undefined = specOf(show, key),
  depth = 0,
): Said | undefined {
  const palette = show.palettes[id];
  const written = palette && writtenFor(show, palette, key, spec);
  if (!written || !isLink(written.value)) return written;
  if (depth >= DEEPEST) return undefined;
  const further = saidBy(show, written.value.palette, key, spec, depth + 1);
  return further && { ...further, from: written.from };
}

/** What a palette says, for who asks it of thousands: where nothing it leads to has exceptions, once for all of a mode. */
export function askerOf(show: Looking, id: Id): (key: ParamKey, spec: ParameterSpec) => Said | undefined {
  const leads = new Set([id]);
  for (const one of leads) for (const named of namedBy(show.palettes[one] ?? NOTHING)) leads.add(named);
  for (const one of leads) for (const _ in show.palettes[one]?.own) return (key, spec) => saidBy(show, id, key, spec);
  const known = new Map<ParameterSpec, Said | null>();
  return (key, spec) => {
    let said = known.get(spec);
    if (said === undefined) known.set(spec, (said = saidBy(show, id, key, spec) ?? null));
    return said ?? undefined;
  };
}
const NOTHING: Pick<Palette, "own" | "types" | "any"> = { own: {}, types: {}, any: { values: {}, colour: null } };

/** These palettes and all that name one of them, however far round. */
export function dependingOn(palettes: Show["palettes"], ids: Iterable<Id>): Set<Id> {
  const found = new Set(ids);
  const users = new Map<Id, Id[]>();
  for (const palette of Object.values(palettes))
    for (const named of namedBy(palette)) users.set(named, [...(users.get(named) ?? []), palette.id]);
  const ahead = [...found];
  for (let id = ahead.pop(); id !== undefined; id = ahead.pop())
    for (const user of users.get(id) ?? []) {
      if (found.has(user)) continue;
      found.add(user);
      ahead.push(user);
    }
  return found;
}

/** Palettes that differ between two versions of a show, with all that name them. */
export function changedPalettes(before: Show["palettes"], after: Show["palettes"]): Set<Id> {
  if (before === after) return new Set();
  const ids = [...Object.keys(before), ...Object.keys(after)].filter((id) => before[id] !== after[id]);
  return new Set([...dependingOn(before, ids), ...dependingOn(after, ids)]);
}
