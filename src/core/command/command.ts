/** What a command is: one row of the grammar's tables. */
import type { Intent } from "../show/change/intent";
import type { PlayEvent } from "../play/events";
import { evaluateSel, type Sel } from "../select/expression";
import type { Id, Item, ParamKey } from "../show/ids";
import { fail } from "../show/refusal";
import { cueNumbered, listNumbered } from "../show/world";
import type { Cue, CueList } from "../show/schema";
import { splitItem } from "../show/ids";
import type { Args, ArgsOf } from "./args";
import type { ReadContext } from "./context";
import type { ScriptAct } from "./scriptLines";

/** What a line asks for. */
export interface Reading {
  intents: Intent[];
  events: PlayEvent[];
  control?: "undo" | "redo";
  /** A macro that is to be run. */
  macro?: Id;
  /** What is only seen: another page, another arrangement. */
  shows?: { page: Id } | { view: Id };
  /** Parameters whose stack is asked for. */
  why?: ParamKey[];
  /** Only for scripts: done by the script runner. */
  script?: ScriptAct;
}

export interface Command {
  /** The place in the handbook: Selecting, Holding values, Rig, Keeping, Playing, Scripts. */
  chapter: string;
  syntax: string;
  about: string;
  /** A line that uses it; tested. */
  example: string;
  read(args: Args, context: ReadContext): Reading;
}

/** A row of a table: what it reads is typed by its syntax line. */
export const command = <const S extends string>(row: {
  chapter: string;
  syntax: S;
  about: string;
  example: string;
  read(args: ArgsOf<S>, context: ReadContext): Reading;
}): Command => ({ ...row, read: (args, context) => row.read(args as ArgsOf<S>, context) });

/** A reading of intents alone. */
export const intents = (...made: Intent[]): Reading => ({ intents: made, events: [] });
/** A reading of playing events alone. */
export const events = (...made: PlayEvent[]): Reading => ({ intents: [], events: made });

/** The SEL of a line, else the present selection; ends with `fail` where that is empty. */
export function itemsOf({ sel }: { sel?: Sel | undefined }, context: ReadContext): Item[] {
  if (sel) return evaluateSel(sel, context);
  const { selection } = context.world.hands;
  if (selection.length === 0) fail("nothing is selected", "Select some fixtures first, such as: 1 thru 12");
  return [...selection];
}

/** The fixtures of a SEL, each once; cells count as their fixture. */
export const fixturesOf = (args: { sel?: Sel | undefined }, context: ReadContext): string[] => [
  ...new Set(itemsOf(args, context).map((i) => splitItem(i).fixture)),
];

/** The list a line names, else the armed one. */
export function listOf({ list: number }: { list?: number | undefined }, { world }: ReadContext): CueList {
  if (number === undefined)
    return world.show.lists[world.hands.armed] ?? fail("no list is armed", "Name one, such as: go list 1");
  return (
    listNumbered(world.show, number) ??
    fail(
      `there is no list ${number}`,
      `The lists are ${Object.values(world.show.lists)
        .map((l) => l.number)
        .join(", ")}`,
    )
  );
}

/** The list a line names, else all that are armed. */
export function listsOf(args: { list?: number | undefined }, context: ReadContext): CueList[] {
  const { show, hands } = context.world;
  const also = args.list === undefined ? hands.alsoArmed.flatMap((id) => show.lists[id] ?? []) : [];
  return [listOf(args, context), ...also];
}

/** The cue of that number, to 3 decimals; ends with `fail` where the list has none. */
export function cueOf(list: CueList, number: number): Cue {
  const numbers = Object.values(list.cues)
    .map((c) => c.number)
    .sort((a, b) => a - b);
  return (
    cueNumbered(list, number) ??
    fail(
      `list ${list.number} has no cue ${number}`,
      numbers.length ? `It has ${numbers.slice(0, 8).join(", ")}${numbers.length > 8 ? " ..." : ""}` : "It is empty",
    )
  );
}
