/** Keeping what was made: groups, cues, lists, undo; in the command language. */
import { blockCue, deleteCue, moveCue, renumberCues, setCue, setList, unblockCue } from "../../cue/intents";
import { recordCue, takeCue, updateCue } from "../../cue/recordIntents";
import { partsOf } from "../../cue/looks";
import { reachMore } from "../../cue/reach";
import { arm } from "../../program/intents";
import { deleteGroup, nameGroup, recordGroup } from "../../select/groupIntents";
import { nameShow } from "../../show/nameShow";
import { fail } from "../../show/refusal";
import { fixturesByNumber, groupNumbered } from "../../show/world";
import type { Entry } from "../../show/value";
import type { Trigger } from "../../show/schema";
import type { Family } from "../../fixture/attribute";
import { cueOf, intents, itemsOf, listOf, type Command, type ReadContext } from "../command";
import type { Args } from "../grammar";

const chapter = "Keeping";

const groupOf = (args: Args, { world }: ReadContext) =>
  groupNumbered(world.show, args.number as number) ?? fail(`there is no group ${args.number as number}`);

/** fade, up, down, delay, updelay, downdelay as cue times. */
function timesOf(args: Args) {
  const n = (name: string) => args[name] as number | undefined;
  const [fade, delay] = [n("fadeTime"), n("delayTime")];
  const times = {
    up: n("upTime") ?? fade,
    down: n("downTime") ?? fade,
    delayUp: n("upDelay") ?? delay,
    delayDown: n("downDelay") ?? delay,
  };
  return Object.fromEntries(Object.entries(times).filter(([, v]) => v !== undefined)) as {
    up?: number;
    down?: number;
    delayUp?: number;
    delayDown?: number;
  };
}

const triggerOf = (args: Args): Trigger | undefined =>
  args.after === undefined
    ? args.manual
      ? { kind: "go" }
      : undefined
    : { kind: args.done ? "autoDone" : "auto", after: args.after as number };

/** The look on stage: lit fixtures with all they show, dark ones with their Dimmer at 0. */
function stageEntries({ world: { show }, stage, isLit }: ReadContext): Record<string, Entry> {
  return Object.fromEntries(
    fixturesByNumber(show).flatMap((fixture) => {
      const lit = isLit(fixture.id);
      return partsOf(show, fixture).flatMap(({ key, spec }): [string, Entry][] => {
        if (!lit && (spec.head !== "Dimmer" || spec.cell > 0)) return [];
        const now = stage(key) ?? { attribute: spec.head, value: spec.default };
        return [[key, { attribute: now.attribute, value: lit ? now.value : 0 }]];
      });
    }),
  );
}

const TIMES =
  "[fade <fadeTime:seconds>] [up <upTime:seconds>] [down <downTime:seconds>] [delay <delayTime:seconds>] [updelay <upDelay:seconds>] [downdelay <downDelay:seconds>]";
const inCue = (args: Args, context: ReadContext) => {
  const list = listOf(args, context);
  return { list: list.id, cue: cueOf(list, args.cueNumber as number).id };
};
const setting = (syntax: string, about: string, example: string, change: (args: Args) => object): Command => ({
  chapter,
  syntax: `set [list <list>] cue <cueNumber:cue> ${syntax}`,
  about,
  example: `set cue 1 ${example}`,
  read: (args, context) => intents(setCue.of({ ...inCue(args, context), ...change(args) })),
});
const option = (syntax: string, about: string, example: string, change: (args: Args) => object): Command => ({
  chapter,
  syntax: `set list <list> ${syntax}`,
  about,
  example: `set list 1 ${example}`,
  read: (args, context) => intents(setList.of({ list: listOf(args, context).id, change: change(args) })),
});

