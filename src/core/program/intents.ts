/** Holding values in the programmer, as intents. */
import { z } from "../units/zod";
import { attributeInfo, FAMILIES, withUnit } from "../fixture/attribute";
import { specOf } from "../show/model";
import { functionOf, rangeOf, type ParameterSpec } from "../fixture/parameters";
import { plainly } from "../show/change/plainly";
import { defineIntent } from "../show/change/intent";
import { own } from "../show/hasOwn";
import { fail } from "../show/refusal";
import { IdSchema, ItemSchema, ParamKeySchema, placeIn, splitKey, type ParamKey } from "../show/ids";
import { movesAround } from "../effect/voices";
import type { ChannelFunction } from "../fixture/type";
import { EntriesSchema, heldOver, isLink, type Entry, type Link, type Value } from "../show/value";
import { numbersOf } from "../show/effectSchema";
import type { Show } from "../show/schema";
import type { World } from "../show/world";
import { exact, listText, onOff, selText } from "../show/words/lineText";
import { holdLines, itemsOfKeys, keysLines } from "./holdLines";
import { namesIn } from "../units/names";
import { plain } from "../units/units";
import { NO_SPREAD } from "../show/hands";
import { plural } from "../units/plural";

/** A draft as the plain record it stands for. */

const seconds = z.number().min(0).max(86_400);

type Held = World["hands"]["held"];

const isLinked = (value: Value | undefined): value is Link => typeof value === "object" && isLink(value);

/**
 * Values over what was held; a value and an effect that goes with it stand side by side. A drag of all that is
 * held copies nothing.
 */
function laidOver(
  show: Show,
  before: Held,
  values: Held,
  keys: readonly ParamKey[],
  olds: readonly (Entry | undefined)[],
): Held {
  const around = movesAround(show);
  let made: Record<ParamKey, Entry> | undefined;
  let replaced = 0;
  for (let k = 0; k < keys.length; k++) {
    const old = olds[k];
    if (!old) continue;
    replaced += 1;
    const key = keys[k]!;
    const entry = values[key]!;
    if (old.effect === undefined && entry.effect === undefined) continue;
    made ??= { ...values };
    made[key] = heldOver(old, entry, around);
  }
  const laid = made ?? values;
  const held = namesIn(before);
  if (held.length === replaced) return laid;
  const all: Record<ParamKey, Entry> = {};
  for (const key of held) if (!Object.hasOwn(values, key)) all[key] = before[key]!;
  for (const key of keys) all[key] = laid[key]!;
  return all;
}

/** Ends with `fail` where a number is outside of what the function of a fixture can do. */
function mustReach(show: Show, key: ParamKey, fn: ChannelFunction, value: number): void {
  const [low, high] = rangeOf(fn);
  if (value >= low - 1e-9 && value <= high + 1e-9) return;
  const { attribute } = fn;
  fail(
    `${attributeInfo(attribute).label} ${withUnit(value, attribute)} is outside the range of fixture ${show.fixtures[splitKey(key).fixture]!.number}`,
    `It goes from ${withUnit(low, attribute)} to ${withUnit(high, attribute)}`,
  );
}

/** Checks that entries fit their parameters, ending with `fail` where one does not; the same entry on the same parameter of a mode is looked at once. */
function checkedOf(show: Show): (key: ParamKey, entry: Entry) => void {
  const fits = new Map<ParameterSpec, Entry>();
  return (key, entry) => {
    const spec = specOf(show, key) ?? fail("a fixture that was to be set is no longer patched");
    if (fits.get(spec) === entry) return;
    const { attribute, value, effect } = entry;
    const fn = functionOf(spec, attribute) ?? fail(`${attribute} does not fit this fixture`);
    if (typeof value === "number") mustReach(show, key, fn, value);
    if (effect) for (const end of numbersOf(effect)) mustReach(show, key, fn, end);
    fits.set(spec, entry);
  };
}

/** Holds values; each replaces what is held of the same parameter. */
export const hold = defineIntent({
  kind: "hold",
  fields: { values: EntriesSchema, says: z.string().optional(), over: seconds.optional() },
  apply(world, { values, over }) {
    // On plain records: thousands of entries are slow through a draft, and to go through by name.
    const keys = namesIn(Object.freeze(values));
    const show = plainly(world.show) as Show;
    const before = plainly(world.hands.held) as Held;
    const origins = plainly(world.hands.cameFrom) as World["hands"]["cameFrom"];
    if (over !== undefined) world.hands.over = { seconds: over, keys: [...keys] };
    const olds = keys.map((key) => own(before, key));
    const checked = checkedOf(show);
    for (let k = 0; k < keys.length; k++) {
      const key = keys[k]!;
      const entry = values[key]!;
      checked(key, entry);
      const { value } = entry;
      const was = olds[k]?.value;
      const linked = isLinked(value);
      if (linked && Object.hasOwn(origins, key)) delete world.hands.cameFrom[key];
      else if (!linked && isLinked(was)) world.hands.cameFrom[key] = was.palette;
    }
    // Frozen, it is taken as it is: nothing in it is a draft.
    world.hands.held = Object.freeze(laidOver(show, before, values, keys, olds));
  },
  says: (_, { values, says, over }) =>
    `${says ?? `holds ${Object.keys(values).length} values`}${over === undefined ? "" : `, over ${plain(over)} s`}`,
  lines: (world, { values, over }) => holdLines(world, values, over),
});

