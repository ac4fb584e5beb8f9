/** The geometry tree of a GDTF type: which parts there are, and which of them a mode uses more than once. */
import { matrixOf } from "./values";
import { all, num, text, type Element } from "./xml";

const TAGS = [
  "Geometry",
  "Axis",
  "FilterBeam",
  "FilterColor",
  "FilterGobo",
  "FilterShaper",
  "Beam",
  "MediaServerLayer",
  "MediaServerCamera",
  "MediaServerMaster",
  "Display",
  "GeometryReference",
  "Laser",
  "WiringObject",
  "Inventory",
  "Structure",
  "Support",
  "Magnet",
] as const;

export interface Geometry {
  name: string;
  tag: (typeof TAGS)[number];
  element: Element;
  children: Geometry[];
}

/** Where a geometry stands in a mode. */
export interface Instance {
  /** The name of the reference it is used by, else its own. */
  key: string;
  /** The names of what it hangs on, outermost first. */
  above: readonly string[];
  /** Slots its channels are shifted by, for each DMX break; none where it stands by itself. */
  breaks?: ReadonlyMap<number, number>;
  /** The break its channels go to where they say "Overwrite". */
  overwrite?: number;
  /** Where it is, metres from the origin of the mode's geometry. */
  at: Point;
}

type Point = [x: number, y: number, z: number];
/** Three rows of four: axes, and the origin last. */
type Matrix = readonly (readonly number[])[];
const UNMOVED: Matrix = [
  [1, 0, 0, 0],
  [0, 1, 0, 0],
  [0, 0, 1, 0],
];

/** A place within another: first what is inner. */
function within(outer: Matrix, element: Element): Matrix {
  const inner = matrixOf(text(element, "Position"));
  if (!inner?.every((row) => row.length === 4)) return outer;
  return outer.map((row) =>
    [0, 1, 2, 3].map((c) => [0, 1, 2].reduce((sum, k) => sum + row[k]! * inner[k]![c]!, c === 3 ? row[3]! : 0)),
  );
}

const micrometre = (value: number): number => Math.round(value * 1e6) / 1e6 || 0;
const originOf = (matrix: Matrix): Point => matrix.map((row) => micrometre(row[3]!)) as Point;

const MOST_INSTANCES = 4096;

/** The top geometries of a type, by name. */
export function geometriesOf(type: Element | undefined): Map<string, Geometry> {
  const roots = TAGS.flatMap((tag) => all(all(type, "Geometries")[0], tag).map((e) => treeOf(tag, e)));
  return new Map(roots.map((g) => [g.name, g]));
}

function treeOf(tag: Geometry["tag"], element: Element): Geometry {
  return {
    name: text(element, "Name"),
    tag,
    element,
    children: TAGS.flatMap((t) => all(element, t).map((e) => treeOf(t, e))),
  };
}

/** All places of each geometry in a mode, by the geometry's name. */
export function instancesOf(tops: ReadonlyMap<string, Geometry>, root: string): Map<string, Instance[]> {
  const found = new Map<string, Instance[]>();
  let count = 0;
  const put = (
    geometry: Geometry,
    key: string,
    above: readonly string[],
    shift: Pick<Instance, "breaks" | "overwrite">,
    outer: Matrix,
    through: readonly Geometry[] = [],
  ) => {
    count += 1;
    if (count > MOST_INSTANCES) return;
    const here = within(outer, geometry.element);
    const places = found.get(geometry.name) ?? [];
    places.push({ key, above, ...shift, at: originOf(here) });
    found.set(geometry.name, places);
    for (const child of geometry.children) {
      if (child.tag !== "GeometryReference") {
        const name = shift.breaks ? `${key}/${child.name}` : child.name;
        put(child, name, [...above, key], shift, here, [...through, geometry]);
        continue;
      }
      const target = tops.get(text(child.element, "Geometry"));
      // A reference to what it hangs in would never end.
      if (!target || target === geometry || through.includes(target)) continue;
      const breaks = all(child.element, "Break").map((b): [number, number] => [
        num(b, "DMXBreak") ?? 1,
        (num(b, "DMXOffset") ?? 1) - 1,
      ]);
      put(
        target,
        child.name,
        [...above, key],
        { breaks: new Map(breaks), ...(breaks.length > 0 ? { overwrite: breaks.at(-1)![0] } : {}) },
        within(here, child.element),
        [...through, geometry],
      );
    }
  };
  const top = tops.get(root) ?? [...tops.values()][0];
  if (top) put(top, top.name, [], {}, UNMOVED);
  return found;
}

/** The way to the first beam of a tree, the beam last; empty where it has none. */
function wayToBeam(
  geometry: Geometry | undefined,
  tops: ReadonlyMap<string, Geometry>,
  seen = new Set<Geometry>(),
): Geometry[] {
  // What was looked through once has no beam, however many refer to it.
  if (!geometry || seen.has(geometry)) return [];
  seen.add(geometry);
  if (geometry.tag === "Beam") return [geometry];
  for (const child of geometry.children) {
    const next = child.tag === "GeometryReference" ? tops.get(text(child.element, "Geometry")) : child;
    const found = wayToBeam(next, tops, seen);
    if (found.length > 0) return [geometry, ...found];
  }
  return [];
}

/** The first beam of a tree. */
export const beamOf = (tree: Geometry | undefined, tops: ReadonlyMap<string, Geometry>): Element | undefined =>
  wayToBeam(tree, tops).at(-1)?.element;

/** The last axis on the way to the first beam: what it is the head of. */
export const axisOf = (tree: Geometry | undefined, tops: ReadonlyMap<string, Geometry>): Element | undefined =>
  wayToBeam(tree, tops).findLast((g) => g.tag === "Axis")?.element;
