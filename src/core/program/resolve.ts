/** What a held or stored value means for a parameter: the one place where every form of value becomes a number. */
import { functionOf, rangeOf, type ParameterSpec } from "../fixture/parameters";
import { changedEffects, changedWaves } from "../effect/voices";
import { askerOf, changedPalettes, saidBy, type Looking, type Said } from "../palette/lookup";
import { linksOf } from "../show/checking/links";
import { aimAt, type Aimed, type Range } from "../patch/room";
import { splitKey, type Id, type ParamKey } from "../show/ids";
import { modelOf } from "../show/model";
import type { Fixture, Show } from "../show/schema";
import { isAim, isLink, type AimPoint, type Entry, type Link, type Value } from "../show/value";
import { clamp } from "../units/units";

export interface Resolved {
  /** In the unit of the entry's attribute. */
  value: number;
  /** Index of the function in the parameter's spec. */
  fn: number;
}

/** How palettes are asked. */
type Asking = (id: Id, key: ParamKey, spec: ParameterSpec) => Said | undefined;

/** A way of asking palettes for thousands of parameters in a row. */
export function askingOf(show: Looking): Asking {
  const askers = new Map<Id, ReturnType<typeof askerOf>>();
  return (id, key, spec) => {
    let asker = askers.get(id);
    if (!asker) askers.set(id, (asker = askerOf(show, id)));
    return asker(key, spec);
  };
}

/** What resolving looks at. */
export type Resolving = Looking & Pick<Show, "effects" | "waves" | "seed">;

/**
 * What an entry means for a parameter; undefined where it says nothing (a release, an attribute the type does
 * not have, or a fixture that is gone).
 */
export function resolveEntry(
  show: Looking,
  key: ParamKey,
  spec: ParameterSpec,
  entry: Entry,
  ask: Asking = (id) => saidBy(show, id, key, spec),
): Resolved | undefined {
  const { functions } = spec;
  // A palette may say another of the attributes on the channel now than when it was taken.
  const linked = entry.value !== undefined && typeof entry.value !== "number" && isLink(entry.value);
  const said = linked ? ask((entry.value as Link).palette, key, spec) : undefined;
  if (linked && !said) return undefined;
  const { attribute } = said ?? entry;
  let fn = 0;
  while (fn < functions.length && functions[fn]!.attribute !== attribute) fn++;
  if (fn === functions.length) return undefined;
  const value = numberOf(show, key, attribute, (said ?? entry).value);
  if (value === undefined) return undefined;
  // What a file or another mode brought stays within what the function can do.
  const { from, to } = functions[fn]!;
  return { value: from <= to ? clamp(value, from, to) : clamp(value, to, from), fn };
}

/** A value as a number, for a parameter of a fixture: not yet within its range. Undefined where it says nothing. */
export function numberOf(
  show: Looking,
  key: ParamKey,
  attribute: string,
  value: Value | undefined,
): number | undefined {
  if (value === undefined || typeof value === "number") return value;
  if (isLink(value)) {
    const said = saidBy(show, value.palette, key);
    return said?.attribute === attribute && !isLink(said.value)
      ? numberOf(show, key, attribute, said.value)
      : undefined;
  }
  if (!isAim(value)) return undefined;
  const fixture = show.fixtures[splitKey(key).fixture];
  const aimed = fixture && aimOfFixture(show, fixture, value);
  return aimed && (attribute === "Pan" ? aimed.pan : aimed.tilt);
}

const solved = new WeakMap<Fixture, { types: Show["types"]; aims: Map<string, Aimed | undefined> }>();
/** A fixture remembers so many points; then it starts afresh. */
const MOST_AIMS = 200;

/** Pan, tilt and what is missed of the point, for a fixture as it hangs; undefined for one without pan and tilt. */
export function aimOfFixture(show: Pick<Show, "types">, fixture: Fixture, { aim, flip }: AimPoint): Aimed | undefined {
  let known = solved.get(fixture);
  if (known?.types !== show.types) solved.set(fixture, (known = { types: show.types, aims: new Map() }));
  const name = `${aim.join(" ")} ${flip ?? false}`;
  if (known.aims.has(name)) return known.aims.get(name);
  const ranges = ["Pan", "Tilt"].map((attribute): Range | undefined => {
    const spec = modelOf(show, fixture).specs.find((s) => functionOf(s, attribute));
    return spec && rangeOf(functionOf(spec, attribute)!);
  });
  const [pan, tilt] = ranges;
  const made = pan && tilt ? aimAt(fixture, aim, pan, tilt, flip) : undefined;
  if (known.aims.size >= MOST_AIMS) known.aims.clear();
  known.aims.set(name, made);
  return made;
}

/** What an entry depends on besides itself, by names: it is resolved anew when that changes. */
export function pointsAt(key: ParamKey, entry: Entry): readonly string[] {
  const { value, effect } = entry;
  // Thousands of plain numbers are asked of.
  if (typeof value === "number" && effect === undefined) return NOWHERE;
  const named = linksOf(entry).map(nameOf);
  // A palette may hold a point, now or later.
  const placed = (value !== undefined && isAim(value)) || (named.length > 0 && /^(Pan|Tilt)$/.test(entry.attribute));
  return placed ? [placeOf(splitKey(key).fixture), ...named] : named;
}
const NOWHERE: readonly string[] = [];

/** The name under which what depends on a palette, an effect or a wave is found. */
export const nameOf = (id: string): string => `of ${id}`;

/** What plays or resolves otherwise in one version of a show than in another, by names: palettes, effects and waves. */
export function changedNames(before: Resolving, after: Resolving): Set<string> {
  const palettes = changedPalettes(before.palettes, after.palettes);
  return new Set([...palettes, ...changedEffects(before, after, palettes), ...changedWaves(before, after)].map(nameOf));
}

/** The name under which what depends on a fixture's place and turn is found. */
export const placeOf = (fixture: string): string => `place ${fixture}`;
