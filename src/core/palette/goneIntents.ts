/** Palettes that go: deleted, replaced by another everywhere, put into another. Nothing on stage is lost with them. */
import { z } from "../units/zod";
import { defineIntent, type WorldDraft } from "../show/change/intent";
import { IdSchema, paramKey, type Id, type ParamKey } from "../show/ids";
import type { Palette, PaletteEntry } from "../show/paletteSchema";
import { hasStops, isFrom, type Effect } from "../show/effectSchema";
import { linksIn, linksOf, namedBy, namedByRecord, withLinks } from "../show/checking/links";
import { emptyPlaces } from "../show/places";
import { fail } from "../show/refusal";
import type { Show } from "../show/schema";
import { isLink, isStop, type Entry, type Value } from "../show/value";
import { effectsByNumber, fixturesByNumber } from "../show/world";
import { paletteIn, plainShow, put } from "./intents";
import { hardValue, type Kept } from "./keep";
import { usesOf, usesText } from "./uses";
import { numberText, paletteText } from "./words";

/** What stands in place of a link to a palette that goes; undefined leaves nothing. */
type Instead = (key: ParamKey, attribute: string) => PaletteEntry | undefined;

const named = (value: Value | undefined, id: Id): boolean =>
  value !== undefined && isLink(value) && value.palette === id;

/** A voice of one parameter with something else in place of its links to a palette. */
function withoutLink(
  key: ParamKey,
  effect: Extract<Effect, { plays: unknown }>,
  attribute: string,
  id: Id,
  instead: Instead,
): Effect {
  const end = (palette: Id) => {
    if (palette !== id) return undefined;
    const value = instead(key, attribute)?.value;
    return typeof value === "number" || (typeof value === "object" && isLink(value)) ? value : 0;
  };
  const made = withLinks(effect.plays, end);
  const numbers = hasStops(made) && made.stops.some((s) => typeof s.value === "number");
  return { ...effect, plays: numbers && "family" in made.of ? { ...made, of: { attribute } } : made };
}

function entryWith(key: ParamKey, entry: Entry, id: Id, instead: Instead): Entry | undefined {
  const { value, effect, time } = entry;
  const made = named(value, id) ? instead(key, entry.attribute) : undefined;
  const kept = named(value, id) ? made?.value : value;
  const plays =
    effect && !isStop(effect) && !isFrom(effect) ? withoutLink(key, effect, entry.attribute, id, instead) : effect;
  if (kept === undefined && plays === undefined) return undefined;
  return {
    attribute: made?.attribute ?? entry.attribute,
    ...(kept === undefined ? {} : { value: kept }),
    ...(plays === undefined ? {} : { effect: plays }),
    ...(time === undefined ? {} : { time }),
  };
}

function relinkEntries(
  plain: Show["lists"][string]["cues"][string]["entries"],
  draft: Record<ParamKey, Entry>,
  id: Id,
  instead: Instead,
) {
  if (!linksIn(plain).has(id)) return;
  for (const [key, entry] of Object.entries(plain)) {
    if (!linksOf(entry).includes(id)) continue;
    const made = entryWith(key, entry, id, instead);
    if (made) draft[key] = made;
    else delete draft[key];
  }
}

function relinkPalette(show: Show, palette: Palette, id: Id, instead: Instead): Kept {
  const fixtures = fixturesByNumber(show);
  const own: Palette["own"] = {};
  for (const [key, entry] of Object.entries(palette.own)) {
    const made = named(entry.value, id) ? instead(key, entry.attribute) : entry;
    if (made) own[key] = made;
  }
  const types: Palette["types"] = {};
  for (const [type, of] of Object.entries(palette.types)) {
    const like = of.reference ?? fixtures.find((f) => f.type === type)?.id;
    const values: Record<string, PaletteEntry> = {};
    for (const [place, entry] of Object.entries(of.values)) {
      const made = named(entry.value, id) ? like && instead(`${like}.${place}`, entry.attribute) : entry;
      if (made) values[place] = made;
    }
    types[type] = { ...of, values };
  }
  const values: Palette["any"]["values"] = {};
  for (const [attribute, value] of Object.entries(palette.any.values)) {
    const made = named(value, id)
      ? (show.palettes[id]?.any.values[attribute] ??
        fixtures.flatMap((f) => instead(paramKey(f.id, 0, attribute), attribute)?.value ?? [])[0])
      : value;
    if (made !== undefined) values[attribute] = made;
  }
  return { own, types, any: { ...palette.any, values } };
}

/** Puts something else in place of every link to a palette. */
function relink(world: WorldDraft, show: Show, held: Record<ParamKey, Entry>, id: Id, instead: Instead): void {
  for (const list of Object.values(show.lists))
    for (const cue of Object.values(list.cues))
      relinkEntries(cue.entries, world.show.lists[list.id]!.cues[cue.id]!.entries, id, instead);
  relinkEntries(held, world.hands.held, id, instead);
  for (const palette of Object.values(show.palettes))
    if (palette.id !== id && namedBy(palette).includes(id))
      put(world, palette.id, relinkPalette(show, palette, id, instead));
}

