/** The order of a selection, and the steps given to it by hand. */
import type { Spread } from "../show/hands";
import { splitItem, type Item } from "../show/ids";
import { fail } from "../show/refusal";
import type { Show } from "../show/schema";
import { fixturesByNumber, type World } from "../show/world";
import { groupSelected } from "./arrangement";
import { classesBy } from "./place";

/** Items by their place on the plan; those at one place stay as they were. @param about a point to go by, metres. */
export function orderedBy(
  show: Show,
  items: readonly Item[],
  by: Spread["by"],
  about?: { x: number; y: number },
): Item[] {
  const classes = classesBy(show, items, { by }, about) ?? [];
  return items
    .map((value, k) => ({ value, k }))
    .sort((a, b) => classes[a.k]! - classes[b.k]! || a.k - b.k)
    .map(({ value }) => value);
}

/** All fixtures that are not selected now, by number. */
export function othersOf({ show, hands }: World): Item[] {
  const chosen = new Set(hands.selection.map((i) => splitItem(i).fixture));
  return fixturesByNumber(show)
    .map((f) => f.id)
    .filter((id) => !chosen.has(id));
}

/**
 * The steps given to the whole selection in its order, from the start again where they are too few; without any,
 * those of the group that is selected, else those it has. Ends with `fail` where nothing of it has one.
 */
export function stepsFor({ show, hands }: World, given: readonly number[] | undefined): Record<Item, number> {
  const whole = hands.stepping?.whole ?? hands.selection;
  const made = given
    ? Object.fromEntries(whole.map((item, k) => [item, given[k % given.length]!]))
    : (groupSelected(show, whole, (g) => g.steps !== undefined)?.steps ?? hands.spread.steps ?? {});
  if (!whole.some((item) => made[item] !== undefined))
    fail(
      given ? "nothing is selected to give steps to" : "no steps are given to what is selected",
      "Select fixtures and give each its step, such as: spread by steps 1 1 2 2 3",
    );
  return made;
}
