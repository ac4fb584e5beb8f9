/** Edits that are about to come, worked out beforehand: while one is typed there is time, at its Enter there is none. */
import { INTENTS } from "../intents";
import { applyIntents, type Done, type Intent } from "../show/change/intent";
import type { Refusal } from "../show/refusal";
import type { World } from "../show/world";

const ready = new WeakMap<World, { text: string; done: Done | Refusal }>();

/** Works intents out without doing them; asked for next on the same world, they are there at once. */
export function rehearse(world: World, intents: readonly Intent[]): Done | Refusal {
  const done = applyIntents(INTENTS, world, intents);
  ready.set(world, { text: JSON.stringify(intents), done });
  return done;
}

/** What intents make of a world: as rehearsed where it was just that, else worked out now. */
export function applied(world: World, intents: readonly Intent[]): Done | Refusal {
  const known = ready.get(world);
  return known && known.text === JSON.stringify(intents) ? known.done : applyIntents(INTENTS, world, intents);
}
