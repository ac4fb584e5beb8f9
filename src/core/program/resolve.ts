/** What a held or stored value means for a parameter: the one place where every form of value becomes a number. */
import { functionOf, rangeOf, type ParameterSpec } from "../fixture/parameters";
import { aimAt, type Aimed, type Range } from "../patch/room";
import { splitKey, type ParamKey } from "../show/ids";
import { modelOf } from "../show/model";
import type { Fixture, Show } from "../show/schema";
import { isAim, isStop, type AimPoint, type Entry, type Value } from "../show/value";
import { clamp } from "../units/units";

export interface Resolved {
  /** In the unit of the entry's attribute. */
  value: number;
  /** Index of the function in the parameter's spec. */
  fn: number;
}

/** What resolving looks at. */
export type Resolving = Pick<Show, "types" | "fixtures">;

/**
 * What an entry means for a parameter; undefined where it says nothing (a release, an attribute the type does
 * not have, or a fixture that is gone).
 */
export function resolveEntry(show: Resolving, key: ParamKey, spec: ParameterSpec, entry: Entry): Resolved | undefined {
  const { functions } = spec;
  let fn = 0;
  while (fn < functions.length && functions[fn]!.attribute !== entry.attribute) fn++;
  if (fn === functions.length) return undefined;
  const value = numberOf(show, key, entry.attribute, entry.value);
  if (value === undefined) return undefined;
  // What a file or another mode brought stays within what the function can do.
  const { from, to } = functions[fn]!;
  return { value: from <= to ? clamp(value, from, to) : clamp(value, to, from), fn };
}

/** A value as a number, for a parameter of a fixture: not yet within its range. Undefined where it says nothing. */
export function numberOf(
  show: Resolving,
  key: ParamKey,
  attribute: string,
  value: Value | undefined,
): number | undefined {
  if (value === undefined || typeof value === "number") return value;
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

/** What an entry depends on besides itself, by name: it is resolved anew when that changes. */
export function pointsAt(key: ParamKey, { value, effect }: Entry): string | undefined {
  const values = effect && !isStop(effect) ? [value, effect.low, effect.high] : [value];
  return values.some((v) => v !== undefined && isAim(v)) ? placeOf(splitKey(key).fixture) : undefined;
}

/** The name under which what depends on a fixture's place and turn is found. */
export const placeOf = (fixture: string): string => `place ${fixture}`;
