/**
 * Which parameter stands where in a frame. Fixtures of one mode are made alike, so a layout tells the makes
 * once, and of each fixture which it is: a rig of thousands is told in few words.
 */
import type { Rig } from "@/core/play/stage/rig";
import type { ParameterSpec } from "@/core/fixture/parameters";
import type { ParamIndex } from "@/core/show/ids";
import { z } from "@/core/units/zod";

const areTexts = (value: unknown): boolean => Array.isArray(value) && value.every((v) => typeof v === "string");

const MakeSchema = z.object({
  /** The parameters of such a fixture by cell and head: "0.Pan". */
  places: z.array(z.string()),
  /** The attributes of the functions of each. */
  attributes: z.array(z.array(z.string())),
});

export const LayoutSchema = z
  .object({
    generation: z.number().int(),
    /** How many parameters there are. */
    size: z.number().int().min(0),
    makes: z.array(MakeSchema),
    /** Fixtures in the order of their parameters. Checked by hand: there are tens of thousands. */
    fixtures: z.custom<string[]>(areTexts),
    /** Which of the makes each of them is. */
    made: z.custom<Uint32Array>((v) => Object.prototype.toString.call(v) === "[object Uint32Array]"),
    universes: z.array(z.number().int()),
    slots: z.number().int(),
  })
  .refine(({ makes, fixtures, made, size }) => {
    if (made.length !== fixtures.length || makes.some((m) => m.places.length !== m.attributes.length)) return false;
    let count = 0;
    for (const k of made) count += makes[k]?.places.length ?? NaN;
    return count === size;
  });
export type Layout = z.infer<typeof LayoutSchema>;

/** The layout of frames for a rig. */
export function layoutOfRig(
  rig: Pick<Rig, "size" | "specs" | "owner" | "universes">,
  generation: number,
  slots: number,
) {
  const makes: Layout["makes"] = [];
  const known = new Map<ParameterSpec, number>();
  const fixtures: string[] = [];
  const made: number[] = [];
  for (let p = 0; p < rig.size;) {
    const [fixture, first] = [rig.owner[p]!, rig.specs[p]!];
    let make = known.get(first);
    if (make === undefined) {
      let end = p;
      while (rig.owner[end] === fixture) end += 1;
      const specs = rig.specs.slice(p, end);
      known.set(first, (make = makes.length));
      makes.push({
        places: specs.map(({ cell, head }) => `${cell}.${head}`),
        attributes: specs.map((spec) => spec.functions.map((fn) => fn.attribute)),
      });
    }
    fixtures.push(fixture);
    made.push(make);
    p += makes[make]!.places.length;
  }
  return {
    generation,
    size: rig.size,
    makes,
    fixtures,
    made: Uint32Array.from(made),
    universes: [...rig.universes],
    slots,
  } satisfies Layout;
}

interface Laid {
  index?: ParamIndex;
  keys?: readonly string[];
  attributes?: readonly (readonly string[])[];
}
const known = new WeakMap<Layout, Laid>();

function laidOf(layout: Layout): Laid {
  const laid = known.get(layout) ?? {};
  known.set(layout, laid);
  return laid;
}

/** Where each parameter is in frames of a layout. */
export function indexOf(layout: Layout): ParamIndex {
  const laid = laidOf(layout);
  return (laid.index ??= makeIndex(layout));
}

function makeIndex({ makes, fixtures, made }: Layout): ParamIndex {
  const within = makes.map(({ places }) => new Map(places.map((place, k) => [place, k])));
  const starts = new Map<string, { first: number; count: number; make: number }>();
  let first = 0;
  fixtures.forEach((fixture, k) => {
    const make = made[k]!;
    const count = makes[make]!.places.length;
    starts.set(fixture, { first, count, make });
    first += count;
  });
  return {
    of: (fixture) => starts.get(fixture),
    get(key) {
      const dot = key.indexOf(".");
      const start = starts.get(key.slice(0, dot));
      const at = start && within[start.make]!.get(key.slice(dot + 1));
      return at === undefined ? undefined : start!.first + at;
    },
  };
}

/** The keys of all parameters, by their places. */
export function keysOf(layout: Layout): readonly string[] {
  const laid = laidOf(layout);
  return (laid.keys ??= layout.fixtures.flatMap((fixture, k) =>
    layout.makes[layout.made[k]!]!.places.map((place) => `${fixture}.${place}`),
  ));
}

/** For each parameter the attribute names of its functions, by their places. */
export function functionsOf(layout: Layout): readonly (readonly string[])[] {
  const laid = laidOf(layout);
  return (laid.attributes ??= [...layout.made].flatMap((make) => layout.makes[make]!.attributes));
}
