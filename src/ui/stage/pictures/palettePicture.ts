/** The small picture of a palette: what it would do to the selection. */
import type { Family } from "@/core/fixture/attribute";
import { familiesOf } from "@/core/palette/families";
import { saidBy } from "@/core/palette/lookup";
import { colourSeen } from "@/core/palette/seen";
import { resolveEntry } from "@/core/program/resolve";
import { item, paramKey, splitItem } from "@/core/show/ids";
import { allTargets, modelOf } from "@/core/show/model";
import type { Palette } from "@/core/show/paletteSchema";
import type { Fixture, Show } from "@/core/show/schema";
import { isAim } from "@/core/show/value";
import { fixturesByNumber, type World } from "@/core/show/world";
import { beamOf } from "@/core/patch/room";
import { hexOfXy } from "./hexOfXy";
import { wordsOf } from "./paletteWords";

export type Picture =
  | { kind: "colours"; colours: string[] }
  | { kind: "level"; percent: number }
  | { kind: "aims"; beams: [x: number, y: number, toX: number, toY: number][]; point: [number, number] | null }
  | { kind: "gobo"; name: string }
  | { kind: "words"; words: string[] };

/** One fixture of each type that a palette has something for: of the selected types, else of all, at most three. */
function examplesOf({ show, hands }: World, palette: Palette): Fixture[] {
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