/** Deletes a palette; whoever used it keeps its values as numbers. */
export const deletePalette = defineIntent({
  kind: "deletePalette",
  fields: { palette: IdSchema },
  apply(world, { palette: id }) {
    paletteIn(world, id);
    const show = plainShow(world);
    const played = effectsByNumber(show).filter((effect) => namedByRecord(effect).includes(id));
    if (played.length > 0)
      fail(
        `${paletteText({ show }, id)} is played by effect ${played.map((e) => e.number).join(", ")}`,
        "Put another in its place with: replace palette ... by ...",
      );
    relink(world, show, { ...world.hands.held }, id, (key) => hardValue(show, id, key));
    delete world.show.palettes[id];
    emptyPlaces(world, "palette", id);
  },
  says(world, { palette }) {
    const uses = usesText(usesOf(world, palette));
    return `deletes ${paletteText(world, palette)}${uses ? `; it is used ${uses}: users keep plain values` : ", which nothing uses"}`;
  },
  lines: (world, { palette }) => [`delete ${numberText(world, palette)}`],
});

/** Every link to one palette leads to another from now on. */
export const replacePalette = defineIntent({
  kind: "replacePalette",
  fields: { palette: IdSchema, by: IdSchema, merge: z.boolean() },
  apply(world, { palette: id, by, merge }) {
    const palette = paletteIn(world, id);
    paletteIn(world, by);
    if (id === by) fail("a palette cannot take its own place", "Name two palettes");
    const show = plainShow(world);
    if (merge) {
      const [from, to] = [show.palettes[id]!, show.palettes[by]!];
      const types = { ...to.types };
      for (const [type, of] of Object.entries(from.types))
        types[type] = {
          reference: types[type]?.reference ?? of.reference,
          values: { ...of.values, ...types[type]?.values },
        };
      put(world, by, {
        own: { ...from.own, ...to.own },
        types,
        any: { values: { ...from.any.values, ...to.any.values }, colour: to.any.colour ?? from.any.colour },
      });
    }
    const after = plainShow(world);
    relink(world, after, { ...world.hands.held }, id, (_, attribute) => ({
      attribute,
      value: { palette: by },
    }));
    for (const effect of Object.values(after.effects))
      if (namedByRecord(effect).includes(id))
        world.show.effects[effect.id]!.voices = effect.voices.map((v) => ({
          ...v,
          voice: withLinks(v.voice, (palette) => (palette === id ? { palette: by } : undefined)),
        }));
    if (merge) delete world.show.palettes[palette.id];
  },
  says(world, { palette, by, merge }) {
    const uses = usesText(usesOf(world, palette)) || "nowhere yet";
    return merge
      ? `puts ${paletteText(world, palette)} into ${paletteText(world, by)}, which keeps what both have; used ${uses}, it is followed by the other`
      : `puts ${paletteText(world, by)} in place of ${paletteText(world, palette)} wherever it is used: ${uses}`;
  },
  lines: (world, { palette, by, merge }) => [
    merge
      ? `merge ${numberText(world, palette)} into ${world.show.palettes[by]?.number ?? "?"}`
      : `replace ${numberText(world, palette)} by ${world.show.palettes[by]?.number ?? "?"}`,
  ],
});

/** Gives the numbers of palettes out anew among them, in the order given. */
export const orderPalettes = defineIntent({
  kind: "orderPalettes",
  fields: { palettes: z.array(IdSchema).min(2).max(10_000) },
  apply(world, { palettes }) {
    if (new Set(palettes).size < palettes.length) fail("a palette is named twice in that order", "Name each once");
    const numbers = palettes.map((id) => paletteIn(world, id).number).sort((a, b) => a - b);
    palettes.forEach((id, k) => (paletteIn(world, id).number = numbers[k]!));
  },
  says: (_, { palettes }) => `renumbers ${palettes.length} palettes in that order`,
  lines: ({ show }, { palettes }) => [
    `order palettes ${palettes.map((id) => show.palettes[id]?.number ?? "?").join(" ")}`,
  ],
});

/** Puts tiles into an order of their own; numbers stay. */
export const shelvePalettes = defineIntent({
  kind: "shelvePalettes",
  fields: { palettes: z.array(IdSchema).min(2).max(10_000) },
  apply(world, { palettes }) {
    if (new Set(palettes).size < palettes.length) fail("a palette is named twice in that order", "Name each once");
    palettes.forEach((id, k) => (paletteIn(world, id).shelf = k + 1));
  },
  says: (_, { palettes }) => `puts ${palettes.length} palettes into that order on the shelf; their numbers stay`,
  lines: ({ show }, { palettes }) => [
    `shelve palettes ${palettes.map((id) => show.palettes[id]?.number ?? "?").join(" ")}`,
  ],
});
