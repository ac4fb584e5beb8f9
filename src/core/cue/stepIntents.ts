/** Recording the steps of a spread, a cue each. */
import { z } from "../units/zod";
import { recordable } from "../program/intents";
import { spreadItems } from "../select/place";
import { defineIntent } from "../show/intent";
import { item, splitItem, splitKey, type Item, type ParamKey } from "../show/ids";
import { exact } from "../show/lineText";
import { targetsOf } from "../show/model";
import { fail } from "../show/refusal";
import { cueNumber, wholeNumber } from "../show/schema";
import type { Entry } from "../show/value";
import type { World } from "../show/world";
import { recordCue } from "./recordIntents";

const MOST = 1000;

/** The steps of the whole selection, in order. */
function stepsOf({ show, hands }: World): Item[][] {
  const whole = hands.stepping?.whole ?? hands.selection;
  const { step, count } = spreadItems(show, whole, hands.spread);
  const steps = Array.from({ length: count }, (): Item[] => []);
  whole.forEach((i, k) => steps[step[k]!]!.push(i));
  return steps.filter((s) => s.length > 0);
}

/** The held look on the fixtures of one step, and the others of the selection out where they are to be. */
function entriesOf(
  world: World,
  step: readonly Item[],
  others: readonly Item[],
  out: boolean,
): Record<ParamKey, Entry> {
  const own = new Set(step);
  const ofStep = (key: ParamKey) => {
    const { fixture, cell } = splitKey(key);
    return own.has(fixture) || own.has(item(fixture, cell));
  };
  const dark = out ? others.flatMap((i) => targetsOf(world.show, i, "Dimmer")) : [];
  return {
    ...Object.fromEntries(dark.map((t) => [t.key, { attribute: t.attribute, value: 0 }])),
    ...Object.fromEntries(Object.entries(recordable(world)).filter(([key]) => ofStep(key))),
  };
}

/** One cue for each step of the spread: what is held on its fixtures, the others of the selection out or left as they are. */
export const recordSteps = defineIntent({
  kind: "recordSteps",
  fields: {
    list: wholeNumber,
    from: cueNumber,
    fade: z.number().min(0).max(86_400).optional(),
    others: z.enum(["out", "leave"]),
  },
  apply(world, { list, from, fade, others }) {
    const plain = world as World;
    const steps = stepsOf(plain);
    if (steps.length === 0) fail("nothing is selected to make steps of", "Select fixtures and spread them first");
    if (steps.length > MOST) fail(`these are ${steps.length} steps; ${MOST} is the most`, "Bunch them");
    const all = steps.flat();
    const held = new Set(Object.keys(recordable(plain)).map((key) => splitKey(key).fixture));
    if (!all.some((i) => held.has(splitItem(i).fixture)))
      fail("nothing is held for what is selected", "Set a value first, such as: at full");
    const looks = steps.map((step) => {
      const own = new Set(step);
      return entriesOf(
        plain,
        step,
        all.filter((i) => !own.has(i)),
        others === "out",
      );
    });
    looks.forEach((entries, k) =>
      recordCue.apply(world, {
        kind: "recordCue",
        list,
        cue: from + k,
        entries,
        ...(Object.keys(entries).length === 0 ? { empty: true } : {}),
        ...(fade === undefined ? {} : { times: { up: fade, down: fade } }),
      }),
    );
  },
  says: (world, { list, from, others }) => {
    const n = stepsOf(world).length;
    return `records ${n} ${n === 1 ? "step" : "steps"} as cue ${exact(from)}${n > 1 ? ` to ${exact(from + n - 1)}` : ""} of list ${list}${others === "out" ? ", the others out" : ""}`;
  },
  lines: (_, { list, from, fade, others }) => [
    `record steps list ${list} from cue ${exact(from)}${fade === undefined ? "" : ` fade ${exact(fade)}`}${others === "out" ? " others out" : ""}`,
  ],
});
