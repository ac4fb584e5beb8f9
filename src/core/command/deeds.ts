/** What hands do at one press with what is selected: the intents, made from how things stand, and the line that does the same. */
import { clear, hold, park, setBlind, unpark } from "../program/intents";
import { othersOf } from "../select/order";
import { splitKey, type Item } from "../show/ids";
import type { Intent } from "../show/change/intent";
import { allTargets, targetsOf } from "../show/model";
import { fail } from "../show/refusal";
import { builtIntents, newBuilding, type Building } from "./building";
import { copyFrom as copyInto, home, locate } from "./buildingAll";
import { itemsOf } from "./command";
import type { ReadContext } from "./context";

export interface Deed {
  line: string;
  /** @throws a refusal, inside of `attempt`. */
  make(context: ReadContext): Intent[];
}

const holding = (line: string, build: (b: Building) => void): Deed => ({
  line,
  make(context) {
    const building = newBuilding(itemsOf({}, context), context);
    build(building);
    return builtIntents(building, false);
  },
});

/** Every lit fixture that is not selected is held at 0. */
export function othersAtOut({ world, isLit }: ReadContext): Intent {
  const dark = othersOf(world)
    .filter(isLit)
    .flatMap((id) => targetsOf(world.show, id, "Dimmer"));
  if (dark.length === 0) fail("nothing else is lit");
  const values = Object.fromEntries(dark.map((t) => [t.key, { attribute: t.attribute, value: 0 }]));
  const count = new Set(dark.map((t) => splitKey(t.key).fixture)).size;
  return hold.of({
    values,
    says: `holds ${count === 1 ? "the other that is" : `the ${count} others that are`} lit at 0`,
  });
}

/** Pins what is seen of items. */
export function parkOf(items: readonly Item[], { world, seen, stage }: ReadContext): Intent {
  const targets = items.flatMap((i) => allTargets(world.show, i));
  const now = (t: (typeof targets)[number]) =>
    seen?.(t.key) ?? stage(t.key) ?? { attribute: t.attribute, value: t.spec.default };
  return park.of({ values: Object.fromEntries(targets.map((t) => [t.key, now(t)])) });
}

/** Lets what is parked of items play again. */
export const unparkOf = (items: readonly Item[], { world }: ReadContext): Intent =>
  unpark.of({ keys: items.flatMap((i) => allTargets(world.show, i)).map((t) => t.key) });

export const HOME: Deed = holding("home", home);
export const LOCATE: Deed = holding("locate", locate);
export const OTHERS_OUT: Deed = { line: "others at out", make: (context) => [othersAtOut(context)] };
export const PARK: Deed = { line: "park", make: (context) => [parkOf(itemsOf({}, context), context)] };
export const UNPARK: Deed = { line: "unpark", make: (context) => [unparkOf(itemsOf({}, context), context)] };
/** @param number of the fixture whose values are taken. */
export const copyFrom = (number: number): Deed => holding(`copy from ${number}`, (b) => copyInto(b, number));
/** @param seconds in which what is held goes. */
export const clearOver = (seconds: number): Deed => ({
  line: `clear over ${seconds}`,
  make: () => [clear.of({ over: seconds })],
});
export const blind = (on: boolean): Deed => ({ line: `blind ${on ? "on" : "off"}`, make: () => [setBlind.of({ on })] });
