/** Cue lists and their settings, in the command language. */
import { playEffect, renumberCues, setList } from "../../cue/intents";
import { deleteList, duplicateList } from "../../cue/listIntents";
import { arm } from "../../program/intents";
import type { CueList } from "../../show/schema";
import type { ArgsOf } from "../args";
import { effectCalled } from "../voices";
import { command, intents, listOf, type Command } from "../command";

const chapter = "Keeping";

/** One setting of a list. */
const option = <const S extends string>(
  syntax: S,
  about: string,
  example: string,
  change: (args: ArgsOf<S>) => Partial<Omit<CueList, "id" | "number" | "cues">>,
): Command => ({
  chapter,
  syntax: `set list <list> ${syntax}`,
  about,
  example: `set list 1 ${example}`,
  read: (args, context) => intents(setList.of({ list: listOf(args, context).id, change: change(args as ArgsOf<S>) })),
});

export const LISTS: Command[] = [
  command({
    chapter,
    syntax: "delete list <list:list>",
    about: "a list with all its cues",
    example: "delete list 2",
    read: (args, context) => intents(deleteList.of({ list: listOf(args, context).id })),
  }),
  command({
    chapter,
    syntax: "duplicate list <list:list> as <as:list>",
    about: "another list like it",
    example: "duplicate list 1 as 20",
    read: (args, context) => intents(duplicateList.of({ list: listOf({ list: args.list }, context).id, as: args.as })),
  }),
  command({
    chapter,
    syntax: "renumber list <list> from <from:cue> step <by:cue>",
    about: "new numbers for all cues, in order",
    example: "renumber list 1 from 1 step 1",
    read: (args, context) =>
      intents(renumberCues.of({ list: listOf(args, context).id, from: args.from, step: args.by })),
  }),
  option(
    "kind (cues | submaster | limiter | takeover)",
    "what the playback does: play cues, add its highest, scale, or crossfade over everything",
    "kind cues",
    (args) => ({ kind: args.submaster ? "submaster" : args.limiter ? "limiter" : args.takeover ? "takeover" : "list" }),
  ),
  command({
    chapter,
    syntax: "set list <list> kind effect <number:effect>",
    about: "it plays a cast effect: go starts it, release ends it, its level scales the mix",
    example: "set list 9 kind effect 4",
    read: (args, context) =>
      intents(playEffect.of({ list: args.list, effect: effectCalled(context.world.show, args.number) })),
  }),
  option("fade <time:seconds>", "of an effect lane: how long its effect takes to come in", "fade 2", (args) => ({
    fadeIn: args.time,
  })),
  option("htp (on | off)", "its intensity counts where it is highest", "htp on", (args) => ({ htp: args.on === true })),
  option("wrapdrop (on | off)", "round the end, drop what tracked", "wrapdrop off", (args) => ({
    wrapDrop: args.on === true,
  })),
  option(
    "overtaken (return | letgo)",
    "whether a parameter comes back when the list over it goes",
    "overtaken letgo",
    (args) => ({ letGo: args.letgo === true }),
  ),
  option("bowout (on | off)", "is released when a hand gives go to another", "bowout on", (args) => ({
    bowOut: args.on === true,
  })),
  option(
    "restart (first | left)",
    "after a release, start at the first cue or where it left off",
    "restart left",
    (args) => ({ resume: args.left === true }),
  ),
  option("name <label:text>", "name a list", 'name "Main"', (args) => ({ name: args.label })),
  option("priority <level:priority>", "higher wins over lower, whatever came last", "priority 5", (args) => ({
    priority: args.level,
  })),
  option("backtime <time:seconds>", "the time of back", "backtime 1", (args) => ({ backTime: args.time })),
  option("releasetime <time:seconds>", "the time of release", "releasetime 0", (args) => ({ releaseTime: args.time })),
  option(
    "blackmoves (on | off)",
    "dark fixtures go beforehand to where they will next be lit",
    "blackmoves off",
    (args) => ({ blackMoves: args.on === true }),
  ),
  option("blacktime <time:seconds>", "how long a move in black takes", "blacktime 2", (args) => ({
    blackTime: args.time,
  })),
  option("ready (on | off)", "what a go lights up stands where it belongs at once", "ready on", (args) => ({
    ready: args.on === true,
  })),
  option("end (wrap | stop | release)", "what go does in the last cue", "end wrap", (args) => ({
    end: args.wrap ? "wrap" : args.release ? "release" : "stop",
  })),
  command({
    chapter,
    syntax: "arm list <list>",
    about: "the list that plain keys act on",
    example: "arm list 1",
    read: (args, context) => intents(arm.of({ list: listOf(args, context).id })),
  }),
];
