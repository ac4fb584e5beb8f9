/** Doing what a line asks for: the one door, with its history. */
import type { PlayEvent } from "../play/events";
import { sayEvent } from "../play/events";
import { applyIntents, type Intent } from "../show/intent";
import { demandOf } from "../show/demand";
import type { Diff } from "../show/diff";
import { redo, remember, undo, type History } from "../show/history";
import { isRefusal, refuse, type Refusal } from "../show/refusal";
import { INTENTS } from "../intents";
import type { World } from "../show/world";
import type { Reading } from "../command/command";

export interface Standing {
  world: World;
  history: History;
}

export interface Performed extends Standing {
  diff: Diff;
  events: readonly PlayEvent[];
  says: string;
}

/** What intents would do, in words. */
export function sayIntents(world: World, made: readonly Intent[]): string {
  return made
    .map((intent) => INTENTS.get(intent.kind)!.says(world, intent as never))
    .filter(Boolean)
    .join("; ");
}

export function sayReading({ world, history }: Standing, reading: Reading): string {
  if (reading.control) {
    const step = (reading.control === "undo" ? history.done : history.undone).at(-1);
    return step
      ? `${reading.control === "undo" ? "takes back" : "does again"}: ${step.says}`
      : `nothing to ${reading.control}`;
  }
  if (reading.why) return "shows where the value comes from, down to the bytes";
  return [sayIntents(world, reading.intents), ...reading.events.map((e) => sayEvent(world, e))]
    .filter(Boolean)
    .join("; ");
}

/** Applies a reading to the show and the hands; playing events are handed back for whoever owns the player. */
export function perform(standing: Standing, reading: Reading): Performed | Refusal {
  const { world, history } = standing;
  if (reading.control) {
    const moved = reading.control === "undo" ? undo(world, history) : redo(world, history);
    if (!moved) return refuse(`there is nothing to ${reading.control}`);
    const demand = demandOf(moved.world, moved.diff);
    if (demand) return demand;
    return { world: moved.world, history: moved.history, diff: moved.diff, events: [], says: moved.says };
  }
  const says = sayReading(standing, reading);
  if (reading.intents.length === 0) return { ...standing, diff: [], events: reading.events, says };
  const done = applyIntents(INTENTS, world, reading.intents);
  if (isRefusal(done)) return done;
  return {
    world: done.world,
    history: remember(history, says, done.diff),
    diff: done.diff,
    events: reading.events,
    says,
  };
}
