/** Selecting, its spread and stepping, as intents. */
import { z } from "../units/zod";
import { BY, SpreadSchema } from "../show/hands";
import { defineIntent } from "../show/change/intent";
import { ItemSchema, splitItem, type Item } from "../show/ids";
import { fail } from "../show/refusal";
import type { World } from "../show/world";
import { exact, selText } from "../show/words/lineText";
import { itemsText } from "../show/words/itemsText";
import { plainly } from "../show/change/plainly";
import { shuffled } from "../units/random";
import { orderedBy } from "./order";
import { spreadItems } from "./place";

/** A place on the plan, metres; as far as a stage may reach. */
const metres = z.number().min(-1000).max(1000);
interface Point {
  x: number;
  y: number;
}
const itemList = z.array(ItemSchema).max(200_000);

function checkItems(world: World, items: readonly Item[]): void {
  const fixtures = plainly(world.show.fixtures);
  const lost = items.find((i) => !fixtures[splitItem(i).fixture]);
  if (lost) fail("a selected fixture is no longer patched");
}

/** Select, replacing; ends stepping. */
export const select = defineIntent({
  kind: "select",
  fields: { items: itemList },
  apply(world, { items }) {
    checkItems(world, items);
    if (world.hands.selection.length > 0) world.hands.last = world.hands.stepping?.whole ?? world.hands.selection;
    world.hands.selection = items;
    world.hands.stepping = null;
  },
  says: (world, { items }) =>
    items.length === 0
      ? "selects nothing"
      : `selects ${items.length === 1 ? "" : `${items.length}: `}${itemsText(world, items)}`,
  lines: ({ show }, { items }) => [selText(show, items)],
});

/** Ways of putting a selection in order; by hand the items are given. */
const ORDERS = ["reverse", "left", "front", "centre", "around", "shuffle", "hand"] as const;

/** Puts the selection in another order; while stepping, the whole, and the step is kept. */
export const order = defineIntent({
  kind: "order",
  fields: {
    how: z.enum(ORDERS),
    seed: z.number().int().min(0).max(2_147_483_647).optional(),
    items: itemList.optional(),
    /** Metres: out from, or around, this point of the stage. */
    at: z.object({ x: metres, y: metres }).optional(),
  },
  apply(world, { how, seed, items, at }) {
    const { hands } = world;
    const whole = [...(hands.stepping?.whole ?? hands.selection)];
    if (whole.length === 0) fail("nothing is selected", "Select some fixtures first, such as: 1 thru 12");
    const made = ordered(world, whole, how, { seed, items, at });
    if (hands.stepping) stepTo(world, hands, made, hands.stepping.step);
    else hands.selection = made;
  },
  says: ({ hands }, { how, at }) =>
    `puts ${hands.stepping ? "the whole" : "the selection"} in another order: ${
      {
        reverse: "reversed",
        left: "left to right",
        front: "front to back",
        centre: at ? "out from a point" : "out from the centre",
        around: at ? "around a point" : "around the centre",
        shuffle: "shuffled",
        hand: "as given",
      }[how]
    }`,
  lines: ({ show }, { how, seed, items, at }) => [
    how === "hand"
      ? selText(show, items ?? [])
      : `order ${how}${seed === undefined ? "" : ` seed ${seed}`}${at ? ` at ${exact(at.x)} ${exact(at.y)}` : ""}`,
  ],
});

function ordered(
  world: World,
  whole: readonly Item[],
  how: (typeof ORDERS)[number],
  { seed, items, at }: { seed: number | undefined; items: readonly Item[] | undefined; at: Point | undefined },
): Item[] {
  if (how === "reverse") return [...whole].reverse();
  if (how === "shuffle") return shuffled(whole, seed ?? world.show.seed);
  if (how !== "hand") return orderedBy(world.show, whole, how, at);
  const there = new Set(whole);
  const given = [...new Set(items ?? [])].filter((i) => there.has(i));
  return [...given, ...whole.filter((i) => !given.includes(i))];
}

/** Sets how the selection spreads; while stepping, the step is kept (modulo the new number of steps). */
export const setSpread = defineIntent({
  kind: "spread",
  fields: { spread: SpreadSchema },
  apply(world, { spread }) {
    world.hands.spread = spread;
    const stepping = world.hands.stepping;
    if (stepping) stepTo(world, world.hands, stepping.whole, stepping.step);
  },
  says: (_, { spread }) => {
    const on = [
      spread.mirror > 1 && `mirror ${spread.mirror}`,
      spread.bunch > 1 && `bunch ${spread.bunch}`,
      spread.repeat > 0 && `repeat ${spread.repeat}`,
      spread.by !== BY[0] && `by ${spread.by === "steps" ? "the steps given" : spread.by}`,
    ].filter(Boolean);
    return on.length ? `spread: ${on.join(", ")}` : "spread: selection order";
  },
  lines: (_, { spread }) => {
    const { mirror, bunch, repeat, by, steps } = spread;
    const parts = [mirror > 1 && `mirror ${mirror}`, bunch > 1 && `bunch ${bunch}`, repeat > 0 && `repeat ${repeat}`];
    const how =
      by === "order" ? "" : by === "steps" ? `by steps ${Object.values(steps ?? {}).join(" ")}`.trim() : `by ${by}`;
    return [["spread", ...parts, how].filter(Boolean).join(" ")];
  },
});

interface StepHands {
  selection: Item[];
  stepping: { whole: Item[]; step: number } | null;
  spread: World["hands"]["spread"];
}

function stepTo(world: World, hands: StepHands, whole: Item[], wanted: number): void {
  const { step, count } = spreadItems(world.show, whole, hands.spread);
  const reached = ((wanted % count) + count) % count;
  hands.stepping = { whole: [...whole], step: reached };
  hands.selection = whole.filter((_, k) => step[k] === reached);
}

/** Steps through the selection, wrapping both ways; `whole` selects all of it again. */
export const step = defineIntent({
  kind: "step",
  fields: { to: z.enum(["next", "previous", "whole"]) },
  apply(world, { to }) {
    const { hands } = world;
    if (hands.selection.length === 0)
      fail("nothing is selected to step through", "Select some fixtures first, such as: all");
    if (to === "whole") {
      if (hands.stepping) hands.selection = hands.stepping.whole;
      hands.stepping = null;
      return;
    }
    const whole = [...(hands.stepping?.whole ?? hands.selection)];
    const from = hands.stepping ? hands.stepping.step : to === "next" ? -1 : 0;
    stepTo(world, hands, whole, from + (to === "next" ? 1 : -1));
  },
  says: (_, { to }) => (to === "whole" ? "selects the whole again" : `selects the ${to} step of the selection`),
  lines: (_, { to }) => [to],
});
