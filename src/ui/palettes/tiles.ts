/** What the tiles of the shelf show: what each palette would do to the selection. */
import { converter, formatHex } from "culori";
import { FAMILIES, type Family } from "@/core/fixture/attribute";
import { familiesOf } from "@/core/palette/families";
import { askerOf, saidBy } from "@/core/palette/lookup";
import { colourSeen } from "@/core/palette/seen";
import { resolveEntry } from "@/core/program/resolve";
import { item, paramKey, splitItem, type Item, type ParamKey } from "@/core/show/ids";
import { linksIn } from "@/core/show/links";
import { own } from "@/core/show/own";
import { allTargets, modelOf } from "@/core/show/model";
import type { Palette } from "@/core/show/paletteSchema";
import type { Fixture, Show } from "@/core/show/schema";
import { isAim, isLink } from "@/core/show/value";
import { fixturesByNumber, palettesByNumber, type World } from "@/core/show/world";
import { beamOf } from "@/core/patch/room";
import { wordsOf } from "./says";

export const TABS = [...FAMILIES.filter((f) => f !== "Shapers" && f !== "Control"), "Control", "Mixed"] as const;
export type Tab = (typeof TABS)[number];

/** The tab a palette lies on: its family, or Mixed where it has several. */
export function tabOf(palette: Palette): Tab {
  const own = familiesOf(palette);
  if (own.length !== 1) return "Mixed";
  return own[0] === "Shapers" ? "Beam" : (own[0] as Tab);
}

/** The palettes of a tab, by number; in all tabs where something is searched for. */
export function palettesOn(show: Show, tab: Tab, search: string): Palette[] {
  const words = search.toLowerCase().split(/\s+/).filter(Boolean);
  const all = palettesByNumber(show);
  if (words.length > 0) return all.filter((p) => words.every((w) => `${p.number} ${p.name}`.toLowerCase().includes(w)));
  return inOrder(all.filter((p) => !p.offShelf && tabOf(p) === tab));
}

/** Those of a tab that have no tile. */
export const offShelf = (show: Show, tab: Tab): Palette[] =>
  palettesByNumber(show).filter((p) => p.offShelf && tabOf(p) === tab);

/** As hands have put them; what came since lies behind, by number. */
const inOrder = (palettes: readonly Palette[]): Palette[] =>
  [...palettes].sort((a, b) => (a.shelf ?? Infinity) - (b.shelf ?? Infinity) || a.number - b.number);

export type Picture =
  | { kind: "colours"; colours: string[] }
  | { kind: "level"; percent: number }
  | { kind: "aims"; beams: [x: number, y: number, toX: number, toY: number][]; point: [number, number] | null }
  | { kind: "gobo"; name: string }
  | { kind: "words"; words: string[] };

export interface TileState {
  /** How many of the selected fixtures it has something for. */
  has: number;
  of: number;
  /** All the selected it has something for hold it. */
  stands: boolean;
}

const MOST_ASKED = 400;

/** For how many of the items a palette has something, and which parameters that is. */
export interface Reach {
  has: number;
  of: number;
  keys: readonly ParamKey[];
}

export function reachOf(show: Show, selection: readonly Item[], palette: Palette): Reach {
  const items = selection.slice(0, MOST_ASKED);
  const saidOf = askerOf(show, palette.id);
  const keys: ParamKey[] = [];
  let has = 0;
  for (const i of items) {
    const before = keys.length;
    for (const { key, spec } of allTargets(show, i)) if (saidOf(key, spec)) keys.push(key);
    if (keys.length > before) has += 1;
  }
  return { has, of: items.length, keys };
}

/** How a palette stands to what is held. */
export function stateOf(held: World["hands"]["held"], palette: Palette, { has, of, keys }: Reach): TileState {
  const links = linksIn(held).get(palette.id) ?? 0;
  const stands =
    has > 0 &&
    links >= keys.length &&
    keys.every((key) => {
      const value = own(held, key)?.value;
      return typeof value === "object" && isLink(value) && value.palette === palette.id;
    });
  return { has, of, stands };
}

/** One fixture of each type that a palette has something for: of the selected types, else of all, at most three. */
export function examplesOf({ show, hands }: World, palette: Palette): Fixture[] {
  const says = (f: Fixture) => allTargets(show, f.id).some(({ key }) => saidBy(show, palette.id, key));
  const pick = (fixtures: Iterable<Fixture>): Fixture[] => {
    const found = new Map<string, Fixture>();
    for (const f of fixtures) {
      if (found.size >= 3) break;
      if (!found.has(f.type) && says(f)) found.set(f.type, f);
    }
    return [...found.values()];
  };
  const chosen = new Set(hands.selection.map((i) => splitItem(i).fixture));
  const own = pick([...chosen].flatMap((id) => show.fixtures[id] ?? []));
  return own.length > 0 ? own : pick(fixturesByNumber(show));
}

