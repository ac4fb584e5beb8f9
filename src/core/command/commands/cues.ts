/** Recording cues and changing them, in the command language. */
import { bringBack, dropSignature, signOff } from "../../cue/signIntents";
import { clean } from "../../cue/cleanIntent";
import { copyCue } from "../../cue/copyIntent";
import { blockCue, deleteCue, moveCue, setCue, unblockCue } from "../../cue/intents";
import { partsOf } from "../../cue/looks";
import { reachMore } from "../../cue/reach";
import { recordCue, takeCue, updateCue } from "../../cue/recordIntents";
import { recordSteps } from "../../cue/stepIntents";
import type { CueTimes, Trigger } from "../../show/schema";
import type { Entry } from "../../show/value";
import { cuesOf, fixturesByNumber, listNumbered } from "../../show/world";
import type { ArgsOf } from "../args";
import { paletteOf } from "./palettes";
import { command, cueOf, fixturesOf, intents, listOf, type Command } from "../command";
import type { ReadContext } from "../context";

const chapter = "Keeping";

const TIMES =
  "[fade <fadeTime:seconds>] [up <upTime:seconds>] [down <downTime:seconds>] [delay <delayTime:seconds>] [updelay <upDelay:seconds>] [downdelay <downDelay:seconds>]";

function timesOf({ fadeTime, delayTime, ...args }: ArgsOf<typeof TIMES>): Partial<Omit<CueTimes, "families">> {
  const times = {
    up: args.upTime ?? fadeTime,
    down: args.downTime ?? fadeTime,
    delayUp: args.upDelay ?? delayTime,
    delayDown: args.downDelay ?? delayTime,
  };
  return Object.fromEntries(Object.entries(times).filter(([, v]) => v !== undefined));
}

const triggerOf = (done: true | undefined, after: number): Trigger => ({ kind: done ? "autoDone" : "auto", after });

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

