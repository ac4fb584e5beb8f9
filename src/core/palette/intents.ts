/** Palettes, as intents. */
import { current, isDraft } from "immer";
import { z } from "../units/zod";
import { attributeInfo, FAMILIES, familyWord } from "../fixture/attribute";
import { defineIntent, newId, type WorldDraft } from "../show/change/intent";
import { IdSchema, ItemSchema, splitItem, splitKey, type Id, type ParamKey } from "../show/ids";
import { itemsText } from "../show/words/itemsText";
import { quote, selText } from "../show/words/lineText";
import { itemText } from "../show/model";
import { WIDTHS, type Palette } from "../show/paletteSchema";
import { namedBy } from "../show/checking/links";
import { fail } from "../show/refusal";
import { wholeNumber, type Show } from "../show/schema";
import { EntriesSchema, isLink, type Entry } from "../show/value";
import { paletteNumbered, type World } from "../show/world";
import { grouped } from "../units/grouped";
import { familiesOf } from "./families";
import {
  atWidth,
  foldable,
  keepable,
  keptAt,
  mergedKept,
  nothingKept,
  referredTo,
  saidKeys,
  withValues,
  type Kept,
} from "./keep";
import { followedFor, writtenFor } from "./lookup";
import { specOf } from "../show/model";
import { roundTrip, usesOf, usesText } from "./uses";
import { countsText, keptText, numberText, paletteText, wideText } from "./words";
import { plural } from "../units/plural";

const family = z.enum(FAMILIES);
const families = z.array(family).max(FAMILIES.length);
/** The show of a draft as the plain record it stands for. */
export function plainShow(world: WorldDraft): Show {
  const show: Show = world.show;
  return isDraft(show) ? current(show) : show;
}

/** A palette of a draft; ends with `fail` where it is gone. */
export const paletteIn = (world: WorldDraft, id: Id): Palette =>
  world.show.palettes[id] ?? fail("that palette does not exist");
/** Puts what is kept into a palette that is there, unless its links would go round. */
export function put(world: WorldDraft, id: Id, kept: Kept): void {
  const palette = paletteIn(world, id);
  const show = plainShow(world);
  const names = namedBy({ ...show.palettes[id]!, ...kept });
  const round = roundTrip(show.palettes, id, names);
  if (round)
    fail(
      `its links would go round: ${round.map((r) => paletteText({ show }, r)).join(", ")}`,
      "Record the values themselves, or another palette",
    );
  Object.assign(palette, kept);
}

/** Records values as a palette; onto one that exists it merges unless told to overwrite. */
export const recordPalette = defineIntent({
  kind: "recordPalette",
  fields: {
    number: wholeNumber,
    name: z.string().max(200).optional(),
    width: z.enum(WIDTHS).optional(),
    entries: EntriesSchema,
    /** What was asked for: these families alone, all of them where something is held, all of them anyway. */
    only: families.optional(),
    whole: families.optional(),
    along: families.optional(),
    offShelf: z.boolean().optional(),
    onto: z.enum(["merge", "overwrite"]).optional(),
  },
  apply(world, { number, name, width, entries, offShelf, onto }) {
    const show = plainShow(world);
    const kept = Object.keys(keepable(entries));
    if (kept.length === 0)
      fail("there is nothing a palette can keep", "Set a value first; releases and effects are not kept in palettes");
    const old = paletteNumbered(show, number);
    const id = old?.id ?? newId(world, "p");
    const wide = width ?? old?.width ?? "type";
    if (!old)
      world.show.palettes[id] = { id, number, name: name ?? `Palette ${number}`, width: wide, ...nothingKept() };
    const palette = paletteIn(world, id);
    palette.width = wide;
    if (name !== undefined) palette.name = name;
    if (offShelf) palette.offShelf = true;
    const made = keptAt(show, entries, wide);
    put(world, id, old && onto !== "overwrite" ? mergedKept(old, made, kept) : made);
  },
  says(world, { number, name, width, entries, onto }) {
    const old = paletteNumbered(world.show, number);
    const label = `palette ${number}${(name ?? old?.name) ? ` "${name ?? old?.name}"` : ""}`;
    const how = !old ? "records" : onto === "overwrite" ? "overwrites" : "merges into";
    const of = wideText[width ?? old?.width ?? "type"];
    return `${how} ${label}, ${of}: ${keptText(world, entries)}`;
  },
  lines: (_, { number, name, width, only, whole, along, onto, offShelf }) => [
    [
      `record palette ${number}`,
      name !== undefined && quote(name),
      width,
      ...[["only", only] as const, ["whole", whole] as const, ["with", along] as const].map(
        ([word, of]) => of && of.length > 0 && `${word} ${of.map(familyWord).join(" ")}`,
      ),
      offShelf && "off shelf",
      onto,
    ]
      .filter(Boolean)
      .join(" "),
  ],
});

