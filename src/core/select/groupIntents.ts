/** Groups, as intents. */
import { z } from "../units/zod";
import { defineIntent, newId } from "../show/intent";
import { IdSchema, ItemSchema } from "../show/ids";
import { fail } from "../show/refusal";
import { wholeNumber } from "../show/schema";
import { groupNumbered } from "../show/world";
import { quote, selText } from "../show/lineText";
import { itemsText } from "../show/itemsText";

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
