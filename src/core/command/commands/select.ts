/** Selecting, in the command language. */
import { othersOf, stepsFor } from "../../select/order";
import { evaluateSel, takeAway } from "../../select/expression";
import { order, select, setSpread, step } from "../../select/intents";
import { BY, NO_SPREAD } from "../../show/hands";
import type { Item } from "../../show/ids";
import { intents, command, type Command } from "../command";
import type { ReadContext } from "../context";

const chapter = "Selecting";
const selectOf = (items: Item[]) => intents(select.of({ items }));

/** A spread stays until changed, or until nothing is selected any more. */
const endSpread = ({ hands }: ReadContext["world"]) =>
  hands.spread === NO_SPREAD || JSON.stringify(hands.spread) === JSON.stringify(NO_SPREAD)
    ? []
    : [setSpread.of({ spread: NO_SPREAD })];

export const SELECTING: Command[] = [
  command({
    chapter,
    syntax: "<sel>",
    about: "select, replacing",
    example: "1 thru 5 + 8",
    read: (args, context) => selectOf(evaluateSel(args.sel, context)),
  }),
  command({
    chapter,
    syntax: "+ <sel>",
    about: "add to the selection",
    example: "+ 8",
    read: (args, context) =>
      selectOf([...new Set([...context.world.hands.selection, ...evaluateSel(args.sel, context)])]),
  }),
  command({
    chapter,
    syntax: "- <sel>",
    about: "take away from the selection",
    example: "- 3",
    read: (args, context) => selectOf(takeAway(context, context.world.hands.selection, evaluateSel(args.sel, context))),
  }),
  command({
    chapter,
    syntax: "none",
    about: "select nothing; ends a spread",
    example: "none",
    read: ({}, { world }) => intents(select.of({ items: [] }), ...endSpread(world)),
  }),
  command({
    chapter,
    syntax: "others",
    about: "all that are not selected now",
    example: "others",
    read: (_, context) => selectOf(othersOf(context.world)),
  }),
  command({
    chapter,
    syntax: "order (reverse | left | front)",
    about: "put the selection in another order; while stepping, the whole",
    example: "order reverse",
    read: (args) => intents(order.of({ how: args.left ? "left" : args.front ? "front" : "reverse" })),
  }),
  command({
    chapter,
    syntax: "order (centre | around) [at <x:metres> <y:metres>]",
    about: "put the selection in order out from its middle, or around it; with at, by a point of the stage in metres",
    example: "order around at 0 2",
    read: ({ around, x, y }) =>
      intents(
        order.of({
          how: around ? "around" : "centre",
          ...(x === undefined || y === undefined ? {} : { at: { x, y } }),
        }),
      ),
  }),
  command({
    chapter,
    syntax: "order shuffle [seed <seed>]",
    about: "put the selection in a random order that can be had again",
    example: "order shuffle seed 4",
    read: ({ seed }) => intents(order.of({ how: "shuffle", ...(seed === undefined ? {} : { seed }) })),
  }),
  command({
    chapter,
    syntax:
      "spread [mirror <mirrors:parts>] [bunch <bunches:parts>] [repeat <repeats:parts>] [by (left | front | centre | around | steps [<given:steps>])]",
    about: "how values, times and steps spread over the selection; what is left out is off",
    example: "spread mirror 2 bunch 3",
    read: (args, context) =>
      intents(
        setSpread.of({
          spread: {
            ...NO_SPREAD,
            ...(args.steps ? { steps: stepsFor(context.world, args.given) } : {}),
            ...(args.mirrors === undefined ? {} : { mirror: Math.max(1, args.mirrors) }),
            ...(args.bunches === undefined ? {} : { bunch: Math.max(1, args.bunches) }),
            ...(args.repeats === undefined ? {} : { repeat: args.repeats }),
            by: BY.find((by) => by !== "order" && args[by]) ?? "order",
          },
        }),
      ),
  }),
  command({
    chapter,
    syntax: "next",
    about: "the next step of the selection",
    example: "next",
    read: () => intents(step.of({ to: "next" })),
  }),
  command({
    chapter,
    syntax: "previous",
    about: "the previous step of the selection",
    example: "previous",
    read: () => intents(step.of({ to: "previous" })),
  }),
  command({
    chapter,
    syntax: "whole",
    about: "all that is being stepped through",
    example: "whole",
    read: () => intents(step.of({ to: "whole" })),
  }),
];
