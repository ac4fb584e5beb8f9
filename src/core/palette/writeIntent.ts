/** Values written into a palette as it is open, and links taken out of it, nothing held: intents. */
import { z } from "../units/zod";
import { attributeInfo, withUnit } from "../fixture/attribute";
import { functionOf, rangeOf } from "../fixture/parameters";
import { defineIntent } from "../show/change/intent";
import { IdSchema, item, ParamKeySchema, splitKey } from "../show/ids";
import { exact, selText } from "../show/words/lineText";
import { itemText, specOf } from "../show/model";
import { PaletteEntrySchema } from "../show/paletteSchema";
import { fail } from "../show/refusal";
import { grouped } from "../units/grouped";
import { namedBy } from "../show/checking/links";
import { isLink, type Value } from "../show/value";
import { paletteIn, plainShow, put } from "./intents";
import { withValues } from "./keep";
import { numberText, paletteText } from "./words";
import { plural } from "../units/plural";

export const writePalette = defineIntent({
  kind: "writePalette",
  fields: { palette: IdSchema, values: z.record(ParamKeySchema, PaletteEntrySchema), type: z.boolean() },
  apply(world, { palette: id, values, type }) {
    const show = plainShow(world);
    const palette = show.palettes[id] ?? fail("that palette does not exist");
    for (const [key, { attribute, value }] of Object.entries(values)) {
      const spec = specOf(show, key) ?? fail("a fixture that was to be set is no longer patched");
      const fn = functionOf(spec, attribute) ?? fail(`${attribute} does not fit this fixture`);
      if (typeof value !== "number") continue;
      const [low, high] = rangeOf(fn);
      if (value < low - 1e-9 || value > high + 1e-9)
        fail(
          `${attributeInfo(attribute).label} ${withUnit(value, attribute)} is outside the range of fixture ${itemText(show, splitKey(key).fixture)}`,
          `It goes from ${withUnit(low, attribute)} to ${withUnit(high, attribute)}`,
        );
    }
    put(world, id, withValues(show, palette, values, type));
  },
  says: (world, { palette, values, type }) =>
    `writes ${plural(Object.keys(values).length, "value")} into ${paletteText(world, palette)}, ${type ? "for the whole type" : "for these fixtures only"}; nothing is held`,
  lines: (world, { palette, values, type }) => {
    const byAttribute = grouped(
      Object.entries(values),
      ([, e]) => `${e.attribute} ${typeof e.value === "number" ? exact(e.value) : ""}`,
    );
    return [...byAttribute].map(([, of]) => {
      const [, { attribute, value }] = of[0]!;
      const items = [...new Set(of.map(([key]) => item(splitKey(key).fixture, splitKey(key).cell)))];
      return `set ${numberText(world, palette)} ${selText(world.show, items)} ${attribute} at ${typeof value === "number" ? exact(value) : "?"}${type ? " type" : ""}`;
    });
  },
});

/** Takes out of a palette what follows another: it says nothing there from now on. */
export const dropLinks = defineIntent({
  kind: "dropLinks",
  fields: { palette: IdSchema, to: IdSchema },
  apply(world, { palette: id, to }) {
    const show = plainShow(world);
    paletteIn(world, id);
    const palette = show.palettes[id]!;
    if (!namedBy(palette).includes(to))
      fail(`nothing of ${paletteText(world, id)} follows ${paletteText(world, to)}`, "See inside it what it follows");
    const stays = (value: Value) => !isLink(value) || value.palette !== to;
    const entries = <T extends { value: Value }>(all: Record<string, T>): Record<string, T> =>
      Object.fromEntries(Object.entries(all).filter(([, entry]) => stays(entry.value)));
    put(world, id, {
      own: entries(palette.own),
      types: Object.fromEntries(
        Object.entries(palette.types).map(([type, of]) => [type, { ...of, values: entries(of.values) }]),
      ),
      any: {
        ...palette.any,
        values: Object.fromEntries(Object.entries(palette.any.values).filter(([, value]) => stays(value))),
      },
    });
  },
  says: (world, { palette, to }) =>
    `takes out of ${paletteText(world, palette)} what follows ${paletteText(world, to)}; it no longer sets those values`,
  lines: (world, { palette, to }) => [`set ${numberText(world, palette)} drop ${numberText(world, to)}`],
});
