/** Recording the steps of a spread, a cue each. */
import { z } from "../../units/zod";
import { recordable } from "../../program/intents";
import { spreadItems } from "../../select/place";
import { defineIntent } from "../../show/change/intent";
import { IdSchema, item, splitItem, splitKey, type Item, type ParamKey } from "../../show/ids";
import { exact } from "../../show/words/lineText";
import { allTargets, targetsOf } from "../../show/model";
import { fail } from "../../show/refusal";
import { cueNumber, wholeNumber } from "../../show/schema";
import type { Entry } from "../../show/value";
import { listNumbered, type World } from "../../show/world";
import { plainShow } from "../../palette/intents";
import { saidBy } from "../../palette/lookup";
import { setList } from "./intents";
import { recordCue } from "./recordIntents";
import { plural } from "../../units/plural";

const MOST = 1000;

/** The steps of the whole selection, in order. */
function stepsOf({ show, hands }: World): Item[][] {
  const whole = hands.stepping?.whole ?? hands.selection;
  const { step, count } = spreadItems(show, whole, hands.spread);
  const steps = Array.from({ length: count }, (): Item[] => []);
  whole.forEach((i, k) => steps[step[k]!]!.push(i));
  return steps.filter((s) => s.length > 0);
}

/** What the fixtures of other steps do: they are out, as they are, or in the look of a palette. */
const OthersSchema = z.union([z.enum(["out", "leave"]), z.object({ palette: IdSchema })]);
type Others = z.infer<typeof OthersSchema>;

function entriesOfOthers({ show }: World, items: readonly Item[], others: Others): Record<ParamKey, Entry> {
  if (others === "leave") return {};
  if (others === "out")
    return Object.fromEntries(
      items
        .flatMap((i) => targetsOf(show, i, "Dimmer"))
        .map(({ key, attribute }) => [key, { attribute, value: 0 }] as const),
    );
  return Object.fromEntries(
    items
      .flatMap((i) => allTargets(show, i))
      .flatMap(({ key }) => {
        const said = saidBy(show, others.palette, key);
        return said ? [[key, { attribute: said.attribute, value: { palette: others.palette } }] as const] : [];
      }),
  );
}

/** The held look on the fixtures of one step, and what the others of the selection do. */
function entriesOf(
  world: World,
  step: readonly Item[],
  items: readonly Item[],
  others: Others,
): Record<ParamKey, Entry> {
  const own = new Set(step);
  const ofStep = (key: ParamKey) => {
    const { fixture, cell } = splitKey(key);
    return own.has(fixture) || own.has(item(fixture, cell));
  };
  return {
    ...entriesOfOthers(world, items, others),
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
    others: OthersSchema,
    /** The list becomes a chase. */
    chase: z.literal(true).optional(),
  },
  apply(world, { list, from, fade, others, chase }) {
    const plain = world as World;
    const steps = stepsOf(plain);
    if (steps.length === 0) fail("nothing is selected to make steps of", "Select fixtures and spread them first");
    if (typeof others === "object" && !plain.show.palettes[others.palette]) fail("that palette does not exist");
    const there = listNumbered(plain.show, list);
    if (chase && there && there.kind !== "list" && there.kind !== "chase")
      fail(`list ${list} is a ${there.kind}, so it cannot become a chase`, "Record the steps to another list");
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
        others,
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
    const made = listNumbered(plainShow(world), list);
    if (chase && made && made.kind !== "chase")
      setList.apply(world, { kind: "setList", list: made.id, change: { kind: "chase" } });
  },
  says: (world, { list, from, others, chase }) => {
    const n = stepsOf(world).length;
    return `records ${plural(n, "step")} as cue ${exact(from)}${n > 1 ? ` to ${exact(from + n - 1)}` : ""} of list ${list}${chase ? ", a chase" : ""}${others === "out" ? ", the others out" : typeof others === "object" ? `, the others in palette ${world.show.palettes[others.palette]?.number ?? "?"}` : ""}`;
  },
  lines: ({ show }, { list, from, fade, others, chase }) => [
    `record steps list ${list} from cue ${exact(from)}${fade === undefined ? "" : ` fade ${exact(fade)}`}${others === "out" ? " others out" : typeof others === "object" ? ` others palette ${show.palettes[others.palette]?.number}` : ""}${chase ? " as chase" : ""}`,
  ],
});