const toRgb = converter("rgb");

/** A chromaticity as it looks on a screen, as bright as it gets there. */
export function hexOfXy([x, y]: readonly [number, number], level: number): string {
  const { r, g, b } = toRgb({ mode: "xyz65", x: x / y, y: 1, z: (1 - x - y) / y });
  const most = Math.max(r, g, b, 1e-6);
  const lift = (v: number) => Math.min(1, Math.max(0, v / most)) * (0.25 + 0.75 * level);
  return formatHex({ mode: "rgb", r: lift(r), g: lift(g), b: lift(b) });
}

/** What a palette gives a parameter of a fixture, as a number of the function it is for. */
function given(show: Show, palette: Palette, fixture: Fixture, attribute: string): number | undefined {
  for (const { key, spec } of allTargets(show, item(fixture.id))) {
    const means = resolveEntry(show, key, spec, { attribute: spec.head, value: { palette: palette.id } });
    if (means && spec.functions[means.fn]!.attribute === attribute) return means.value;
  }
  return undefined;
}

/** The picture of a palette, for the selection. */
export function pictureOf(world: World, palette: Palette): Picture {
  const { show } = world;
  const examples = examplesOf(world, palette);
  const families = new Set<Family>(familiesOf(palette));
  const [first] = examples;
  if (!first) return { kind: "words", words: [...families].map((f) => f.toLowerCase()) };
  if (families.has("Colour")) {
    const colours = examples.flatMap((f) => {
      const seen = colourSeen(modelOf(show, f).specs, (spec) => {
        const key = paramKey(f.id, spec.cell, spec.head);
        const means = resolveEntry(show, key, spec, { attribute: spec.head, value: { palette: palette.id } });
        return means
          ? { attribute: spec.functions[means.fn]!.attribute, value: means.value }
          : { attribute: spec.head, value: spec.default };
      });
      return seen ? [hexOfXy(seen.xy, seen.level)] : [];
    });
    if (colours.length > 0) return { kind: "colours", colours };
  }
  if (families.has("Position")) return aims(world, palette);
  if (families.size === 1 && families.has("Intensity")) {
    const level = given(show, palette, first, "Dimmer");
    if (level !== undefined) return { kind: "level", percent: level };
  }
  const slot = families.has("Gobo") ? given(show, palette, first, "Gobo1") : undefined;
  if (slot !== undefined) {
    const steps = allTargets(show, first.id).find((t) => t.attribute === "Gobo1")?.fn.steps ?? [];
    const name = steps.find((s) => s.value === Math.round(slot))?.name;
    if (name) return { kind: "gobo", name };
  }
  return { kind: "words", words: wordsOf(show, palette, first) };
}

const REACH = 8;
const MOST_BEAMS = 16;

/** Beams on the plan, from where each hangs to where it meets the floor. */
function aims(world: World, palette: Palette): Picture {
  const { show, hands } = world;
  const chosen = hands.selection.map((i) => splitItem(i).fixture).flatMap((id) => show.fixtures[id] ?? []);
  const beamsOf = (fixtures: readonly Fixture[]) =>
    fixtures.slice(0, 200).flatMap((f): [number, number, number, number][] => {
      const [pan, tilt] = [given(show, palette, f, "Pan"), given(show, palette, f, "Tilt")];
      if (pan === undefined || tilt === undefined) return [];
      const [dx, dy, dz] = beamOf(f, pan, tilt);
      const along = dz < -0.05 ? Math.min(REACH, f.place.z / -dz) : REACH;
      return [[f.place.x, f.place.y, f.place.x + dx * along, f.place.y + dy * along]];
    });
  const own = beamsOf(chosen);
  const all = own.length > 0 ? own : beamsOf(fixturesByNumber(show));
  const step = Math.max(1, Math.ceil(all.length / MOST_BEAMS));
  const value = palette.any.values.Pan;
  return {
    kind: "aims",
    beams: all.filter((_, k) => k % step === 0),
    point: typeof value === "object" && isAim(value) ? [value.aim[0], value.aim[1]] : null,
  };
}

/** A short word on the selected items a palette leaves out. */
export const lacksText = ({ has, of }: TileState): string =>
  of === 0 || has === of ? "" : has === 0 ? "nothing for these" : `${has} of ${of}`;
