/** A colour as values of a fixture's own colour parameters (SEMANTICS 1 and 10, "Colour"). */
import { converter, formatHex } from "culori";
import { apart, uvOf, xyOfHex, type Xy } from "../colour/chromaticity";
import { emitterOf, PRIMARIES } from "../colour/emitters";
import { FILTER_NAMES, filtersFor, logsOfFilters } from "../colour/filter";
import { mixOf } from "../colour/mix";
import { isEmitter, isFilter } from "../fixture/attribute";
import type { ParameterSpec } from "../fixture/parameters";
import type { ChannelFunction } from "../fixture/type";
import { allTargets, modelOf } from "../show/model";
import { splitItem, type Item, type ParamKey } from "../show/ids";
import type { Fixture, Show } from "../show/schema";
import type { Entry } from "../show/value";
import { grouped } from "../units/grouped";

/**
 * What is asked for: sRGB parts 0..1 for the type's own primaries, or a chromaticity; `white` lets every emitter join,
 * `level` 0..1 is beside the brightest the type can give there (1 unless said).
 */
export type Wanted =
  | { rgb: readonly [number, number, number] }
  | { xy: Xy; white: boolean; level?: number | undefined };

export interface Coloured {
  values: readonly (readonly [ParamKey, Entry])[];
  /** How far the result is from a chromaticity that was asked for, in u'v'; 0 where it is met. */
  off: number;
}

/** A parameter by its place in its mode, with the function it is set by. */
interface Part {
  place: number;
  cell: number;
  attribute: string;
  fn: ChannelFunction;
}

/** Values of parameters, in their units, and how far they are from what was wanted. */
interface Made {
  values: [Part, number][];
  off: number;
}

const FULL = 100;
const toHsv = converter("hsv");

const WHITE: Wanted = { rgb: [1, 1, 1] };

/** Whether a colour means anything for an item. */
export function hasColour(show: Show, item: Item): boolean {
  const fixture = show.fixtures[splitItem(item).fixture];
  if (!fixture) return false;
  const { specs } = modelOf(show, fixture);
  let has = coloured.get(specs);
  if (has === undefined) coloured.set(specs, (has = solved(specs, WHITE).some((m) => m.values.length > 0)));
  return has;
}
const coloured = new WeakMap<readonly ParameterSpec[], boolean>();

/** A colour for all colour parameters of an item; empty where it has none. */
export function colourValues(show: Show, item: Item, wanted: Wanted): Coloured {
  const { fixture: id, cell } = splitItem(item);
  const fixture = show.fixtures[id];
  if (!fixture) return { values: [], off: 0 };
  const { specs } = modelOf(show, fixture);
  const targets = allTargets(show, id);
  const values: [ParamKey, Entry][] = [];
  let off = 0;
  for (const made of solved(specs, wanted)) {
    if (cell > 0 && made.values[0]?.[0].cell !== cell) continue;
    off = Math.max(off, made.off);
    for (const [k, entry] of entriesOf(made).entries()) values.push([targets[made.values[k]![0].place]!.key, entry]);
  }
  return { values, off };
}

const entries = new WeakMap<Made, readonly Entry[]>();

/** Thousands of fixtures hold the very same. */
function entriesOf(made: Made): readonly Entry[] {
  const before = entries.get(made);
  if (before) return before;
  const now = made.values.map(([{ attribute }, value]) => Object.freeze({ attribute, value }));
  entries.set(made, now);
  return now;
}

/** What a colour is for one parameter of a fixture; undefined where it says nothing of it. */
export function colourOf(show: Pick<Show, "types">, fixture: Fixture, place: string, wanted: Wanted) {
  const made = colourIn(modelOf(show, fixture).specs, place, wanted);
  return made && { attribute: made.attribute, value: made.value };
}

/** The same among the parameters of a mode, with how far the whole colour is off, in u'v'. @param place cell and head, "0.ColorAdd_R". */
export function colourIn(specs: readonly ParameterSpec[], place: string, wanted: Wanted) {
  for (const { values, off } of solved(specs, wanted))
    for (const [part, value] of values)
      if (`${part.cell}.${specs[part.place]!.head}` === place) return { attribute: part.attribute, value, off };
  return undefined;
}

const known = new WeakMap<readonly ParameterSpec[], WeakMap<Wanted, readonly Made[]>>();

/** What each cell of a mode is to be. Thousands of fixtures of one mode ask for the same one after another. */
function solved(specs: readonly ParameterSpec[], wanted: Wanted): readonly Made[] {
  let own = known.get(specs);
  if (!own) known.set(specs, (own = new WeakMap()));
  const before = own.get(wanted);
  if (before) return before;
  const parts = specs.map((spec, place): Part => ({
    place,
    cell: spec.cell,
    attribute: spec.head,
    fn: spec.functions[0]!,
  }));
  const made = [...grouped(parts, (p) => p.cell).values()].map((own) => ofCell(own, wanted));
  const all = made.some((m) => m.values.length > 0) ? made : [hue(parts, wanted)];
  own.set(wanted, all);
  return all;
}

