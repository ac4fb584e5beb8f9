/** The show and the hands together: what intents act on. */
import { isDraft } from "immer";
import { namesIn } from "../units/names";
import { NO_SPREAD, type Hands } from "./hands";
import { NEW_TIMECODE, type Macro, type Page, type View } from "./deckSchema";
import type { EffectRecord, OwnWave } from "./effectSchema";
import type { Palette } from "./paletteSchema";
import {
  SHOW_FORMAT,
  SHOW_VERSION,
  type Cue,
  type CueList,
  type Fixture,
  type Group,
  type Show,
  type Wire,
} from "./schema";

export interface World {
  readonly show: Show;
  readonly hands: Hands;
}

/** An empty list of cues with the usual options. */
export const newList = (id: string, number: number, name = number === 1 ? "Main" : `List ${number}`): CueList => ({
  id,
  number,
  name,
  kind: "list",
  htp: false,
  letGo: false,
  bowOut: false,
  resume: false,
  priority: 0,
  backTime: 2,
  releaseTime: 2,
  end: "stop",
  wrapDrop: true,
  blackMoves: true,
  blackTime: 3,
  ready: false,
  cues: {},
});

export const NEW_WIRE: Wire = { source: "Bold Comet", from: "", lost: "hold" };

/** A new, empty show: list 1, armed. */
export function newShow(name: string, seed = 1): Show {
  const main = newList("l1", 1);
  return {
    format: SHOW_FORMAT,
    version: SHOW_VERSION,
    name,
    nextId: 2,
    seed,
    types: {},
    fixtures: {},
    outputs: {},
    wire: NEW_WIRE,
    scenery: {},
    groups: {},
    palettes: {},
    effects: {},
    waves: {},
    lists: { [main.id]: main },
    macros: {},
    pages: {},
    views: {},
    timecode: NEW_TIMECODE,
  };
}

/** Hands that hold and have selected nothing, with the show's first list armed. */
export const newHands = (show: Show): Hands => ({
  selection: [],
  stepping: null,
  last: [],
  spread: NO_SPREAD,
  held: {},
  keptOut: {},
  cameFrom: {},
  over: null,
  armed: listsByNumber(show)[0]?.id ?? "",
  alsoArmed: [],
  blind: false,
  highlight: false,
  identified: [],
  parked: {},
});

/** An empty show with list 1 and the hands for it. */
export function newWorld(name = "New show"): World {
  const show = newShow(name);
  return { show, hands: newHands(show) };
}

/** Derives something from a record of the show once for each version of it. */
function memo<K extends object, V>(make: (key: K) => V): (key: K) => V {
  const cache = new WeakMap<K, V>();
  return (key) => {
    const known = cache.get(key);
    if (known !== undefined) return known;
    const made = make(key);
    cache.set(key, made);
    return made;
  };
}

const sorted = <T extends { number: number }>(records: Record<string, T>): readonly T[] =>
  Object.values(records).sort((a, b) => a.number - b.number);

const sortFixtures = memo((fixtures: Show["fixtures"]) => sorted<Fixture>(fixtures));
const numberFixtures = memo((fixtures: Show["fixtures"]) => new Map(Object.values(fixtures).map((f) => [f.number, f])));
const sortGroups = memo((groups: Show["groups"]) => sorted<Group>(groups));
const sortPalettes = memo((palettes: Show["palettes"]) => sorted<Palette>(palettes));
const sortEffects = memo((effects: Show["effects"]) => sorted<EffectRecord>(effects));
const sortWaves = memo((waves: Show["waves"]) => sorted<OwnWave>(waves));
const sortMacros = memo((macros: Show["macros"]) => sorted<Macro>(macros));
const sortPages = memo((pages: Show["pages"]) => sorted<Page>(pages));
const sortViews = memo((views: Show["views"]) => sorted<View>(views));
const sortLists = memo((lists: Show["lists"]) => sorted<CueList>(lists));
const orders = new WeakMap<CueList["cues"], readonly Cue[]>();
/** The order last worked out of each list: most versions of thousands of cues only differ in one. */
const lastOrder = new Map<string, readonly Cue[]>();

/** The cues in an order that was theirs before; undefined where it is not any more. */
function inOrder(before: readonly Cue[] | undefined, cues: CueList["cues"]): readonly Cue[] | undefined {
  if (before?.length !== namesIn(cues).length) return undefined;
  const made: Cue[] = [];
  for (const { id, number } of before) {
    const cue = cues[id];
    if (cue?.number !== number) return undefined;
    made.push(cue);
  }
  return made;
}

/** All fixtures in the order of their numbers. */
export const fixturesByNumber = (show: Show): readonly Fixture[] => sortFixtures(show.fixtures);
/** The fixture of that number; undefined where there is none. */
export const fixtureNumbered = (show: Show, number: number): Fixture | undefined =>
  numberFixtures(show.fixtures).get(number);
/** All groups in the order of their numbers. */
export const groupsByNumber = (show: Pick<Show, "groups">): readonly Group[] => sortGroups(show.groups);
/** All lists in the order of their numbers. */
export const listsByNumber = (show: Show): readonly CueList[] => sortLists(show.lists);
/** The cues of a list in their order. */
export function cuesOf({ id, cues }: CueList): readonly Cue[] {
  const known = orders.get(cues);
  if (known) return known;
  const made = inOrder(lastOrder.get(id), cues) ?? sorted<Cue>(cues);
  // Drafts may change between one asking and the next, and are gone after.
  if (isDraft(cues) || made.some(isDraft)) return made;
  orders.set(cues, made);
  lastOrder.set(id, made);
  return made;
}
/** The list of that number; undefined where there is none. */
export const listNumbered = (show: Show, number: number): CueList | undefined =>
  listsByNumber(show).find((list) => list.number === number);
/** The group of that number; undefined where there is none. */
export const groupNumbered = (show: Show, number: number): Group | undefined =>
  groupsByNumber(show).find((group) => group.number === number);

/** All palettes in the order of their numbers. */
export const palettesByNumber = (show: Show): readonly Palette[] => sortPalettes(show.palettes);
/** The palette of that number; undefined where there is none. */
export const paletteNumbered = (show: Show, number: number): Palette | undefined =>
  palettesByNumber(show).find((palette) => palette.number === number);

/** All effects in the order of their numbers. */
export const effectsByNumber = (show: Pick<Show, "effects">): readonly EffectRecord[] => sortEffects(show.effects);
/** The effect of that number; undefined where there is none. */
export const effectNumbered = (show: Pick<Show, "effects">, number: number): EffectRecord | undefined =>
  effectsByNumber(show).find((effect) => effect.number === number);
/** All waves of the show's own in the order of their numbers. */
export const wavesByNumber = (show: Pick<Show, "waves">): readonly OwnWave[] => sortWaves(show.waves);

/** All macros in the order of their numbers. */
export const macrosByNumber = (show: Pick<Show, "macros">): readonly Macro[] => sortMacros(show.macros);
/** All pages in the order of their numbers. */
export const pagesByNumber = (show: Pick<Show, "pages">): readonly Page[] => sortPages(show.pages);
/** All views in the order of their numbers. */
export const viewsByNumber = (show: Pick<Show, "views">): readonly View[] => sortViews(show.views);

/** Cue numbers have three places: 1.10 equals 1.1. */
export const sameCueNumber = (a: number, b: number): boolean => Math.abs(a - b) < 0.0005;
/** The cue of that number, to 3 decimals; undefined where there is none. */
export const cueNumbered = (list: CueList, number: number): Cue | undefined =>
  cuesOf(list).find((cue) => sameCueNumber(cue.number, number));
