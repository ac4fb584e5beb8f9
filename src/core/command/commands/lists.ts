/** Cue lists and their settings, in the command language. */
import { playEffect, renumberCues, setList } from "../../cue/intents/intents";
import { deleteList, duplicateList } from "../../cue/intents/listIntents";
import { setTimecode, shiftTimes } from "../../deck/timecodeIntent";
import { arm } from "../../program/intents";
import type { ListChange } from "../../cue/intents/settingLines";
import type { ArgsOf } from "../args";
import { effectCalled } from "../voices";
import { command, intents, listOf, type Command } from "../command";

const chapter = "Keeping";

/** One setting of a list. */
const option = <const S extends string>(
  syntax: S,
  about: string,
  example: string,
  change: (args: ArgsOf<S>) => ListChange,
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
    "kind (cues | submaster | limiter | takeover | chase | morph)",
    "what the playback does: play cues, add its highest, scale, crossfade over everything, step by beats, lead through looks by its level",
    "kind cues",
    (args) => ({
      kind: (["submaster", "limiter", "takeover", "chase", "morph"] as const).find((kind) => args[kind]) ?? "list",
    }),
  ),
  command({
    chapter,
    syntax: "set list <list> kind effect <number:effect>",
    about: "it plays a cast effect: go starts it, release ends it, its level scales the mix",
    example: "set list 99 kind effect 4",
    read: (args, context) =>
      intents(playEffect.of({ list: args.list, effect: effectCalled(context.world.show, args.number) })),
  }),
  option("fade <time:seconds>", "of an effect lane: how long its effect takes to come in", "fade 2", (args) => ({
    fadeIn: args.time,
  })),
  option("htp (on | off)", "its intensity counts where it is highest", "htp on", (args) => ({ htp: args.on === true })),
  option("wrapdrop (on | off)", "when it wraps, drop what tracked", "wrapdrop off", (args) => ({
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
  option("ready (on | off)", "what a go lights up is in place at once", "ready on", (args) => ({
    ready: args.on === true,
  })),
  option("end (wrap | stop | release)", "what go does in the last cue", "end wrap", (args) => ({
    end: args.wrap ? "wrap" : args.release ? "release" : "stop",
  })),
  command({
    chapter,
    syntax: "set list <list> bpm <beats:bpm>",
    about: "of a chase: beats a minute",
    example: "set list 1 bpm 96",
    read(args, context) {
      const list = listOf(args, context).id;
      return { ...intents(setList.of({ list, change: { bpm: args.beats } })), events: [{ kind: "bpm", list }] };
    },
  }),
  option("share <part:percent>", "of a chase: how much of a beat its moves take", "share 40", (args) => ({
    share: args.part,
  })),
  option(
    "direction (forward | backward | bounce | random)",
    "of a chase: the way its steps come",
    "direction bounce",
    (args) => ({
      direction: (["backward", "bounce", "random"] as const).find((way) => args[way]) ?? "forward",
    }),
  ),
  option("tempo (<shared:tempo> | own)", "those with the same number are tapped together", "tempo 1", (args) => ({
    tempo: args.shared ?? null,
  })),
  option(
    "fader (level | crossfade)",
    "what the lane of a cue list does: scale its intensity, or be the way into the next cue",
    "fader crossfade",
    (args) => ({ fader: args.crossfade ? "crossfade" : "level" }),
  ),
  option("raised (go | wait)", "leaving 0 gives go to a released list", "raised go", (args) => ({
    raised: args.go ? "go" : "wait",
  })),
  option("zero (release | hold)", "reaching 0 releases it at once", "zero release", (args) => ({
    zero: args.release ? "release" : "hold",
  })),
  option("timecode (on | off)", "its cues with a time come by timecode", "timecode on", (args) => ({
    timecode: args.on === true,
  })),
  command({
    chapter,
    syntax: "set list <list> times by <shift:number>",
    about: "moves the times of all its cues on timecode, seconds",
    example: "set list 11 times by +1.5",
    read: (args, context) => intents(shiftTimes.of({ list: listOf(args, context).id, by: args.shift })),
  }),
  command({
    chapter,
    syntax: "set timecode rate <frames:frameRate>",
    about: "how timecode is counted: 29.97 is drop-frame; the times of cues keep what they read",
    example: "set timecode rate 25",
    read: (args) => intents(setTimecode.of({ rate: args.frames })),
  }),
  command({
    chapter,
    syntax: "set timecode freewheel <time:seconds>",
    about: "how long it goes on by itself when its source is lost",
    example: "set timecode freewheel 2",
    read: (args) => intents(setTimecode.of({ freewheel: args.time })),
  }),
  command({
    chapter,
    syntax: "arm list <list>",
    about: "the list that plain keys act on",
    example: "arm list 1",
    read: (args, context) => intents(arm.of({ list: listOf(args, context).id })),
  }),
  command({
    chapter,
    syntax: "arm list <lists>",
    about: "several lists at once: plain keys act on all of them",
    example: "arm list 1 + 3",
    read(args, context) {
      const [first, ...also] = args.lists.map((list) => listOf({ list }, context).id);
      return intents(arm.of({ list: first!, also }));
    },
  }),
];
