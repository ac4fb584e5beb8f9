/** Groups, in the command language. */
import { inRowsOf, straight } from "../../select/arrangement";
import {
  changeGroup,
  deleteGroup,
  duplicateGroup,
  nameGroup,
  orderGroups,
  recordGroup,
  setGroup,
} from "../../select/groupIntents";
import { evaluateSel } from "../../select/expression";
import { startGroups } from "../../select/starterGroups";
import { placeOf } from "../../select/place";
import { fail } from "../../show/refusal";
import { GROUP_SIGNS, type Group } from "../../show/schema";
import { groupNumbered } from "../../show/world";
import { command, intents, itemsOf, type Command } from "../command";
import type { ReadContext } from "../context";

const chapter = "Keeping";

const groupOf = ({ number }: { number: number }, { world }: ReadContext): Group =>
  groupNumbered(world.show, number) ?? fail(`there is no group ${number}`);

export const GROUPS: Command[] = [
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
    syntax: "starter groups",
    about: "a group for each type of the rig; existing ones are left out",
    example: "starter groups",
    read: () => intents(startGroups.of({})),
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
    syntax: "group <number:group> add <sel>",
    about: "more members, at its end",
    example: "group 1 add 21",
    read: (args, context) =>
      intents(changeGroup.of({ group: groupOf(args, context).id, items: evaluateSel(args.sel, context), out: false })),
  }),
  command({
    chapter,
    syntax: "group <number:group> take out <sel>",
    about: "fewer members",
    example: "group 1 take out 3",
    read: (args, context) =>
      intents(changeGroup.of({ group: groupOf(args, context).id, items: evaluateSel(args.sel, context), out: true })),
  }),
  command({
    chapter,
    syntax: "group <number:group> duplicate as <copy:group>",
    about: "a copy under another number",
    example: "group 1 duplicate as 101",
    read: (args, context) => intents(duplicateGroup.of({ group: groupOf(args, context).id, as: args.copy })),
  }),
  command({
    chapter,
    syntax: "order groups <wanted:groups>",
    about: "renumber them in that order",
    example: "order groups 3 1 2",
    read: (args, { world }) =>
      intents(
        orderGroups.of({
          groups: args.wanted.map((n) => (groupNumbered(world.show, n) ?? fail(`there is no group ${n}`)).id),
        }),
      ),
  }),
  command({
    chapter,
    syntax: "set group <number:group> colour (<hex:colours> | off)",
    about: "the colour it is shown in",
    example: "set group 1 colour #ffb07a",
    read: (args, context) => intents(setGroup.of({ group: groupOf(args, context).id, colour: args.hex?.[0] ?? null })),
  }),
  command({
    chapter,
    syntax: "set group <number:group> sign (dot | square | diamond | bar | star | wave | sail | moon | off)",
    about: "the sign it is shown with",
    example: "set group 1 sign sail",
    read: (args, context) =>
      intents(setGroup.of({ group: groupOf(args, context).id, sign: GROUP_SIGNS.find((s) => args[s]) ?? null })),
  }),
  command({
    chapter,
    syntax: "set group <number:group> arrangement (stage | straight | rows <columns:parts> | off)",
    about: "its own plan, by which spreads go: taken from the stage, in one row, or in rows of so many",
    example: "set group 1 arrangement rows 4",
    read(args, context) {
      const group = groupOf(args, context);
      const { show } = context.world;
      const arrangement = args.off
        ? null
        : args.stage
          ? Object.fromEntries(
              group.members.map((m) => {
                const { x, y } = placeOf(show, m);
                return [m, { x, y }];
              }),
            )
          : args.straight
            ? straight(group.members)
            : inRowsOf(group.members, Math.max(1, args.columns ?? 1));
      return intents(setGroup.of({ group: group.id, arrangement }));
    },
  }),
  command({
    chapter,
    syntax: "set group <number:group> place <sel> at <x:metres> <y:metres>",
    about: "a place on its own plan",
    example: "set group 1 place 3 at 1 -2",
    read(args, context) {
      const group = groupOf(args, context);
      const members = new Set(group.members);
      const items = evaluateSel(args.sel, context);
      if (!items.every((i) => members.has(i))) fail(`not all of these are members of group ${group.number}`);
      const places = Object.fromEntries(items.map((i) => [i, { x: args.x, y: args.y }]));
      return intents(setGroup.of({ group: group.id, arrangement: { ...group.arrangement, ...places } }));
    },
  }),
  command({
    chapter,
    syntax: "set group <number:group> steps (<given:steps> | off)",
    about: "its members' steps in order, used by: spread by steps",
    example: "set group 1 steps 1 1 2 2 3",
    read(args, context) {
      const group = groupOf(args, context);
      const { given } = args;
      const steps = given ? Object.fromEntries(group.members.map((m, k) => [m, given[k % given.length]!])) : null;
      return intents(setGroup.of({ group: group.id, steps }));
    },
  }),
];
