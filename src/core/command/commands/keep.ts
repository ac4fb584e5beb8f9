/** Groups, the name of the show, undo; in the command language. */
import { deleteGroup, nameGroup, recordGroup } from "../../select/groupIntents";
import { fail } from "../../show/refusal";
import { groupNumbered } from "../../show/world";
import { nameShow } from "../../show/nameShow";
import { command, intents, itemsOf, type Command } from "../command";
import type { ReadContext } from "../context";

const chapter = "Keeping";

const groupOf = ({ number }: { number: number }, { world }: ReadContext) =>
  groupNumbered(world.show, number) ?? fail(`there is no group ${number}`);

export const KEEPING: Command[] = [
  command({
    chapter,
    syntax: "record group <number:group> [<name:text>] [merge | overwrite]",
    about: "the selection, in its order; onto one that exists it adds unless told otherwise",
    example: 'record group 6 "Rail port"',
    read: (args, context) =>
      intents(
        recordGroup.of({
          number: args.number,
          members: itemsOf({}, context),
          ...(args.name === undefined ? {} : { name: args.name }),
          ...(args.overwrite ? { onto: "overwrite" as const } : {}),
        }),
      ),
  }),
  command({
    chapter,
    syntax: "set group <number:group> name <label:text>",
    about: "name a group",
    example: 'set group 1 name "Rail"',
    read: (args, context) => intents(nameGroup.of({ group: groupOf(args, context).id, name: args.label })),
  }),
  command({
    chapter,
    syntax: "delete group <number:group>",
    about: "delete a group; its fixtures stay",
    example: "delete group 1",
    read: (args, context) => intents(deleteGroup.of({ group: groupOf(args, context).id })),
  }),
  command({
    chapter,
    syntax: "set show name <label:text>",
    about: "name the show",
    example: 'set show name "The Salt Lantern"',
    read: (args) => intents(nameShow.of({ name: args.label })),
  }),
  command({
    chapter,
    syntax: "undo",
    about: "one step back in show edits and held values",
    example: "undo",
    read: () => ({ intents: [], events: [], control: "undo" }),
  }),
  command({
    chapter,
    syntax: "redo",
    about: "do again what was undone",
    example: "redo",
    read: () => ({ intents: [], events: [], control: "redo" }),
  }),
];