const inCue = (args: { list?: number | undefined; cueNumber: number }, context: ReadContext) => {
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

export const CUES: Command[] = [
  command({
    chapter,
    syntax: `record [list <list>] cue <cueNumber:cue> [<name:text>] ${TIMES} [auto [done] <after:seconds>] [cueonly | keeplooks] [merge | overwrite] [from stage] [empty]`,
    about: "what is held, as a cue; onto one that exists it merges unless told otherwise",
    example: 'record cue 5 "Tide turns" fade 4',
    read(args, context) {
      const times = timesOf(args);
      return intents(
        recordCue.of({
          list: args.list ?? listOf({}, context).number,
          cue: args.cueNumber,
          ...(args.name === undefined ? {} : { name: args.name }),
          ...(Object.keys(times).length ? { times } : {}),
          ...(args.after === undefined ? {} : { trigger: triggerOf(args.done, args.after) }),
          ...(args.overwrite ? { onto: "overwrite" as const } : {}),
          ...(args.cueonly ? { looks: "cueonly" as const } : args.keeplooks ? { looks: "keeplooks" as const } : {}),
          ...(args.empty ? { empty: true } : {}),
          ...(args.stage ? { entries: stageEntries(context) } : {}),
        }),
      );
    },
  }),
  command({
    chapter,
    syntax:
      "record steps [list <list>] [from cue <first:cue>] [fade <time:seconds>] [others out | others palette <palette:palette>] [as chase]",
    about:
      "one cue for each step of the spread: what is held on its fixtures, the others left as they are, out or in a palette; the list perhaps a chase",
    example: "record steps list 7 from cue 1 fade 0 others out",
    read(args, { world }) {
      const list = args.list === undefined ? world.show.lists[world.hands.armed] : listNumbered(world.show, args.list);
      const last = list ? (cuesOf(list).at(-1)?.number ?? 0) : 0;
      return intents(
        recordSteps.of({
          list: args.list ?? list?.number ?? 1,
          from: args.first ?? Math.floor(last) + 1,
          ...(args.time === undefined ? {} : { fade: args.time }),
          others:
            args.palette === undefined
              ? args.out
                ? "out"
                : "leave"
              : { palette: paletteOf(args.palette, { world }).id },
          ...(args.chase ? { chase: true as const } : {}),
        }),
      );
    },
  }),
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
  setting("assert (on | off)", "its go stamps everything in force", "assert on", (args) => ({
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
  setting(
    "curve (linear | smooth | early | late)",
    "how the progress of its intensity is bent",
    "curve smooth",
    (args) => ({ curve: args.smooth ? "smooth" : args.early ? "early" : args.late ? "late" : "linear" }),
  ),
  command({
    chapter,
    syntax: "set [list <list>] cue <cueNumber:cue> then cue <target:cue>",
    about: "its next plain go leads there, as a jump",
    example: "set cue 3 then cue 1",
    read(args, context) {
      const here = inCue(args, context);
      return intents(setCue.of({ ...here, then: cueOf(context.world.show.lists[here.list]!, args.target).id }));
    },
  }),
  setting("then on", "its next go leads to the cue after it", "then on", () => ({ then: null })),
  setting("runs <line:text>", "a line that is run at its go; an empty one for none", 'runs "go list 2"', (args) => ({
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
    about: "what it lights up stands where it belongs at once; list = as its list does",
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
  command({
    chapter,
    syntax: "delete [list <list>] cue <cueNumber:cue> [keeplooks | track]",
    about: "delete a cue; later looks stay unless told to track",
    example: "delete cue 2",
    read: (args, context) => intents(deleteCue.of({ ...inCue(args, context), keepLooks: args.track !== true })),
  }),
  command({
    chapter,
    syntax: "update [list <list>] cue <cueNumber:cue> [all] [cueonly | keeplooks]",
    about: "write what is held into a cue where it stores it; all = the rest too",
    example: "update cue 1 all",
    read: (args, context) =>
      intents(
        updateCue.of({
          ...inCue(args, context),
          all: args.all === true,
          ...(args.cueonly ? { looks: "cueonly" as const } : args.keeplooks ? { looks: "keeplooks" as const } : {}),
        }),
      ),
  }),
  command({
    chapter,
    syntax: "take [list <list>] cue <cueNumber:cue> [all]",
    about: "into the programmer: what a cue stores; all = what is in force",
    example: "take cue 1",
    read: (args, context) => intents(takeCue.of({ ...inCue(args, context), all: args.all === true })),
  }),
  command({
    chapter,
    syntax: "block [list <list>] cue <cueNumber:cue>",
    about: "everything in force becomes stored here",
    example: "block cue 3",
    read: (args, context) => intents(blockCue.of(inCue(args, context))),
  }),
  command({
    chapter,
    syntax: "unblock [list <list>] cue <cueNumber:cue>",
    about: "drop what would track in just the same",
    example: "unblock cue 3",
    read: (args, context) => intents(unblockCue.of(inCue(args, context))),
  }),
  command({
    chapter,
    syntax:
      "copy [list <from:list>] cue <cueNumber:cue> [thru <last:cue>] to [list <other:list>] cue <target:cue> [bring (stored | seen | everything)] [elsewhere (keep | defaults | release)] [merge | overwrite] [cueonly | keeplooks]",
    about:
      "bring what a cue stores, what is seen in it, or everything in force; elsewhere: what the list uses besides stays, goes to its default, or is released. Several keep their distances",
    example: "copy cue 3 to cue 30 bring seen",
    read(args, context) {
      const list = listOf({ list: args.from }, context);
      const { other } = args;
      return intents(
        copyCue.of({
          list: list.id,
          cue: cueOf(list, args.cueNumber).id,
          ...(args.last === undefined ? {} : { thru: cueOf(list, args.last).id }),
          toList: other ?? list.number,
          to: args.target,
          bring: args.seen ? "seen" : args.everything ? "everything" : "stored",
          elsewhere: args.defaults ? "defaults" : args.release ? "release" : "keep",
          onto: args.overwrite ? "overwrite" : "merge",
          looks: args.cueonly ? "cueonly" : args.keeplooks ? "keeplooks" : "track",
        }),
      );
    },
  }),
  command({
    chapter,
    syntax: "sign off [list <list>] cue <cueNumber:cue> [thru <last:cue>]",
    about: "the look is agreed on: any later change of it is told",
    example: "sign off cue 1",
    read(args, context) {
      const { list, cue } = inCue(args, context);
      return intents(
        signOff.of({
          list,
          cue,
          ...(args.last === undefined ? {} : { thru: cueOf(context.world.show.lists[list]!, args.last).id }),
        }),
      );
    },
  }),
  command({
    chapter,
    syntax: "drop signature [list <list>] cue <cueNumber:cue>",
    about: "the look of a cue is not signed off any more",
    example: "drop signature cue 2",
    read: (args, context) => intents(dropSignature.of(inCue(args, context))),
  }),
  command({
    chapter,
    syntax: "bring back [list <list>] cue <cueNumber:cue>",
    about: "store what gives a cue its signed look again; the next cue keeps its own",
    example: "bring back cue 2",
    read: (args, context) => intents(bringBack.of(inCue(args, context))),
  }),
  command({
    chapter,
    syntax: "clean [list <list>] [cue <cueNumber:cue> [thru <last:cue>]]",
    about: "take drift out of a list, or of some cues, and store it where it is next seen; every look stays",
    example: "clean list 1",
    read(args, context) {
      const list = listOf(args, context);
      return intents(
        clean.of({
          list: list.id,
          ...(args.cueNumber === undefined ? {} : { cue: cueOf(list, args.cueNumber).id }),
          ...(args.last === undefined ? {} : { thru: cueOf(list, args.last).id }),
        }),
      );
    },
  }),
  command({
    chapter,
    syntax: "move [list <list>] cue <cueNumber:cue> to cue <target:cue> [keeplooks | track]",
    about: "another number and place; other looks stay unless told to track",
    example: "move cue 2 to cue 4.5",
    read: (args, context) =>
      intents(moveCue.of({ ...inCue(args, context), to: args.target, keepLooks: args.track !== true })),
  }),
];
