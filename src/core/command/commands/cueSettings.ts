/** What is set of a cue that exists, in the command language. */
import { setCue } from "../../cue/intents/intents";
import { reachMore } from "../../cue/reach";
import type { CueTimes, Trigger } from "../../show/schema";
import type { ArgsOf } from "../args";
import { command, cueOf, fixturesOf, intents, listOf, type Command } from "../command";
import type { ReadContext } from "../context";

const chapter = "Keeping";

export const TIMES =
  "[fade <fadeTime:seconds>] [up <upTime:seconds>] [down <downTime:seconds>] [delay <delayTime:seconds>] [updelay <upDelay:seconds>] [downdelay <downDelay:seconds>]";

/** The times of a cue that a line tells. */
export function timesOf({ fadeTime, delayTime, ...args }: ArgsOf<typeof TIMES>): Partial<Omit<CueTimes, "families">> {
  const times = {
    up: args.upTime ?? fadeTime,
    down: args.downTime ?? fadeTime,
    delayUp: args.upDelay ?? delayTime,
    delayDown: args.downDelay ?? delayTime,
  };
  return Object.fromEntries(Object.entries(times).filter(([, v]) => v !== undefined));
}

/** How a cue starts that follows by itself. */
export const triggerOf = (done: true | undefined, after: number): Trigger => ({
  kind: done ? "autoDone" : "auto",
  after,
});

/** The cue a line is about. */
export const inCue = (args: { list?: number | undefined; cueNumber: number }, context: ReadContext) => {
  const list = listOf(args, context);
  return { list: list.id, cue: cueOf(list, args.cueNumber).id };
};

/** One setting of a cue. */
const setting = <const S extends string>(
  syntax: S,
  about: string,
  example: string,
  change: (args: ArgsOf<S>) => Omit<Parameters<typeof setCue.of>[0], "list" | "cue">,
): Command => ({
  chapter,
  syntax: `set [list <list>] cue <cueNumber:cue> ${syntax}`,
  about,
  example: `set cue 1 ${example}`,
  read: (args, context) =>
    intents(
      setCue.of({
        ...inCue(args as ArgsOf<"[list <list>] cue <cueNumber:cue>">, context),
        ...change(args as ArgsOf<S>),
      }),
    ),
});

export const CUE_SETTINGS: Command[] = [
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
    (args) => ({ trigger: triggerOf(args.done, args.after) }),
  ),
  setting("fresh (on | off)", "nothing before this cue tracks into it", "fresh on", (args) => ({
    fresh: args.on === true,
  })),
  setting("assert (on | off)", "on go, takes back everything it tracks from other lists", "assert on", (args) => ({
    assert: args.on === true,
  })),
  setting("reach <upTo:cue>", "its values cover later cues up to a number", "reach 7", ({ upTo }) => ({
    reach: { upTo },
  })),
  setting("reach off", "its values cover all later cues", "reach off", () => ({ reach: null })),
  command({
    chapter,
    syntax: "set [list <list>] cue <cueNumber:cue> reach <more:plus>",
    about: "its values cover so many more cues",
    example: "set cue 1 reach +2",
    read(args, context) {
      const { list, cue } = inCue(args, context);
      return intents(setCue.of({ list, cue, reach: reachMore(context.world.show.lists[list]!, cue, args.more) }));
    },
  }),
  setting("curve (linear | smooth | early | late)", "the fade curve of its intensity", "curve smooth", (args) => ({
    curve: args.smooth ? "smooth" : args.early ? "early" : args.late ? "late" : "linear",
  })),
  command({
    chapter,
    syntax: "set [list <list>] cue <cueNumber:cue> then cue <target:cue>",
    about: "its next plain go jumps there",
    example: "set cue 3 then cue 1",
    read(args, context) {
      const here = inCue(args, context);
      return intents(setCue.of({ ...here, then: cueOf(context.world.show.lists[here.list]!, args.target).id }));
    },
  }),
  setting("then on", "its next go leads to the cue after it", "then on", () => ({ then: null })),
  setting("runs <line:text>", "a line that runs on its go; an empty one for none", 'runs "go list 2"', (args) => ({
    runs: args.line,
  })),
  command({
    chapter,
    syntax: "set [list <list>] cue <cueNumber:cue> meant <sel>",
    about: "the moves of these fixtures in the dark are meant: they run by the cue's times",
    example: "set cue 1 meant 1 thru 3",
    read: (args, context) => intents(setCue.of({ ...inCue(args, context), meant: fixturesOf(args, context) })),
  }),
  setting("meant none", "no move in the dark is meant", "meant none", () => ({ meant: [] })),
  command({
    chapter,
    syntax: "set [list <of:list>] cue <cueNumber:cue> blackmoves (on | off | list) [<sel>]",
    about: "whether what is dark in it moves beforehand, for all or some fixtures; list = as its list does",
    example: "set cue 1 blackmoves off 1 thru 3",
    read: (args, context) =>
      intents(
        setCue.of({
          ...inCue({ list: args.of, cueNumber: args.cueNumber }, context),
          blackMoves: {
            on: args.on ? true : args.off ? false : null,
            ...(args.sel ? { fixtures: fixturesOf(args, context) } : {}),
          },
        }),
      ),
  }),
  command({
    chapter,
    syntax: "set [list <of:list>] cue <cueNumber:cue> ready (on | off | list)",
    about: "what it lights up is in place at once; list = as its list does",
    example: "set cue 1 ready on",
    read: (args, context) =>
      intents(
        setCue.of({
          ...inCue({ list: args.of, cueNumber: args.cueNumber }, context),
          ready: args.on ? true : args.off ? false : null,
        }),
      ),
  }),
  setting("place (<along:percent> | off)", "of a morph: where it lies along the level", "place 40", (args) => ({
    place: args.along ?? null,
  })),
  setting(
    "at (<time:frames> | off)",
    "on timecode: when it comes; hours, minutes and seconds with decimals",
    "at 0:01:02.5",
    (args) => ({ at: args.time ?? null }),
  ),
  setting("manual", "wait for go", "manual", () => ({ trigger: { kind: "go" } })),
  setting(
    "<which:family> [delay <familyDelay:seconds>] [fade <familyFade:seconds>]",
    "times of one family",
    "position fade 2 delay 1",
    (args) => ({
      family: {
        name: args.which,
        ...(args.familyDelay === undefined ? {} : { delay: args.familyDelay }),
        ...(args.familyFade === undefined ? {} : { fade: args.familyFade }),
      },
    }),
  ),
  setting("<which:family> cue time", "one family by the cue's times again", "position cue time", (args) => ({
    family: { name: args.which, off: true },
  })),
];
