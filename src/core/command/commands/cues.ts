/** Recording cues and changing them, in the command language. */
import { bringBack, dropSignature, signOff } from "../../cue/intents/signIntents";
import { clean } from "../../cue/intents/cleanIntent";
import { copyCue } from "../../cue/intents/copyIntent";
import { blockCue, deleteCue, moveCue, unblockCue } from "../../cue/intents/intents";
import { partsOf } from "../../cue/looks";
import { recordCue, takeCue, updateCue } from "../../cue/intents/recordIntents";
import { recordSteps } from "../../cue/intents/stepIntents";
import type { Entry } from "../../show/value";
import { cuesOf, fixturesByNumber, listNumbered } from "../../show/world";
import { paletteOf } from "./palettes";
import { CUE_SETTINGS, inCue, TIMES, timesOf, triggerOf } from "./cueSettings";
import { command, cueOf, intents, listOf, type Command } from "../command";
import type { ReadContext } from "../context";

const chapter = "Keeping";

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
  ...CUE_SETTINGS,
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
    about: "remove values that would track in anyway",
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
