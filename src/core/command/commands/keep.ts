/** The name of the show, undo; in the command language. */
import { nameShow } from "../../show/change/nameShow";
import { command, intents, type Command } from "../command";

const chapter = "Keeping";

export const KEEPING: Command[] = [
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
