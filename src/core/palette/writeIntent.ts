/** Values written into a palette as it is open, nothing held: an intent. */
import { z } from "../units/zod";
import { attributeInfo, withUnit } from "../fixture/attribute";
import { functionOf, rangeOf } from "../fixture/parameters";
import { defineIntent } from "../show/intent";
import { IdSchema, item, ParamKeySchema, splitKey } from "../show/ids";
import { exact, selText } from "../show/lineText";
import { itemText, specOf } from "../show/model";
import { PaletteEntrySchema } from "../show/paletteSchema";
import { fail } from "../show/refusal";
import { grouped } from "../units/grouped";
import { plainShow, put } from "./intents";
import { withValues } from "./keep";
import { numberText, paletteText, several } from "./words";

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
    `writes ${several(Object.keys(values).length, "value")} into ${paletteText(world, palette)}, ${type ? "for the whole type" : "for these fixtures only"}; nothing is held`,
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
