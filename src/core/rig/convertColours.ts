/** Colours of a fixture in the terms of another type: by how they look (CIE xy), or by the palette they come from. */
import { colourIn } from "../palette/colour";
import { colourSeen } from "../palette/seen";
import { hasStops, isStop } from "../show/effectSchema";
import { paramKey, splitKey, type ParamKey } from "../show/ids";
import type { AnyColour } from "../show/paletteSchema";
import { isLink, isRelease, RELEASE, type Entry } from "../show/value";
import { grouped } from "../units/grouped";
import { unmarked, wasOf, type ColourMade, type Standing, type Swapping, type Way } from "./way";
import { cellFor, colourSpecs, makesColour, type Side } from "./sides";

/** Puts the colours among what is alive into what is made; the old ones stay under their keys, silent. */
export function convertColours(
  way: Way,
  colours: readonly (readonly [ParamKey, Entry])[],
  swap: Swapping,
  standing: Standing,
): void {
  const { from, to, fixture, note } = swap;
  const byCell = grouped(colours, ([key]) => splitKey(key).cell);
  const targets = [...new Set(to.specs.filter((s) => makesColour(s.head)).map((s) => s.cell))];
  for (const [key, entry] of colours) {
    // What was made on the way from another type is made anew; that is what is kept.
    if (!entry.was) way.made[key] = { ...entry, of: from.type.id };
    else if (entry.was.attribute !== undefined)
      way.made[`${fixture}.${entry.was.place}`] = {
        ...unmarked(entry),
        attribute: entry.was.attribute,
        value: entry.was.value,
        effect: entry.was.effect,
        of: entry.was.of,
      };
  }
  for (const [cell, own] of byCell) {
    const into = targets.filter((c) => cellFor(from, to, c, (s) => makesColour(s.head)) === cell);
    if (into.length === 0)
      for (const attribute of new Set(own.map(([, e]) => e.attribute))) note({ attribute, kind: "lost" });
    for (const target of into) putCell(way, own, cell, target, swap, standing);
  }
}

function putCell(
  { alive, made }: Way,
  own: readonly (readonly [ParamKey, Entry])[],
  cell: number,
  target: number,
  swap: Swapping,
  standing: Standing,
): void {
  const { from, to, fixture, note } = swap;
  const specs = colourSpecs(to, target);
  const valued = own.filter(([, e]) => e.value !== undefined);
  const effect = own
    .map(([, e]) => e.effect)
    .find((e) => e !== undefined && (isStop(e) || ("plays" in e && hasStops(e.plays)) || "from" in e));
  const time = own.map(([, e]) => e.time).find((t) => t !== undefined);
  const values = colourFor(valued, cell, swap, standing, target);
  if (!values && own.some(([, e]) => e.effect !== undefined) && !effect)
    note({ attribute: own[0]![1].attribute, kind: "lost" });
  for (const spec of specs) {
    const key = paramKey(fixture, target, spec.head);
    const value = values?.(`${target}.${spec.head}`);
    if (value === undefined && effect === undefined) continue;
    made[key] = {
      attribute: value?.attribute ?? spec.head,
      ...(value ? { value: value.value } : {}),
      ...(effect ? { effect } : {}),
      ...(time ? { time } : {}),
      was: wasOf(key, alive.get(key), own[0]![1].was?.of ?? from.type.id),
    };
  }
}

type Maker = (place: string) => { attribute: string; value: NonNullable<Entry["value"]> } | undefined;

/** What the colour parameters of a cell are to be: the palette, a release, or the colour as it looks. */
function colourFor(
  valued: readonly (readonly [ParamKey, Entry])[],
  cell: number,
  { from, to, fixture, note, colours }: Swapping,
  standing: Standing,
  target: number,
): Maker | undefined {
  const first = valued[0]?.[1].value;
  if (first === undefined) return undefined;
  if (valued.every(([, e]) => isRelease(e.value!))) return (place) => ({ attribute: headOf(place), value: RELEASE });
  if (
    typeof first === "object" &&
    isLink(first) &&
    valued.every(([, e]) => typeof e.value === "object" && isLink(e.value) && e.value.palette === first.palette)
  ) {
    note({ attribute: "Colour", kind: "same" });
    return (place) => ({ attribute: headOf(place), value: first });
  }
  const at = new Map(colourSpecs(from, cell).map((s) => [s.head, standing(paramKey(fixture, cell, s.head))]));
  const name = `${cell} ${target} ${[...at.values()].map((v) => (v ? `${v.attribute} ${v.value}` : "")).join()}`;
  let made = colours?.get(name);
  if (!made) {
    const seen = seenAt(from, cell, (head) => at.get(head));
    if (!seen) return undefined;
    made = colourMade(to, target, seen);
    colours?.set(name, made);
  }
  const { values, off } = made;
  note(
    off > 0.0005
      ? { attribute: "Colour", kind: "near", how: "as near as it can", off }
      : { attribute: "Colour", kind: "same" },
  );
  return (place) => values.get(place);
}

function colourMade(to: Side, target: number, { xy, white, level }: AnyColour): ColourMade {
  const wanted = { xy, white, level };
  let off = 0;
  const values = new Map<string, { attribute: string; value: number }>();
  for (const { head } of colourSpecs(to, target)) {
    const place = `${target}.${head}`;
    const made = colourIn(to.specs, place, wanted);
    if (!made) continue;
    values.set(place, { attribute: made.attribute, value: made.value });
    off = Math.max(off, made.off);
  }
  return { values, off };
}

const headOf = (place: string): string => place.slice(place.indexOf(".") + 1);

/** The colour a cell shows with its numbers; what nobody has said anything of is at its default. */
export const seenAt = (
  side: Side,
  cell: number,
  at: (head: string) => { attribute: string; value: number } | undefined,
) =>
  colourSeen(
    side.specs.filter((s) => s.cell === cell),
    (spec) => at(spec.head) ?? { attribute: spec.head, value: spec.default },
  );
