/** Holding values in the programmer, as intents. */
import { z } from "../units/zod";
import { attributeInfo, FAMILIES, withUnit } from "../fixture/attribute";
import { specOf } from "../show/model";
import { functionOf, rangeOf } from "../fixture/parameters";
import { defineIntent } from "../show/intent";
import { fail } from "../show/refusal";
import { IdSchema, ParamKeySchema, splitKey } from "../show/ids";
import { EntrySchema } from "../show/value";
import type { World } from "../show/world";
import { listText, onOff, selText } from "../show/lineText";
import { holdLines, itemsOfKeys, keysLines } from "./holdLines";
import { NO_SPREAD } from "../show/hands";

/** Holds values; each replaces what is held of the same parameter. */
export const hold = defineIntent({
  kind: "hold",
  fields: { values: z.record(ParamKeySchema, EntrySchema), says: z.string().optional() },
  apply(world, { values }) {
    for (const [key, entry] of Object.entries(values)) {
      const spec = specOf(world.show, key) ?? fail("a fixture that was to be set is no longer patched");
      const fn = functionOf(spec, entry.attribute) ?? fail(`${entry.attribute} does not fit this fixture`);
      if (typeof entry.value === "number") {
        const [low, high] = rangeOf(fn);
        if (entry.value < low - 1e-9 || entry.value > high + 1e-9) {
          const number = world.show.fixtures[splitKey(key).fixture]!.number;
          fail(
            `${attributeInfo(entry.attribute).label} ${withUnit(entry.value, entry.attribute)} is outside the range of fixture ${number}`,
            `It goes from ${withUnit(low, entry.attribute)} to ${withUnit(high, entry.attribute)}`,
          );
        }
      }
      world.hands.held[key] = entry;
    }
  },
  says: (_, { values, says }) => says ?? `holds ${Object.keys(values).length} values`,
  lines: (world, { values }) => holdLines(world, values),
});

/** Lets go of held parameters. */
export const drop = defineIntent({
  kind: "drop",
  fields: { keys: z.array(ParamKeySchema) },
  apply(world, { keys }) {
    for (const key of keys) delete world.hands.held[key];
  },
  says: (_, { keys }) => `lets go of ${keys.length} held values`,
  lines: (world, { keys }) => keysLines(world, keys, "drop"),
});

/** Lets go of everything held and of the selection. */
export const clear = defineIntent({
  kind: "clear",
  fields: {},
  apply(world) {
    if (world.hands.selection.length > 0) world.hands.last = world.hands.stepping?.whole ?? world.hands.selection;
    world.hands.selection = [];
    world.hands.stepping = null;
    world.hands.spread = NO_SPREAD;
    world.hands.held = {};
  },
  says: ({ hands }) => {
    const n = Object.keys(hands.held).length;
    return n === 0
      ? "nothing is held; drops the selection"
      : `lets go of ${n} held ${n === 1 ? "value" : "values"} and of the selection`;
  },
  lines: () => ["clear"],
});

export const setBlind = defineIntent({
  kind: "blind",
  fields: { on: z.boolean() },
  apply(world, { on }) {
    world.hands.blind = on;
  },
  says: (_, { on }) => (on ? "takes held values off the stage (blind)" : "puts held values on the stage (live)"),
  lines: (_, { on }) => [`blind ${onOff(on)}`],
});

export const setHighlight = defineIntent({
  kind: "highlight",
  fields: { on: z.boolean() },
  apply(world, { on }) {
    world.hands.highlight = on;
  },
  says: (_, { on }) => (on ? "shows the selection full and open (never recorded)" : "ends the highlight"),
  lines: (_, { on }) => [`highlight ${onOff(on)}`],
});

/** Pins parameters at a value until unparked. */
export const park = defineIntent({
  kind: "park",
  fields: { values: z.record(ParamKeySchema, EntrySchema) },
  apply(world, { values }) {
    Object.assign(world.hands.parked, values);
  },
  says: (_, { values }) => `pins ${Object.keys(values).length} values where they are, over everything, until unparked`,
  lines: ({ show }, { values }) => [`${selText(show, itemsOfKeys(Object.keys(values)))} park`],
});

export const unpark = defineIntent({
  kind: "unpark",
  fields: { keys: z.array(ParamKeySchema) },
  apply(world, { keys }) {
    for (const key of keys) delete world.hands.parked[key];
  },
  says: ({ hands }, { keys }) => `unparks ${keys.filter((key) => hands.parked[key]).length} values`,
  lines: ({ show }, { keys }) => [`${selText(show, itemsOfKeys(keys))} unpark`],
});

export const arm = defineIntent({
  kind: "arm",
  fields: { list: IdSchema },
  apply(world, { list }) {
    if (!world.show.lists[list]) fail("that list does not exist");
    world.hands.armed = list;
  },
  says: ({ show }, { list }) => `arms list ${show.lists[list]?.number ?? ""}`,
  lines: (world, { list }) => [`arm ${listText(world, list)}`],
});

/** What is held, said in words: "12 fixtures: Intensity, Colour". */
export function heldSummary({ hands }: World): string {
  const keys = Object.keys(hands.held);
  if (keys.length === 0) return "nothing held";
  const fixtures = new Set(keys.map((key) => splitKey(key).fixture));
  const families = new Set(keys.map((key) => attributeInfo(hands.held[key]!.attribute).family));
  return `${fixtures.size} ${fixtures.size === 1 ? "fixture" : "fixtures"}: ${FAMILIES.filter((f) => families.has(f))
    .join(", ")
    .toLowerCase()}`;
}