/** The held values an update would write: of the palette's families, and no link to itself. */
export function updating({ hands }: Pick<World, "hands">, palette: Palette): Record<ParamKey, Entry> {
  const own = new Set(familiesOf(palette));
  return Object.fromEntries(
    Object.entries(hands.held).filter(
      ([key, { attribute, value }]) =>
        !hands.keptOut[key] &&
        value !== undefined &&
        own.has(attributeInfo(attribute).family) &&
        !(isLink(value) && value.palette === palette.id),
    ),
  );
}

/** Writes held values into a palette: as exceptions of just those fixtures, or as what their types follow. */
export const updatePalette = defineIntent({
  kind: "updatePalette",
  fields: { palette: IdSchema, type: z.boolean() },
  apply(world, { palette: id, type }) {
    const show = plainShow(world);
    const palette = show.palettes[id] ?? fail("that palette does not exist");
    const values = keepable(updating({ hands: world.hands }, palette));
    const keys = Object.keys(values);
    if (keys.length === 0)
      fail(
        `nothing is held of what ${paletteText({ show }, id)} is about: ${familiesOf(palette).join(", ").toLowerCase() || "nothing yet"}`,
        "Set a value of these families first",
      );
    put(world, id, withValues(show, palette, values, type));
  },
  says(world, { palette: id, type }) {
    const palette = world.show.palettes[id];
    const values = palette ? updating(world, palette) : {};
    const uses = usesText({ ...usesOf(world, id), held: 0 });
    return `writes ${plural(Object.keys(values).length, "held value")} into ${paletteText(world, id)}, ${
      type ? "for the whole type" : "for these fixtures only"
    }${uses ? `; it is used ${uses}` : ""}`;
  },
  lines: (world, { palette, type }) => [`update ${numberText(world, palette)}${type ? " type" : ""}`],
});

