/** Own timing of what a cue stores: made from the cue itself, nothing held. */
import { writeCue } from "../cue/intents/writeCueIntent";
import type { Hands } from "../show/hands";
import type { Item } from "../show/ids";
import type { Intent } from "../show/change/intent";
import { familyWord, type Family } from "../fixture/attribute";
import { fail } from "../show/refusal";
import type { Cue, CueList } from "../show/schema";
import { cueText, exact, selText } from "../show/words/lineText";
import type { World } from "../show/world";
import { newBuilding, ownTime, targetsOfWhat, type Building } from "./building";
import type { ReadContext } from "./context";
import type { Deed } from "./deeds";
import { whatText, type What } from "./what";

/** What of a cue is meant, of which fixtures, and what becomes of later looks. */
export interface OfCue {
  list: CueList;
  cue: Cue;
  items: readonly Item[];
  what: What;
  looks?: "track" | "cueonly" | "keeplooks";
}

/** Built as it would be held, with something else held. */
export const holdingOf = ({ items, context }: Pick<Building, "items" | "context">, held: Hands["held"]): Building =>
  newBuilding(items, { ...context, world: { ...context.world, hands: { ...context.world.hands, held } } });

/** The parameters of items that are meant; refused where there are none. */
export function keysOf(b: Building, what: What) {
  const found = b.items.flatMap((item) => targetsOfWhat(b, item, what));
  return found.length > 0 ? found : fail(`none of these fixtures has ${whatText(what)}`, "Name fixtures that have it");
}

/** Own times of what the cue stores, spread over the items. @param delays seconds. @param fades seconds. @throws a refusal. */
export function ownTimesIn(
  { list, cue, items, what, looks = "track" }: OfCue,
  { delays, fades }: { delays?: readonly number[] | undefined; fades?: readonly number[] | undefined },
  context: ReadContext,
): Intent {
  if (!delays && !fades) fail("give a delay or a fade", "Such as: delay 1 fade 4");
  if (!keysOf(holdingOf({ items, context }, {}), what).some(({ key }) => cue.entries[key]))
    fail(`cue ${cue.number} stores no ${whatText(what)} of these fixtures`, "Own timing goes with a stored value");
  const stored = holdingOf({ items, context }, cue.entries);
  ownTime(stored, what, delays, fades);
  return writeCue.of({ list: list.id, cue: cue.id, values: stored.values, unset: [], looks });
}

/** Takes own times away: it goes by the cue's times again. @throws a refusal. */
export function cueTimesIn({ list, cue, items, what, looks = "track" }: OfCue, context: ReadContext): Intent {
  const untimed = keysOf(holdingOf({ items, context }, {}), what)
    .map((t) => t.key)
    .filter((key) => cue.entries[key]?.time);
  if (untimed.length === 0) fail(`cue ${cue.number} has no own timing of ${whatText(what)} of these fixtures`);
  return writeCue.of({ list: list.id, cue: cue.id, values: {}, unset: [], untimed, looks });
}

/** Own times of one family as a deed, spread over the items in their order; without times it goes by the cue's times again. */
export function timingDeed(
  of: Omit<OfCue, "what" | "looks"> & { family: Family },
  times: { delay?: readonly number[]; fade?: readonly number[] },
  world: World,
): Deed {
  const { list, cue, items, family } = of;
  const meant: OfCue = { list, cue, items, what: { families: [family] } };
  const said = (["delay", "fade"] as const).flatMap((name) =>
    times[name] ? [name, times[name].map(exact).join(" to ")] : [],
  );
  const { delay: delays, fade: fades } = times;
  return {
    line: `set ${cueText(world, list.id, cue.id)} ${selText(world.show, items)} ${familyWord(family)} ${said.join(" ") || "cue time"}`,
    make: (context) => [said.length > 0 ? ownTimesIn(meant, { delays, fades }, context) : cueTimesIn(meant, context)],
  };
}