export const KEEPING: Command[] = [
  {
    chapter,
    syntax: "record group <number:group> [<name:text>] [merge | overwrite]",
    about: "the selection, in its order; onto one that exists it adds unless told otherwise",
    example: 'record group 6 "Rail port"',
    read: (args, context) =>
      intents(
        recordGroup.of({
          number: args.number as number,
          members: itemsOf({}, context),
          ...(args.name === undefined ? {} : { name: args.name as string }),
          ...(args.overwrite ? { onto: "overwrite" as const } : {}),
        }),
      ),
  },
  {
    chapter,
    syntax: "set group <number:group> name <label:text>",
    about: "name a group",
    example: 'set group 1 name "Rail"',
    read: (args, context) => intents(nameGroup.of({ group: groupOf(args, context).id, name: args.label as string })),
  },
  {
    chapter,
    syntax: "delete group <number:group>",
    about: "delete a group; its fixtures stay",
    example: "delete group 1",
    read: (args, context) => intents(deleteGroup.of({ group: groupOf(args, context).id })),
  },
  {
    chapter,
    syntax: `record [list <list>] cue <cueNumber:cue> [<name:text>] ${TIMES} [auto [done] <after:seconds>] [cueonly] [merge | overwrite] [from stage] [empty]`,
    about: "what is held, as a cue; onto one that exists it merges unless told otherwise",
    example: 'record cue 5 "Tide turns" fade 4',
    read(args, context) {
      const times = timesOf(args);
      const trigger = triggerOf(args);
      return intents(
        recordCue.of({
          list: typeof args.list === "number" ? args.list : listOf({}, context).number,
          cue: args.cueNumber as number,
          ...(args.name === undefined ? {} : { name: args.name as string }),
          ...(Object.keys(times).length ? { times } : {}),
          ...(trigger ? { trigger } : {}),
          ...(args.overwrite ? { onto: "overwrite" as const } : {}),
          ...(args.cueonly ? { cueOnly: true } : {}),
          ...(args.empty ? { empty: true } : {}),
          ...(args.stage ? { entries: stageEntries(context) } : {}),
        }),
      );
    },
  },
  setting("name <label:text>", "name a cue", 'name "Dawn"', (args) => ({ name: args.label })),
  setting("note <label:text>", "a note to the cue", 'note "on the bell"', (args) => ({ note: args.label })),
  setting("fade <fadeTime:seconds>", "fade up and down", "fade 4", (args) => ({ times: timesOf(args) })),
  ...(["up", "down"] as const).map((way) =>
    setting(`${way} <${way}Time:seconds>`, `the fade of what goes ${way}`, `${way} 4`, (args) => ({
      times: timesOf(args),
    })),
  ),
  setting("delay <delayTime:seconds>", "the delay before it moves", "delay 1", (args) => ({ times: timesOf(args) })),
  setting("updelay <upDelay:seconds>", "the delay of what goes up", "updelay 1", (args) => ({ times: timesOf(args) })),
  setting("downdelay <downDelay:seconds>", "the delay of what goes down", "downdelay 1", (args) => ({
    times: timesOf(args),
  })),
  setting(
    "auto [done] <after:seconds>",
    "follow by itself, after the previous go or (done) after it is complete",
    "auto 2",
    (args) => ({ trigger: triggerOf(args) }),
  ),
  setting("fresh (on | off)", "nothing before this cue tracks into it", "fresh on", (args) => ({
    fresh: args.on === true,
  })),
  setting("assert (on | off)", "its go stamps everything in force", "assert on", (args) => ({
    assert: args.on === true,
  })),
  setting("reach (<upTo:cue> | off)", "its values cover later cues up to a number; off = all", "reach 7", (args) => ({
    reach: args.off ? null : { upTo: args.upTo },
  })),
  {
    chapter,
    syntax: "set [list <list>] cue <cueNumber:cue> reach <more:plus>",
    about: "its values cover so many more cues",
    example: "set cue 1 reach +2",
    read(args, context) {
      const { list, cue } = inCue(args, context);
      return intents(
        setCue.of({ list, cue, reach: reachMore(context.world.show.lists[list]!, cue, args.more as number) }),
      );
    },
  },
  setting("manual", "wait for go", "manual", () => ({ trigger: { kind: "go" } })),
  setting(
    "<which:family> [delay <familyDelay:seconds>] [fade <familyFade:seconds>]",
    "times of one family",
    "position fade 2 delay 1",
    (args) => ({
      family: {
        name: args.which as Family,
        ...(args.familyDelay === undefined ? {} : { delay: args.familyDelay }),
        ...(args.familyFade === undefined ? {} : { fade: args.familyFade }),
      },
    }),
  ),
  {
    chapter,
    syntax: "delete [list <list>] cue <cueNumber:cue> [keeplooks | track]",
    about: "delete a cue; later looks stay unless told to track",
    example: "delete cue 2",
    read: (args, context) => intents(deleteCue.of({ ...inCue(args, context), keepLooks: args.track !== true })),
  },
  {
    chapter,
    syntax: "update [list <list>] cue <cueNumber:cue> [all] [cueonly]",
    about: "write what is held into a cue where it stores it; all = the rest too",
    example: "update cue 1 all",
    read: (args, context) =>
      intents(updateCue.of({ ...inCue(args, context), all: args.all === true, cueOnly: args.cueonly === true })),
  },
  {
    chapter,
    syntax: "take [list <list>] cue <cueNumber:cue> [all]",
    about: "into the programmer: what a cue stores; all = what is in force",
    example: "take cue 1",
    read: (args, context) => intents(takeCue.of({ ...inCue(args, context), all: args.all === true })),
  },
  {
    chapter,
    syntax: "block [list <list>] cue <cueNumber:cue>",
    about: "everything in force becomes stored here",
    example: "block cue 3",
    read: (args, context) => intents(blockCue.of(inCue(args, context))),
  },
  {
    chapter,
    syntax: "unblock [list <list>] cue <cueNumber:cue>",
    about: "drop what would track in just the same",
    example: "unblock cue 3",
    read: (args, context) => intents(unblockCue.of(inCue(args, context))),
  },
  {
    chapter,
    syntax: "move [list <list>] cue <cueNumber:cue> to cue <to:cue> [keeplooks | track]",
    about: "another number and place; other looks stay unless told to track",
    example: "move cue 2 to cue 4.5",
    read: (args, context) =>
      intents(moveCue.of({ ...inCue(args, context), to: args.to as number, keepLooks: args.track !== true })),
  },
  {
    chapter,
    syntax: "renumber list <list> from <from:cue> step <by:cue>",
    about: "new numbers for all cues, in order",
    example: "renumber list 1 from 1 step 1",
    read: (args, context) =>
      intents(renumberCues.of({ list: listOf(args, context).id, from: args.from as number, step: args.by as number })),
  },
  option(
    "kind (cues | submaster | limiter | takeover)",
    "what the playback does: play cues, add its highest, scale, or crossfade over everything",
    "kind cues",
    (args) => ({ kind: args.submaster ? "submaster" : args.limiter ? "limiter" : args.takeover ? "takeover" : "list" }),
  ),
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
  option("end (wrap | stop | release)", "what go does in the last cue", "end wrap", (args) => ({
    end: args.wrap ? "wrap" : args.release ? "release" : "stop",
  })),
  {
    chapter,
    syntax: "arm list <list>",
    about: "the list that plain keys act on",
    example: "arm list 1",
    read: (args, context) => intents(arm.of({ list: listOf(args, context).id })),
  },
  {
    chapter,
    syntax: "set show name <label:text>",
    about: "name the show",
    example: 'set show name "The Salt Lantern"',
    read: (args) => intents(nameShow.of({ name: args.label as string })),
  },
  {
    chapter,
    syntax: "undo",
    about: "one step back in show edits and held values",
    example: "undo",
    read: () => ({ intents: [], events: [], control: "undo" }),
  },
  {
    chapter,
    syntax: "redo",
    about: "do again what was undone",
    example: "redo",
    read: () => ({ intents: [], events: [], control: "redo" }),
  },
];
