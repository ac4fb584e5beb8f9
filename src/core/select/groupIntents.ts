/** Groups, as intents. */
import { z } from "../units/zod";
import { defineIntent, newId } from "../show/change/intent";
import { IdSchema, ItemSchema } from "../show/ids";
import { fail } from "../show/refusal";
import { GROUP_SIGNS, GroupSchema, wholeNumber } from "../show/schema";
import { groupNumbered, groupsByNumber, type World } from "../show/world";
import { exact } from "../show/words/lineText";
import { itemText } from "../show/model";
import { quote, selText } from "../show/words/lineText";
import { itemsText } from "../show/words/itemsText";

/** Records the selection, in its order. Onto what exists it adds to it unless told to overwrite; a name is kept unless given. */
export const recordGroup = defineIntent({
  kind: "recordGroup",
  fields: {
    number: wholeNumber,
    name: z.string().max(200).optional(),
    members: z.array(ItemSchema).max(20_000),
    onto: z.enum(["merge", "overwrite"]).optional(),
  },
  apply(world, { number, name, members, onto }) {
    if (members.length === 0)
      fail("nothing is selected to make a group of", "Select some fixtures first, such as: 1 thru 12");
    const old = groupNumbered(world.show, number);
    const id = old?.id ?? newId(world, "g");
    world.show.groups[id] = {
      id,
      number,
      name: name ?? old?.name ?? `Group ${number}`,
      members: old && onto !== "overwrite" ? [...new Set([...old.members, ...members])] : members,
    };
  },
  says(world, { number, name, members, onto }) {
    const old = groupNumbered(world.show, number);
    const label = `group ${number}${(name ?? old?.name) ? ` "${name ?? old?.name}"` : ""}`;
    return `${!old ? "makes" : onto === "overwrite" ? `puts the selection in place of ${old.members.length} in` : "adds the selection to"} ${label}: ${itemsText(world, members)}`;
  },
  lines: ({ show, hands }, { number, name, members, onto }) => [
    ...(members.join() === hands.selection.join() ? [] : [selText(show, members)]),
    `record group ${number}${name === undefined ? "" : ` ${quote(name)}`}${onto === "overwrite" ? " overwrite" : ""}`,
  ],
});

export const nameGroup = defineIntent({
  kind: "nameGroup",
  fields: { group: IdSchema, name: z.string().max(200) },
  apply(world, { group, name }) {
    const found = world.show.groups[group] ?? fail("that group does not exist");
    found.name = name;
  },
  says: ({ show }, { group, name }) => `names group ${show.groups[group]?.number ?? ""} "${name}"`,
  lines: ({ show }, { group, name }) => [`set group ${show.groups[group]?.number ?? "?"} name ${quote(name)}`],
});

export const deleteGroup = defineIntent({
  kind: "deleteGroup",
  fields: { group: IdSchema },
  apply(world, { group }) {
    if (!world.show.groups[group]) fail("that group does not exist");
    delete world.show.groups[group];
  },
  says: ({ show }, { group }) =>
    `deletes group ${show.groups[group]?.number ?? ""} "${show.groups[group]?.name ?? ""}"`,
  lines: ({ show }, { group }) => [`delete group ${show.groups[group]?.number ?? "?"}`],
});

const groupText = ({ show }: World, group: string): string => `group ${show.groups[group]?.number ?? "?"}`;

/** Adds items to a group, at its end, or takes them out. */
export const changeGroup = defineIntent({
  kind: "changeGroup",
  fields: { group: IdSchema, items: z.array(ItemSchema).max(20_000), out: z.boolean() },
  apply(world, { group, items, out }) {
    const found = world.show.groups[group] ?? fail("that group does not exist");
    const given = new Set(items);
    const there = new Set(found.members);
    if (out && !items.some((i) => there.has(i))) fail(`group ${found.number} has none of these fixtures`);
    found.members = out ? found.members.filter((m) => !given.has(m)) : [...new Set([...found.members, ...items])];
  },
  says: (world, { group, items, out }) =>
    `${out ? "takes" : "adds"} ${itemsText(world, items)} ${out ? "out of" : "to"} ${groupText(world, group)}`,
  lines: (world, { group, items, out }) => [
    `${groupText(world, group)} ${out ? "take out" : "add"} ${selText(world.show, items)}`,
  ],
});

