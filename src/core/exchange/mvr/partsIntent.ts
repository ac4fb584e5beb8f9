/** Groups and position palettes that come along with a rig. */
import { z } from "../../units/zod";
import { nothingKept, keptAt } from "../../palette/keep";
import { plainShow, put } from "../../palette/intents";
import { aimOfFixture } from "../../program/resolve";
import { defineIntent, newId } from "../../show/change/intent";
import { unsaid } from "../../show/words/lineText";
import { targetsOf } from "../../show/model";
import { fail } from "../../show/refusal";
import { wholeNumber, type Fixture, type Show } from "../../show/schema";
import type { ParamKey } from "../../show/ids";
import type { Entry } from "../../show/value";
import type { Width } from "../../show/paletteSchema";
import { fixtureNumbered, fixturesByNumber } from "../../show/world";
import type { PointNew } from "./parts";
import { plural } from "../../units/plural";

const MOST = 1000;
const metres = z.number().min(-100_000).max(100_000);
const numbers = z.array(wholeNumber).max(20_000);
/** Degrees nearer than this are in reach. */
const IN_REACH = 0.01;
/** Where the numbers of position palettes begin. */
const FIRST_PALETTE = 21;

export const POINTS_AS = ["aim", "degrees"] as const;

export const bringParts = defineIntent({
  kind: "bringParts",
  fields: {
    groups: z.array(z.object({ name: z.string().max(200), numbers })).max(MOST),
    points: z
      .array(z.object({ name: z.string().max(200), at: z.object({ x: metres, y: metres, z: metres }), numbers }))
      .max(MOST),
    /** Palettes that aim at the point, wherever a fixture hangs; or the pan and tilt it has there now. */
    as: z.enum(POINTS_AS),
  },
  apply(world, { groups, points, as }) {
    if (groups.length + points.length === 0) fail("there are no groups and no focus points to bring in");
    const show = plainShow(world);
    const taken = (records: Record<string, { number: number }>) =>
      new Set(Object.values(records).map(({ number }) => number));
    const groupNumbers = taken(show.groups);
    for (const { name, numbers: own } of groups) {
      const members = own.flatMap((n) => fixtureNumbered(show, n)?.id ?? []);
      if (members.length === 0) continue;
      const id = newId(world, "g");
      world.show.groups[id] = { id, number: freeFrom(1, groupNumbers), name, members };
    }
    const paletteNumbers = taken(show.palettes);
    for (const point of points) {
      const { entries, width } = heldAt(show, point, as);
      if (Object.keys(entries).length === 0) continue;
      const id = newId(world, "p");
      const number = freeFrom(FIRST_PALETTE, paletteNumbers);
      world.show.palettes[id] = { id, number, name: point.name, width, ...nothingKept() };
      put(world, id, keptAt(show, entries, width));
    }
  },
  says: (_, { groups, points }) =>
    [
      groups.length > 0 && `makes ${plural(groups.length, "group")}`,
      points.length > 0 && `makes position palettes of ${plural(points.length, "focus point")}`,
    ]
      .filter(Boolean)
      .join(" and "),
  lines: () => [unsaid("brings in the groups and focus points of a file")],
});

function freeFrom(first: number, taken: Set<number>): number {
  let number = first;
  while (taken.has(number)) number += 1;
  taken.add(number);
  return number;
}

/** What a palette of the point holds: of the fixtures turned to it, or of whatever moves. */
function heldAt(
  show: Show,
  { at: { x, y, z: height }, numbers: own }: PointNew,
  as: (typeof POINTS_AS)[number],
): { entries: Record<ParamKey, Entry>; width: Width } {
  const aim: [number, number, number] = [x, y, height];
  const moves = (f: Fixture) => targetsOf(show, f.id, "Pan").length > 0 && targetsOf(show, f.id, "Tilt").length > 0;
  const turned = own.flatMap((n) => fixtureNumbered(show, n) ?? []).filter(moves);
  const movers = turned.length > 0 ? turned : fixturesByNumber(show).filter(moves);
  const entries: Record<ParamKey, Entry> = {};
  const hold = (fixture: Fixture, attribute: string, value: Entry["value"]) => {
    for (const { key } of targetsOf(show, fixture.id, attribute)) entries[key] = { attribute, value };
  };
  // A point holds for every mover alike: the palette needs it of one.
  const anyMover = as === "aim" && turned.length === 0;
  for (const fixture of anyMover ? movers.slice(0, 1) : movers) {
    const found = aimOfFixture(show, fixture, { aim });
    if (!found || (as === "degrees" && found.off > IN_REACH)) continue;
    hold(fixture, "Pan", as === "aim" ? { aim } : Math.round(found.pan * 100) / 100);
    hold(fixture, "Tilt", as === "aim" ? { aim } : Math.round(found.tilt * 100) / 100);
  }
  return { entries, width: anyMover ? "any" : "each" };
}
