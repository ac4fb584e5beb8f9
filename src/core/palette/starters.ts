/** Palettes to begin with, worked out from the rig; none that is there already. */
import { xyOfHex, xyOfKelvin } from "../colour/chromaticity";
import type { Family } from "../fixture/attribute";
import { rangeOf } from "../fixture/parameters";
import type { ParamKey } from "../show/ids";
import { allTargets, targetsOf } from "../show/model";
import type { Width } from "../show/paletteSchema";
import type { Fixture, Show } from "../show/schema";
import type { Entry } from "../show/value";
import { fixturesByNumber, palettesByNumber } from "../show/world";
import { colourValues, hasColour } from "./colour";

export interface Starter {
  family: Family;
  name: string;
  width: Width;
  number: number;
  entries: Record<ParamKey, Entry>;
}

/** Where the numbers of a family begin. */
const FIRST: Partial<Record<Family, number>> = {
  Intensity: 1,
  Position: 21,
  Colour: 41,
  Gobo: 61,
  Beam: 71,
  Focus: 81,
};

type Raw = Omit<Starter, "number">;

/** All there could be, less those whose names are taken. @param families those wanted; all where not given. */
export function startersFor(show: Show, families?: readonly Family[]): Starter[] {
  const names = new Set(palettesByNumber(show).map((p) => p.name.toLowerCase()));
  const numbers = new Set(palettesByNumber(show).map((p) => p.number));
  const raw = [...intensities(show), ...positions(show), ...colours(show), ...slots(show), ...amounts(show)];
  return raw.flatMap((starter): Starter[] => {
    if (families && !families.includes(starter.family)) return [];
    if (names.has(starter.name.toLowerCase()) || Object.keys(starter.entries).length === 0) return [];
    names.add(starter.name.toLowerCase());
    let number = FIRST[starter.family] ?? 101;
    while (numbers.has(number)) number += 1;
    numbers.add(number);
    return [{ ...starter, number }];
  });
}

/** The first fixture of each type, by number. */
const oneOfEach = (show: Show): Fixture[] =>
  [...new Map([...fixturesByNumber(show)].reverse().map((f) => [f.type, f])).values()].reverse();

/** Entries of one attribute of a fixture at a value. */
const at = (show: Show, fixture: Fixture, attribute: string, value: Entry["value"]): Record<ParamKey, Entry> =>
  Object.fromEntries(targetsOf(show, fixture.id, attribute).map(({ key }) => [key, { attribute, value }]));

function intensities(show: Show): Raw[] {
  const first = fixturesByNumber(show).find((f) => targetsOf(show, f.id, "Dimmer").length > 0);
  if (!first) return [];
  return (
    [
      ["Full", 100],
      ["Three quarters", 75],
      ["Half", 50],
      ["A quarter", 25],
    ] as const
  ).map(([name, value]) => ({
    family: "Intensity",
    name,
    width: "any",
    entries: at(show, first, "Dimmer", value),
  }));
}

/** Points over the plan for whatever moves, and a fan of all that do. */
function positions(show: Show): Raw[] {
  const movers = fixturesByNumber(show).filter(
    (f) => targetsOf(show, f.id, "Pan").length > 0 && targetsOf(show, f.id, "Tilt").length > 0,
  );
  if (movers.length === 0) return [];
  const xs = fixturesByNumber(show).map((f) => f.place.x);
  const ys = fixturesByNumber(show).map((f) => f.place.y);
  const [left, right, front, back] = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)];
  const [x, y] = [(left + right) / 2, (front + back) / 2];
  const round = (v: number) => Math.round(v * 10) / 10;
  const aim = (name: string, ...point: [number, number, number]): Raw => {
    const value = { aim: point.map(round) as [number, number, number] };
    const first = movers[0]!;
    return {
      family: "Position",
      name,
      width: "any",
      entries: { ...at(show, first, "Pan", value), ...at(show, first, "Tilt", value) },
    };
  };
  const fan: Raw = {
    family: "Position",
    name: "Fan",
    width: "each",
    entries: Object.assign(
      {},
      ...movers.map((f, k) => {
        const share = movers.length > 1 ? k / (movers.length - 1) : 0.5;
        return { ...at(show, f, "Pan", round(40 - 80 * share)), ...at(show, f, "Tilt", 35) };
      }),
    ) as Record<ParamKey, Entry>,
  };
  return [
    aim("Centre", x, y, 0),
    aim("Audience", x, front - 5, 1.5),
    aim("Sky", x, back + 4, 25),
    aim("Front, stage right", left, front, 0),
    aim("Front, stage left", right, front, 0),
    aim("Back, stage right", left, back, 0),
    aim("Back, stage left", right, back, 0),
    fan,
  ];
}

