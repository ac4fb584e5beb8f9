/** The geometry tree of a GDTF type: which parts there are, and which of them a mode uses more than once. */
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
}

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
    through: readonly Geometry[] = [],
  ) => {
    count += 1;
    if (count > MOST_INSTANCES) return;
    found.set(geometry.name, [...(found.get(geometry.name) ?? []), { key, above, ...shift }]);
    for (const child of geometry.children) {
      if (child.tag !== "GeometryReference") {
        put(child, shift.breaks ? `${key}/${child.name}` : child.name, [...above, key], shift, [...through, geometry]);
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
        [...through, geometry],
      );
    }
  };
  const top = tops.get(root) ?? [...tops.values()][0];
  if (top) put(top, top.name, [], {});
  return found;
}

/** The way to the first beam of a tree, the beam last; empty where it has none. */
function wayToBeam(geometry: Geometry | undefined, tops: ReadonlyMap<string, Geometry>, depth = 0): Geometry[] {
  if (!geometry || depth > 50) return [];
  if (geometry.tag === "Beam") return [geometry];
  for (const child of geometry.children) {
    const next = child.tag === "GeometryReference" ? tops.get(text(child.element, "Geometry")) : child;
    const found = wayToBeam(next === geometry ? undefined : next, tops, depth + 1);
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
