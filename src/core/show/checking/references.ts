/** What the schema alone cannot say of a show: references that lead somewhere, numbers that are unique, counts that can be opened. */
import { modeOf, parametersOf } from "../../fixture/parameters";
import { typeProblem } from "../../fixture/type";
import { addressText, fits, inTheWay, occupy, spanOf, type Occupancy } from "../address";
import { entryCount, listCounts } from "./counts";
import { own } from "../hasOwn";
import { namesIn } from "../../units/names";
import { plain } from "../../units/units";
import { morphPlaces, risingPlaces } from "../morphPlaces";
import type { CueList, Show } from "../schema";

/** The most a show may hold; more would only bring a browser down. */
export const MOST = {
  fixtures: 20_000,
  groups: 10_000,
  palettes: 10_000,
  paletteValues: 2_000_000,
  effects: 10_000,
  waves: 1000,
  lists: 1000,
  cues: 20_000,
  entries: 4_000_000,
  pieces: 1000,
  outputs: 4096,
  types: 2000,
  macros: 5000,
  pages: 1000,
  views: 1000,
} as const;
type Counted = keyof typeof MOST;

const WORDS: Record<Counted, string> = {
  fixtures: "fixtures",
  groups: "groups",
  palettes: "palettes",
  paletteValues: "values in palettes",
  effects: "effects",
  waves: "waves",
  lists: "lists",
  cues: "cues",
  entries: "stored values",
  pieces: "set pieces",
  outputs: "outputs",
  types: "fixture types",
  macros: "macros",
  pages: "pages",
  views: "views",
};

/** What there is too much of, in words; undefined where all can be opened. */
export function tooMany(show: Show): string | undefined {
  const { cues, entries } = listCounts(show);
  const found: Record<Counted, number> = {
    fixtures: namesIn(show.fixtures).length,
    groups: namesIn(show.groups).length,
    palettes: namesIn(show.palettes).length,
    paletteValues: Object.values(show.palettes).reduce((n, p) => n + entryCount(p.own), 0),
    effects: namesIn(show.effects).length,
    waves: namesIn(show.waves).length,
    lists: namesIn(show.lists).length,
    cues,
    entries,
    pieces: namesIn(show.scenery).length,
    outputs: namesIn(show.outputs).length,
    types: namesIn(show.types).length,
    macros: namesIn(show.macros).length,
    pages: namesIn(show.pages).length,
    views: namesIn(show.views).length,
  };
  const over = (Object.keys(MOST) as Counted[]).find((what) => found[what] > MOST[what]);
  return over && `${found[over].toLocaleString("en")} ${WORDS[over]}; ${MOST[over].toLocaleString("en")} is the most`;
}

/** Fixtures whose type or mode is missing, whose numbers are taken, or whose addresses do not fit or lie on another's. */
export function fixturesProblem(show: Pick<Show, "fixtures" | "types">): string | undefined {
  const taken: Occupancy = new Map();
  const numbers = new Set<number>();
  for (const [id, fixture] of Object.entries(show.fixtures)) {
    if (fixture.id !== id) return `fixture ${fixture.number} has two ids`;
    if (numbers.has(fixture.number)) return `two fixtures have the number ${fixture.number}`;
    numbers.add(fixture.number);
    const type = own(show.types, fixture.type);
    const mode = type && modeOf(type, fixture.mode);
    if (!mode)
      return `fixture ${fixture.number} is of a type or mode the show lacks (${fixture.type}, ${fixture.mode})`;
    parametersOf(mode, fixture.virtualDimmer);
    for (const address of fixture.addresses) {
      const { size } = spanOf(mode, fixture.addresses, address);
      if (!fits(address, size)) return `fixture ${fixture.number} does not fit at ${addressText(address)}`;
      if (inTheWay(taken, address, size) !== null)
        return `fixture ${fixture.number} lies on another at ${addressText(address)}`;
      occupy(taken, address, size, id);
    }
  }
  return undefined;
}

/** Records under another id than their own, and numbers that two of them share. */
export function recordsProblem(show: Show): string | undefined {
  for (const [id, type] of Object.entries(show.types)) {
    if (type.id !== id) return `the type ${type.model} has two ids`;
    const wrong = typeProblem(type);
    if (wrong) return `in the type ${type.model} ${wrong}`;
  }
  for (const [id, piece] of Object.entries(show.scenery)) if (piece.id !== id) return "a set piece has two ids";
  for (const [what, records] of [
    ["group", show.groups],
    ["list", show.lists],
    ["palette", show.palettes],
    ["effect", show.effects],
    ["wave", show.waves],
    ["macro", show.macros],
    ["page", show.pages],
    ["view", show.views],
  ] as const) {
    const seen = new Set<number>();
    for (const [id, record] of Object.entries(records)) {
      if (record.id !== id) return `${what} ${record.number} has two ids`;
      if (seen.has(record.number)) return `two ${what}s have the number ${record.number}`;
      seen.add(record.number);
    }
  }
  for (const list of Object.values(show.lists)) {
    for (const [id, cue] of Object.entries(list.cues))
      if (cue.id !== id) return `cue ${cue.number} of list ${list.number} has two ids`;
    const flat = list.kind === "morph" ? placesProblem(list) : undefined;
    if (flat) return flat;
  }
  return undefined;
}

/** Places along the level of a morph that do not rise from cue to cue. */
function placesProblem(list: CueList): string | undefined {
  const places = morphPlaces(list);
  const wrong = places.findIndex((place, k) => k > 0 && place <= places[k - 1]!);
  if (wrong < 0) return undefined;
  const said = (all: readonly number[]) => all.map((p) => plain(p, 1)).join(", ");
  return `the places along the level of list ${list.number} would not rise: ${said(places)} %; ${said(risingPlaces(places))} would`;
}

/** Ids that the count of records has not given out yet: the next new record would take the place of an old one. */
export function countProblem(show: Show): string | undefined {
  const ids = [
    ...Object.keys(show.fixtures),
    ...Object.keys(show.groups),
    ...Object.keys(show.palettes),
    ...Object.keys(show.effects),
    ...Object.keys(show.waves),
    ...Object.keys(show.scenery),
    ...Object.keys(show.lists),
    ...Object.values(show.lists).flatMap((l) => Object.keys(l.cues)),
    ...Object.keys(show.macros),
    ...Object.keys(show.pages),
    ...Object.keys(show.views),
  ];
  return ids.some((id) => Number(id.slice(1)) >= show.nextId) ? "its count of records is wrong" : undefined;
}

/** What the schema cannot say is wrong with a show: ids, numbers and references that do not fit together; undefined where it is whole. */
export const problemIn = (show: Show): string | undefined => {
  const many = tooMany(show);
  return many ? `it has ${many}` : (fixturesProblem(show) ?? recordsProblem(show) ?? countProblem(show));
};