/** Colours that say what they are; the whites by their temperature. */
const COLOURS: readonly (readonly [name: string, is: string | number])[] = [
  ["Deep red", "#ff0018"],
  ["Orange", "#ff5a00"],
  ["Amber", "#ff9a1a"],
  ["Straw", "#ffd27a"],
  ["Yellow", "#ffe400"],
  ["Lime", "#a0f000"],
  ["Green", "#00e038"],
  ["Turquoise", "#00e0b4"],
  ["Cyan", "#00d8ff"],
  ["Light blue", "#5aa8ff"],
  ["Deep blue", "#1428ff"],
  ["Lavender", "#ac9cff"],
  ["Purple", "#7c20ff"],
  ["Magenta", "#ff00c8"],
  ["Pink", "#ff7cb4"],
  ["Warm white", 3200],
  ["Cool white", 6500],
];

function colours(show: Show): Raw[] {
  const mixer = fixturesByNumber(show).find(
    (f) =>
      hasColour(show, f.id) &&
      targetsOf(show, f.id, "ColorAdd_R").length + targetsOf(show, f.id, "ColorSub_C").length > 0,
  );
  if (!mixer) return [];
  return COLOURS.map(([name, is]) => {
    const wanted = typeof is === "number" ? { xy: xyOfKelvin(is), white: true } : { xy: xyOfHex(is), white: false };
    return {
      family: "Colour",
      name,
      width: "any",
      entries: Object.fromEntries(colourValues(show, mixer.id, wanted).values),
    };
  });
}

/** Each slot of each wheel, and each state of prisms, for its type. */
function slots(show: Show): Raw[] {
  const wanted: [string, Family][] = [
    ["Color1", "Colour"],
    ["Gobo1", "Gobo"],
    ["Gobo2", "Gobo"],
    ["Prism1", "Beam"],
  ];
  return oneOfEach(show).flatMap((f) =>
    wanted.flatMap(([attribute, family]) =>
      (allTargets(show, f.id).find((t) => t.attribute === attribute)?.fn.steps ?? []).map((step): Raw => ({
        family,
        name: `${show.types[f.type]!.model} ${attribute === "Prism1" ? "prism " : attribute === "Gobo2" ? "second " : ""}${step.name}`,
        width: "type",
        entries: at(show, f, attribute, step.value),
      })),
    ),
  );
}

/** A few places along what zooms, irises, frosts and strobes, of each type by its own range. */
function amounts(show: Show): Raw[] {
  const wanted: [name: string, attribute: string, family: Family, share: number][] = [
    ["Narrow", "Zoom", "Focus", 0.1],
    ["Medium", "Zoom", "Focus", 0.45],
    ["Wide", "Zoom", "Focus", 0.9],
    ["Iris open", "Iris", "Focus", 1],
    ["Iris small", "Iris", "Focus", 0.25],
    ["Frost in", "Frost1", "Beam", 1],
    ["Frost out", "Frost1", "Beam", 0],
    ["Strobe, slow", "Shutter1Strobe", "Beam", 0.1],
    ["Strobe, fast", "Shutter1Strobe", "Beam", 0.7],
  ];
  return wanted.map(([name, attribute, family, share]) => ({
    family,
    name,
    width: "type",
    entries: Object.assign(
      {},
      ...oneOfEach(show).map((f) => {
        const fn = targetsOf(show, f.id, attribute)[0]?.fn;
        if (!fn) return {};
        const [low, high] = rangeOf(fn);
        return at(show, f, attribute, Math.round((low + (high - low) * share) * 10) / 10);
      }),
    ) as Record<ParamKey, Entry>,
  }));
}