/** Lets go of held parameters. */
export const drop = defineIntent({
  kind: "drop",
  fields: { keys: z.array(ParamKeySchema) },
  apply(world, { keys }) {
    for (const key of keys) {
      delete world.hands.held[key];
      delete world.hands.keptOut[key];
      delete world.hands.cameFrom[key];
    }
  },
  says: (_, { keys }) => `clears ${plural(keys.length, "held value")}`,
  lines: (world, { keys }) => keysLines(world, keys, "drop"),
});

/** Lets go of everything held and of the selection. */
export const clear = defineIntent({
  kind: "clear",
  fields: { over: seconds.optional() },
  apply(world, { over }) {
    if (over !== undefined) world.hands.over = { seconds: over, keys: Object.keys(world.hands.held) };
    world.hands.keptOut = {};
    world.hands.cameFrom = {};
    if (world.hands.selection.length > 0) world.hands.last = world.hands.stepping?.whole ?? world.hands.selection;
    world.hands.selection = [];
    world.hands.stepping = null;
    world.hands.spread = NO_SPREAD;
    world.hands.held = {};
  },
  says: ({ hands }, { over }) => {
    const time = over === undefined ? "" : ` over ${plain(over)} s`;
    const n = Object.keys(hands.held).length;
    return n === 0 ? "nothing is held; deselects" : `clears ${plural(n, "held value")}${time} and the selection`;
  },
  lines: (_, { over }) => [over === undefined ? "clear" : `clear over ${exact(over)}`],
});

/** Holds values on, but leaves them out of what is recorded; or takes them back in. */
export const keepOut = defineIntent({
  kind: "keepOut",
  fields: { keys: z.array(ParamKeySchema).max(200_000), out: z.boolean() },
  apply(world, { keys, out }) {
    for (const key of keys) {
      if (out && world.hands.held[key]) world.hands.keptOut[key] = true;
      else delete world.hands.keptOut[key];
    }
  },
  says: (_, { keys, out }) =>
    `${out ? "keeps" : "takes"} ${plural(keys.length, "held value")} ${out ? "out of recording" : "back into recording"}`,
  lines: (world, { keys, out }) => keysLines(world, keys, out ? "keep out" : "keep in"),
});

/** What would be recorded: all that is held but what is kept out. */
export const recordable = ({ hands: { held, keptOut } }: Pick<World, "hands">): World["hands"]["held"] =>
  Object.keys(keptOut).length === 0 ? held : Object.fromEntries(Object.entries(held).filter(([key]) => !keptOut[key]));

export const setBlind = defineIntent({
  kind: "blind",
  fields: { on: z.boolean(), over: seconds.optional() },
  apply(world, { on, over }) {
    world.hands.blind = on;
    if (!on && over !== undefined) world.hands.over = { keys: Object.keys(world.hands.held), seconds: over };
  },
  says: (_, { on, over }) =>
    on
      ? "takes held values off the stage (blind)"
      : `puts held values on the stage (live)${over === undefined ? "" : ` over ${over} s`}`,
  lines: (_, { on, over }) => [`blind ${onOff(on)}${!on && over !== undefined ? ` over ${exact(over)}` : ""}`],
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

/** Shows items full and open until told otherwise, whatever is selected and held. */
export const identify = defineIntent({
  kind: "identify",
  fields: { items: z.array(ItemSchema).max(20_000) },
  apply(world, { items }) {
    world.hands.identified = items;
  },
  says: (_, { items }) =>
    items.length > 0 ? `shows ${items.length} full and open (never recorded)` : "ends identifying",
  lines: ({ show }, { items }) => [items.length > 0 ? `${selText(show, items)} identify on` : "identify off"],
});

/** Pins parameters at a value until unparked. */
export const park = defineIntent({
  kind: "park",
  fields: { values: EntriesSchema },
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
  fields: { list: IdSchema, also: z.array(IdSchema).max(1000).optional() },
  apply(world, { list, also = [] }) {
    if ([list, ...also].some((id) => !world.show.lists[id])) fail("that list does not exist");
    world.hands.armed = list;
    world.hands.alsoArmed = [...new Set(also)].filter((id) => id !== list);
  },
  says: ({ show }, { list, also = [] }) =>
    also.length > 0
      ? `arms list ${[list, ...also].map((id) => show.lists[id]?.number ?? "?").join(", ")}: plain keys act on all of them`
      : `arms list ${show.lists[list]?.number ?? ""}`,
  lines: (world, { list, also = [] }) => [
    `arm ${listText(world, list)}${also.map((id) => ` + ${world.show.lists[id]?.number ?? "?"}`).join("")}`,
  ],
});

/** What is held, said in words: "12 fixtures: Intensity, Colour". */
export function heldSummary({ hands }: Pick<World, "hands">): string {
  const known = summaries.get(hands);
  if (known !== undefined) return known;
  const made = summaryOf({ hands });
  if (Object.isFrozen(hands)) summaries.set(hands, made);
  return made;
}

const summaries = new WeakMap<World["hands"], string>();

function summaryOf({ hands }: Pick<World, "hands">): string {
  const keys = namesIn(recordable({ hands }));
  const out = namesIn(hands.held).length - keys.length;
  if (keys.length === 0) return out > 0 ? `nothing (${out} kept out)` : "nothing held";
  const fixtures = new Set<string>();
  const attributes = new Set<string>();
  for (const key of keys) {
    fixtures.add(placeIn(key).fixture);
    attributes.add(hands.held[key]!.attribute);
  }
  const families = new Set([...attributes].map((attribute) => attributeInfo(attribute).family));
  return `${plural(fixtures.size, "fixture")}: ${FAMILIES.filter((f) => families.has(f))
    .join(", ")
    .toLowerCase()}${out > 0 ? ` (${out} kept out)` : ""}`;
}
