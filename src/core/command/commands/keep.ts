/** Keeping what was made: groups, cues, lists, undo; in the command language. */
import { deleteCue, recordCue, setCue, setList } from "../../cue/intents";
import { arm } from "../../program/intents";
import { deleteGroup, nameGroup, recordGroup } from "../../select/groupIntents";
import { fail } from "../../show/refusal";
import { groupNumbered } from "../../show/world";
import type { Trigger } from "../../show/schema";
import type { Family } from "../../fixture/attribute";
import { cueOf, intents, itemsOf, listOf, type Command, type ReadContext } from "../command";
import type { Args } from "../grammar";

const chapter = "Keeping";

const groupOf = (args: Args, { world }: ReadContext) => groupNumbered(world.show, args.number as number) ?? fail(`there is no group ${args.number as number}`);

/** fade, up, down, delay, updelay, downdelay as cue times. */
function timesOf(args: Args) {
  const n = (name: string) => args[name] as number | undefined;
  const [fade, delay] = [n("fadeTime"), n("delayTime")];
  const times = { up: n("upTime") ?? fade, down: n("downTime") ?? fade, delayUp: n("upDelay") ?? delay, delayDown: n("downDelay") ?? delay };
  return Object.fromEntries(Object.entries(times).filter(([, v]) => v !== undefined)) as { up?: number; down?: number; delayUp?: number; delayDown?: number };
}

const triggerOf = (args: Args): Trigger | undefined =>
  args.after === undefined ? (args.manual ? { kind: "go" } : undefined) : { kind: args.done ? "autoDone" : "auto", after: args.after as number };

const TIMES = "[fade <fadeTime:seconds>] [up <upTime:seconds>] [down <downTime:seconds>] [delay <delayTime:seconds>] [updelay <upDelay:seconds>] [downdelay <downDelay:seconds>]";
const inCue = (args: Args, context: ReadContext) => {
  const list = listOf(args, context);
  return { list: list.id, cue: cueOf(list, args.cueNumber as number).id };
};
const setting = (syntax: string, about: string, example: string, change: (args: Args) => object): Command => ({
  chapter, syntax: `set [list <list:int>] cue <cueNumber:cue> ${syntax}`, about, example: `set cue 1 ${example}`,
  read: (args, context) => intents(setCue.of({ ...inCue(args, context), ...change(args) })),
});
const option = (syntax: string, about: string, example: string, change: (args: Args) => object): Command => ({
  chapter, syntax: `set list <list:int> ${syntax}`, about, example: `set list 1 ${example}`,
  read: (args, context) => intents(setList.of({ list: listOf(args, context).id, change: change(args) })),
});

export const KEEPING: Command[] = [
  {
    chapter, syntax: "record group <number:int> [<name:text>]", about: "the selection, in its order", example: 'record group 6 "Rail port"',
    read: (args, context) => intents(recordGroup.of({ number: args.number as number, members: itemsOf({}, context), ...(args.name === undefined ? {} : { name: args.name as string }) })),
  },
  { chapter, syntax: "set group <number:int> name <label:text>", about: "name a group", example: 'set group 1 name "Rail"', read: (args, context) => intents(nameGroup.of({ group: groupOf(args, context).id, name: args.label as string })) },
  { chapter, syntax: "delete group <number:int>", about: "delete a group; its fixtures stay", example: "delete group 1", read: (args, context) => intents(deleteGroup.of({ group: groupOf(args, context).id })) },
  {
    chapter, syntax: `record [list <list:int>] cue <cueNumber:cue> [<name:text>] ${TIMES} [auto [done] <after:seconds>] [cueonly] [merge | overwrite] [empty]`,
    about: "what is held, as a cue; onto one that exists it merges unless told otherwise", example: 'record cue 5 "Tide turns" fade 4',
    read(args, context) {
      const times = timesOf(args);
      const trigger = triggerOf(args);
      return intents(recordCue.of({
        list: typeof args.list === "number" ? args.list : listOf({}, context).number, cue: args.cueNumber as number,
        ...(args.name === undefined ? {} : { name: args.name as string }),
        ...(Object.keys(times).length ? { times } : {}),
        ...(trigger ? { trigger } : {}),
        ...(args.overwrite ? { onto: "overwrite" as const } : {}),
        ...(args.cueonly ? { cueOnly: true } : {}),
        ...(args.empty ? { empty: true } : {}),
      }));
    },
  },
  setting("name <label:text>", "name a cue", 'name "Dawn"', (args) => ({ name: args.label })),
  setting("note <label:text>", "a note to the cue", 'note "on the bell"', (args) => ({ note: args.label })),
  setting("fade <fadeTime:seconds>", "fade up and down", "fade 4", (args) => ({ times: timesOf(args) })),
  ...(["up", "down"] as const).map((way) => setting(`${way} <${way}Time:seconds>`, `the fade of what goes ${way}`, `${way} 4`, (args) => ({ times: timesOf(args) }))),
  setting("delay <delayTime:seconds>", "the delay before it moves", "delay 1", (args) => ({ times: timesOf(args) })),
  setting("updelay <upDelay:seconds>", "the delay of what goes up", "updelay 1", (args) => ({ times: timesOf(args) })),
  setting("downdelay <downDelay:seconds>", "the delay of what goes down", "downdelay 1", (args) => ({ times: timesOf(args) })),
  setting("auto [done] <after:seconds>", "follow by itself, after the previous go or (done) after it is complete", "auto 2", (args) => ({ trigger: triggerOf(args) })),
  setting("manual", "wait for go", "manual", () => ({ trigger: { kind: "go" } })),
  setting("<which:family> [delay <familyDelay:seconds>] [fade <familyFade:seconds>]", "times of one family", "position fade 2 delay 1", (args) => ({
    family: { name: args.which as Family, ...(args.familyDelay === undefined ? {} : { delay: args.familyDelay }), ...(args.familyFade === undefined ? {} : { fade: args.familyFade }) },
  })),
  {
    chapter, syntax: "delete [list <list:int>] cue <cueNumber:cue> [keeplooks | track]", about: "delete a cue; later looks stay unless told to track", example: "delete cue 2",
    read: (args, context) => intents(deleteCue.of({ ...inCue(args, context), keepLooks: args.track !== true })),
  },
  option("name <label:text>", "name a list", 'name "Main"', (args) => ({ name: args.label })),
  option("priority <level:whole>", "higher wins over lower, whatever came last", "priority 5", (args) => ({ priority: args.level })),
  option("backtime <time:seconds>", "the time of back", "backtime 1", (args) => ({ backTime: args.time })),
  option("releasetime <time:seconds>", "the time of release", "releasetime 0", (args) => ({ releaseTime: args.time })),
  option("end (wrap | stop | release)", "what go does in the last cue", "end wrap", (args) => ({ end: args.wrap ? "wrap" : args.release ? "release" : "stop" })),
  { chapter, syntax: "arm list <list:int>", about: "the list that plain keys act on", example: "arm list 1", read: (args, context) => intents(arm.of({ list: listOf(args, context).id })) },
  { chapter, syntax: "undo", about: "one step back in show edits and held values", example: "undo", read: () => ({ intents: [], events: [], control: "undo" }) },
  { chapter, syntax: "redo", about: "do again what was undone", example: "redo", read: () => ({ intents: [], events: [], control: "redo" }) },
];