/** A copy under another number, arrangement and steps included. */
export const duplicateGroup = defineIntent({
  kind: "duplicateGroup",
  fields: { group: IdSchema, as: wholeNumber },
  apply(world, { group, as }) {
    const found = world.show.groups[group] ?? fail("that group does not exist");
    const other = groupNumbered(world.show, as);
    if (other) fail(`group ${as} exists already: ${other.name}`, "Choose a number that is free");
    const id = newId(world, "g");
    world.show.groups[id] = { ...found, id, number: as, name: `${found.name} copy`.slice(0, 200) };
  },
  says: (world, { group, as }) => `makes group ${as} as a copy of ${groupText(world, group)}`,
  lines: (world, { group, as }) => [`${groupText(world, group)} duplicate as ${as}`],
});

/** Colour, sign, arrangement and steps of a group; null takes one away. */
export const setGroup = defineIntent({
  kind: "setGroup",
  fields: {
    group: IdSchema,
    colour: GroupSchema.shape.colour.nullable(),
    sign: z.enum(GROUP_SIGNS).nullable().optional(),
    arrangement: GroupSchema.shape.arrangement.nullable(),
    steps: GroupSchema.shape.steps.nullable(),
  },
  apply(world, { group, kind: _, ...change }) {
    const found: Record<string, unknown> = world.show.groups[group] ?? fail("that group does not exist");
    for (const [name, value] of Object.entries(change)) {
      if (value === null) delete found[name];
      else if (value !== undefined) found[name] = value;
    }
  },
  says: (world, { group, kind: _, ...change }) =>
    `${groupText(world, group)}: ${Object.entries(change)
      .filter(([, value]) => value !== undefined)
      .map(([name, value]) =>
        value === null ? `no ${name}` : typeof value === "object" ? `its own ${name}` : `${name} ${value}`,
      )
      .join(", ")}`,
  lines: (world, { group, colour, sign, arrangement, steps }) => {
    const text = groupText(world, group);
    const members = world.show.groups[group]?.members ?? [];
    return [
      ...(colour === undefined ? [] : [`set ${text} colour ${colour ?? "off"}`]),
      ...(sign === undefined ? [] : [`set ${text} sign ${sign ?? "off"}`]),
      ...(arrangement === undefined ? [] : arrangement === null ? [`set ${text} arrangement off`] : []),
      ...Object.entries(arrangement ?? {}).map(
        ([item, { x, y }]) => `set ${text} place ${itemText(world.show, item)} at ${exact(x)} ${exact(y)}`,
      ),
      ...(steps === undefined
        ? []
        : [`set ${text} steps ${steps === null ? "off" : members.map((m) => steps[m] ?? 1).join(" ")}`]),
    ];
  },
});

/** Puts groups in another order: their numbers are given out anew. */
export const orderGroups = defineIntent({
  kind: "orderGroups",
  fields: { groups: z.array(IdSchema).max(20_000) },
  apply(world, { groups }) {
    const now = groupsByNumber(world.show);
    const wanted = new Set(groups);
    if (groups.some((id) => !world.show.groups[id])) fail("a group of that order does not exist");
    const moved = [...wanted, ...now.map((g) => g.id).filter((id) => !wanted.has(id))];
    const numbers = now.map((g) => g.number);
    moved.forEach((id, k) => (world.show.groups[id]!.number = numbers[k]!));
  },
  says: (world, { groups }) =>
    `orders the groups: ${groups.map((id) => world.show.groups[id]?.number ?? "?").join(" ")}`,
  lines: (world, { groups }) => [`order groups ${groups.map((id) => world.show.groups[id]?.number ?? "?").join(" ")}`],
});