function ofCell(targets: readonly Part[], wanted: Wanted): Made {
  const emitters = targets.filter((t) => isEmitter(t.attribute));
  const filters = targets.filter((t) => isFilter(t.attribute));
  const wheels = targets.filter((t) => t.attribute === "Color1");
  const mixed = emitters.length > 0 ? ofEmitters(emitters, wanted) : ofFilters(filters, wanted);
  if (!mixed) return ofWheels(wheels, wanted);
  // What is mixed is seen through an open wheel.
  return { values: [...mixed.values, ...wheels.map((t): [Part, number] => [t, 1])], off: mixed.off };
}

const xyWanted = (wanted: Wanted): Xy =>
  "rgb" in wanted
    ? xyOfHex(formatHex({ mode: "rgb", r: wanted.rgb[0], g: wanted.rgb[1], b: wanted.rgb[2] }))
    : wanted.xy;

const levelOf = (wanted: Wanted): number => ("rgb" in wanted ? 1 : (wanted.level ?? 1));

/** Primaries by channel / 255; a type without all three is asked for the chromaticity. */
function ofEmitters(targets: readonly Part[], wanted: Wanted): Made {
  const primaries = PRIMARIES.map((name) => targets.find((t) => t.attribute === name));
  const own = primaries.filter((t) => t !== undefined);
  if ("rgb" in wanted && own.length === 3) {
    return { values: targets.map((t) => [t, (wanted.rgb[own.indexOf(t)] ?? 0) * FULL]), off: 0 };
  }
  const known = targets.filter((t) => emitterOf(t.fn));
  const joins = own.length < 3 || ("xy" in wanted && wanted.white);
  let among = joins ? known : own;
  let mix = mixOf(
    among.map((t) => emitterOf(t.fn)!),
    xyWanted(wanted),
  );
  // Where the primaries cannot reach it, the others help.
  if (mix.off > 0 && !joins) {
    among = known;
    mix = mixOf(
      known.map((t) => emitterOf(t.fn)!),
      xyWanted(wanted),
    );
  }
  const level = levelOf(wanted);
  const shares = new Map(among.map((t, k) => [t, mix.shares[k]! * level]));
  return { values: targets.map((t) => [t, (shares.get(t) ?? 0) * FULL]), off: "rgb" in wanted ? 0 : mix.off };
}

/** Filters by the complement of channel / 255, or as the chromaticity needs them. */
function ofFilters(targets: readonly Part[], wanted: Wanted): Made | undefined {
  const place = (t: Part) => (FILTER_NAMES as readonly string[]).indexOf(t.attribute);
  if (new Set(targets.map(place)).size < 3) return undefined;
  if ("rgb" in wanted) {
    return { values: targets.map((t) => [t, (1 - wanted.rgb[place(t)]!) * FULL]), off: 0 };
  }
  const { shares, off } = filtersFor(
    wanted.xy,
    levelOf(wanted),
    logsOfFilters([0, 1, 2].map((k) => targets.find((t) => place(t) === k)?.fn)),
  );
  return { values: targets.map((t) => [t, shares[place(t)]! * FULL]), off };
}

/** The nearest slot in u'v'. */
function ofWheels(targets: readonly Part[], wanted: Wanted): Made {
  const aim = xyWanted(wanted);
  let off = 0;
  const values = targets.flatMap((t): [Part, number][] => {
    const slots = (t.fn.steps ?? []).filter((s) => s.colour);
    const best = slots.reduce<(typeof slots)[number] | undefined>(
      (a, b) => (a && apart(xyOfHex(a.colour!), aim) <= apart(xyOfHex(b.colour!), aim) ? a : b),
      undefined,
    );
    if (best) off = Math.max(off, apart(xyOfHex(best.colour!), aim));
    return best ? [[t, best.value]] : [];
  });
  return { values, off };
}

/** A type that has nothing but a hue takes that. */
function hue(targets: readonly Part[], wanted: Wanted): Made {
  const own = targets.filter((t) => t.attribute === "HSB_Hue");
  const [u, v] = uvOf(xyWanted(wanted));
  const [r, g, b] = "rgb" in wanted ? wanted.rgb : [0, 0, 0];
  const degrees = toHsv("rgb" in wanted ? { mode: "rgb", r, g, b } : srgbOf([u, v]))?.h ?? 0;
  return { values: own.map((t) => [t, degrees]), off: 0 };
}

/** A chromaticity as a full sRGB colour, for its hue. */
function srgbOf([u, v]: readonly [number, number]) {
  const y = 1;
  const x = (9 * u) / (4 * v);
  const z = (12 - 3 * u - 20 * v) / (4 * v);
  return { mode: "xyz65" as const, x, y, z };
}