export const setPalette = defineIntent({
  kind: "setPalette",
  fields: {
    palette: IdSchema,
    name: z.string().max(200).optional(),
    number: wholeNumber.optional(),
    colour: z
      .string()
      .regex(/^#[0-9a-f]{6}$/)
      .nullable()
      .optional(),
    shelf: z.boolean().optional(),
  },
  apply(world, { palette: id, name, number, colour, shelf }) {
    const palette = paletteIn(world, id);
    if (number !== undefined && number !== palette.number && paletteNumbered(world.show, number))
      fail(`palette ${number} exists already`, "Choose a number that is free");
    if (name !== undefined) palette.name = name;
    if (number !== undefined) palette.number = number;
    if (colour === null) delete palette.colour;
    else if (colour !== undefined) palette.colour = colour;
    if (shelf === true) delete palette.offShelf;
    if (shelf === false) palette.offShelf = true;
  },
  says: (world, { palette, name, number, colour, shelf }) =>
    `${paletteText(world, palette)}: ${[
      name !== undefined && `name "${name}"`,
      number !== undefined && `number ${number}`,
      colour !== undefined && (colour === null ? "no colour" : `colour ${colour}`),
      shelf !== undefined && (shelf ? "on the shelf" : "kept without a tile"),
    ]
      .filter(Boolean)
      .join(", ")}`,
  lines: (world, { palette, name, number, colour, shelf }) =>
    [
      name !== undefined && `name ${quote(name)}`,
      colour !== undefined && `colour ${colour ?? "off"}`,
      shelf !== undefined && `shelf ${shelf ? "on" : "off"}`,
      number !== undefined && `number ${number}`,
    ]
      .filter((text) => text !== false)
      .map((text) => `set ${numberText(world, palette)} ${text}`),
});

/** Another fixture as the one its type follows; what every fixture gets stays as it is. */
export const referPalette = defineIntent({
  kind: "referPalette",
  fields: { palette: IdSchema, fixture: IdSchema },
  apply(world, { palette: id, fixture }) {
    const show = plainShow(world);
    const palette = show.palettes[id] ?? fail("that palette does not exist");
    const reference = show.fixtures[fixture] ?? fail("that fixture does not exist");
    if (saidKeys(show, palette, [fixture]).length === 0)
      fail(
        `${paletteText({ show }, id)} has no values for fixture ${reference.number}`,
        "Choose a fixture it has values for",
      );
    put(world, id, referredTo(show, palette, reference));
  },
  says: (world, { palette, fixture }) =>
    `${paletteText(world, palette)}: its type follows fixture ${itemText(world.show, fixture)} from now on; what each gets stays`,
  lines: (world, { palette, fixture }) => [
    `set ${numberText(world, palette)} reference ${itemText(world.show, fixture)}`,
  ],
});

/** Makes exceptions of what fixtures follow, or lets them follow again. */
export const exceptPalette = defineIntent({
  kind: "exceptPalette",
  fields: { palette: IdSchema, items: z.array(ItemSchema).max(20_000), own: z.boolean() },
  apply(world, { palette: id, items, own }) {
    const show = plainShow(world);
    const palette = show.palettes[id] ?? fail("that palette does not exist");
    const next = { ...palette.own };
    let changed = 0;
    for (const key of keysOf(show, palette, items)) {
      const spec = specOf(show, key)!;
      if (own && !palette.own[key]) {
        const { attribute, value } = writtenFor(show, palette, key)!;
        next[key] = { attribute, value };
        changed += 1;
      } else if (!own && palette.own[key] && followedFor(show, palette, key, spec)) {
        delete next[key];
        changed += 1;
      }
    }
    if (changed === 0)
      fail(
        own
          ? `these fixtures follow nothing in ${paletteText({ show }, id)}`
          : `these fixtures have no exceptions in ${paletteText({ show }, id)} that follow something else`,
        own ? "Record it for their type first" : "Only what is wider than one fixture can be followed",
      );
    put(world, id, { own: next, types: palette.types, any: palette.any });
  },
  says: (world, { palette, items, own }) =>
    `${paletteText(world, palette)}: ${itemsText(world, items)} ${own ? "keep what they follow now as their own" : "follow again"}`,
  lines: (world, { palette, items, own }) => [
    `set ${numberText(world, palette)} ${own ? "own" : "follow"} ${selText(world.show, items)}`,
  ],
});

function keysOf(show: Show, palette: Palette, items: readonly string[]): ParamKey[] {
  const byFixture = grouped(items, (i) => splitItem(i).fixture);
  return saidKeys(show, palette, byFixture.keys()).filter((key) => {
    const { fixture, cell } = splitKey(key);
    return byFixture.get(fixture)!.some((i) => splitItem(i).cell === 0 || splitItem(i).cell === cell);
  });
}

/** Removes the exceptions that say what would be followed anyway. */
export const foldPalette = defineIntent({
  kind: "foldPalette",
  fields: { palette: IdSchema },
  apply(world, { palette: id }) {
    const show = plainShow(world);
    const palette = paletteIn(world, id);
    for (const key of foldable(show, show.palettes[id]!)) delete palette.own[key];
  },
  says: (world, { palette }) => {
    const found = world.show.palettes[palette];
    const n = found ? foldable(world.show, found).length : 0;
    return `${paletteText(world, palette)}: folds in ${plural(n, "exception")} equal to what they would follow`;
  },
  lines: (world, { palette }) => [`set ${numberText(world, palette)} fold in`],
});

/** Another width; what it says of every patched fixture stays. */
export const widenPalette = defineIntent({
  kind: "widenPalette",
  fields: { palette: IdSchema, width: z.enum(WIDTHS) },
  apply(world, { palette: id, width }) {
    const show = plainShow(world);
    const palette = paletteIn(world, id);
    put(world, id, atWidth(show, show.palettes[id]!, width));
    palette.width = width;
  },
  says: (world, { palette, width }) => {
    const found = world.show.palettes[palette];
    const counts = found
      ? `${countsText(found)} becomes ${countsText({ ...found, ...atWidth(world.show, found, width) })}`
      : "";
    return `${paletteText(world, palette)} ${wideText[width]}: ${counts}; what each fixture gets stays`;
  },
  lines: (world, { palette, width }) => [`set ${numberText(world, palette)} width ${width}`],
});
