/** Doing what a line asks for: the one door, with its history. */
import { macroText } from "../deck/macro";
import type { PlayEvent } from "../play/events";
import { sayEvent } from "../play/events";
import type { Intent } from "../show/change/intent";
import { demandOf } from "../show/checking/demand";
import type { Diff } from "../show/change/diff";
import { extendLast, redo, remember, undo, type History } from "../show/change/history";
import { isRefusal, refuse, type Refusal } from "../show/refusal";
import { INTENTS } from "../intents";
import type { World } from "../show/world";
import type { Reading } from "../command/command";
import { applied } from "./rehearse";

export interface Standing {
  world: World;
  history: History;
}

export interface Performed extends Standing {
  diff: Diff;
  events: readonly PlayEvent[];
  says: string;
  /** How it counts for undo. */
  how: "done" | "joined" | "undone" | "redone";
}

/** What intents would do, in words. */
export function sayIntents(world: World, made: readonly Intent[]): string {
  return made
    .map((intent) => INTENTS.get(intent.kind)!.says(world, intent as never))
    .filter(Boolean)
    .join("; ");
}

/** What a line would do, in words. */
export function sayReading(
  { world, history }: Standing,
  reading: Pick<Reading, "intents" | "events" | "control" | "why" | "macro" | "shows">,
): string {
  if (reading.macro !== undefined) {
    const macro = world.show.macros[reading.macro];
    return macro
      ? `runs ${macroText(macro)}: ${macro.lines.slice(0, 6).join("; ")}${macro.lines.length > 6 ? " ..." : ""}`
      : "runs nothing";
  }
  if (reading.shows)
    return "page" in reading.shows
      ? `shows page ${world.show.pages[reading.shows.page]?.number ?? "?"}`
      : `arranges ${world.show.views[reading.shows.view]?.place ?? "the place"} as it was recorded`;
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

/** What somebody wants done: by a line, a hand, another window or a script alike. */
export interface Doing extends Pick<Reading, "intents" | "events"> {
  /** takeback: the last step is taken back as if it had not been; it cannot be done again. */
  control?: Reading["control"] | "takeback";
  /** In other words than its own. */
  says?: string | undefined;
  /** Part of the step before, as in a drag. */
  join?: boolean | undefined;
}

/** Does it to the show and the hands; playing events are handed back for whoever owns the player. */
export function perform(standing: Standing, doing: Doing): Performed | Refusal {
  const { world, history } = standing;
  if (doing.control) {
    const moved = doing.control === "redo" ? redo(world, history) : undo(world, history);
    if (!moved) return refuse(`there is nothing to ${doing.control === "redo" ? "redo" : "undo"}`);
    const demand = demandOf(world, moved.world, moved.diff);
    if (demand) return demand;
    const how = doing.control === "redo" ? "redone" : "undone";
    const after = doing.control === "takeback" ? { ...moved.history, undone: history.undone } : moved.history;
    return { world: moved.world, history: after, diff: moved.diff, events: [], says: moved.says, how };
  }
  const says = doing.says ?? sayReading(standing, { intents: doing.intents, events: doing.events });
  const how = doing.join ? "joined" : "done";
  if (doing.intents.length === 0) return { ...standing, diff: [], events: doing.events, says, how };
  const done = applied(world, doing.intents);
  if (isRefusal(done)) return done;
  let after: History | undefined;
  return {
    world: done.world,
    // Worked out once it is asked for: the stage hears of a drag over thousands before.
    get history() {
      return (after ??= doing.join ? extendLast(history, done.diff) : remember(history, says, done.diff));
    },
    diff: done.diff,
    events: doing.events,
    says,
    how,
  };
}
