/** Playing, in the command language. */
import { fail } from "../../show/refusal";
import { targetsOf } from "../../show/model";
import { cueOf, events, fixturesOf, itemsOf, listOf, listsOf, command, type Command } from "../command";

const chapter = "Playing";

const over = ({ time }: { time?: number | undefined }) => (time === undefined ? {} : { over: time });

export const PLAYING: Command[] = [
  command({
    chapter,
    syntax: "go [list <list>] [cue <cueNumber:cue>] [over <time:seconds>]",
    about: "the next cue, or the one named, by its times; over = all of it in so many seconds",
    example: "go list 1 cue 1",
    read(args, context) {
      if (args.cueNumber === undefined)
        return events(...listsOf(args, context).map((list) => ({ kind: "go" as const, list: list.id, ...over(args) })));
      const list = listOf(args, context);
      return events({ kind: "go", list: list.id, cue: cueOf(list, args.cueNumber).id, ...over(args) });
    },
  }),
  command({
    chapter,
    syntax: "go list <lists>",
    about: "the next cue of several lists at once",
    example: "go list 1 + 3",
    read: (args, context) =>
      events(...args.lists.map((list) => ({ kind: "go" as const, list: listOf({ list }, context).id }))),
  }),
  command({
    chapter,
    syntax: "next [list <list>] cue <cueNumber:cue>",
    about: "the next go goes there",
    example: "next list 1 cue 2",
    read(args, context) {
      const list = listOf(args, context);
      return events({ kind: "next", list: list.id, cue: cueOf(list, args.cueNumber).id });
    },
  }),
  command({
    chapter,
    syntax: "back [list <list>]",
    about: "the cue before, by the list's back time",
    example: "back list 1",
    read: (args, context) => events(...listsOf(args, context).map(({ id }) => ({ kind: "back" as const, list: id }))),
  }),
  command({
    chapter,
    syntax: "pause [list <list>]",
    about: "hold the list's clock; go resumes",
    example: "pause",
    read: (args, context) => events(...listsOf(args, context).map(({ id }) => ({ kind: "pause" as const, list: id }))),
  }),
  command({
    chapter,
    syntax: "release all",
    about: "release every list; what plays by its level (submasters, morphs) stays",
    example: "release all",
    read: () => events({ kind: "release", list: null }),
  }),
  command({
    chapter,
    syntax: "release [list <list>]",
    about: "release the list over its release time",
    example: "release list 1",
    read: (args, context) =>
      events(...listsOf(args, context).map(({ id }) => ({ kind: "release" as const, list: id }))),
  }),
  command({
    chapter,
    syntax: "assert [list <list>]",
    about: "take back everything the list tracks, by its cue's times",
    example: "assert list 1",
    read: (args, context) => events(...listsOf(args, context).map(({ id }) => ({ kind: "assert" as const, list: id }))),
  }),
  command({
    chapter,
    syntax: "flash [list <list>] (on | off)",
    about: "level 100 while held; a released list shows its first cue",
    example: "flash list 1 on",
    read: (args, context) => events({ kind: "flash", list: listOf(args, context).id, on: args.on === true }),
  }),
  command({
    chapter,
    syntax: "level [list <list>] at <amount:percent> [over <time:seconds>]",
    about: "scales the list's intensity; over = in so many seconds",
    example: "level list 1 at 60",
    read: (args, context) =>
      events({ kind: "level", list: listOf(args, context).id, value: args.amount, ...over(args) }),
  }),
  command({
    chapter,
    syntax: "rate [list <list>] at <amount:rate>",
    about: "how fast the list's times run",
    example: "rate list 1 at 200",
    read: (args, context) => events({ kind: "rate", list: listOf(args, context).id, value: args.amount }),
  }),
  command({
    chapter,
    syntax: "effectrate [list <list>] at <amount:rate>",
    about: "how fast the list's effects run",
    example: "effectrate list 1 at 50",
    read: (args, context) => events({ kind: "effectRate", list: listOf(args, context).id, value: args.amount }),
  }),
  command({
    chapter,
    syntax: "tap [list <list>]",
    about: "from the second tap on, a beat is the mean of the last taps, and starts at each",
    example: "tap list 1",
    read: (args, context) => events(...listsOf(args, context).map(({ id }) => ({ kind: "tap" as const, list: id }))),
  }),
  command({
    chapter,
    syntax: "resync [list <list>]",
    about: "start the cycles of a list's effects now",
    example: "resync list 1",
    read: (args, context) => events(...listsOf(args, context).map(({ id }) => ({ kind: "resync" as const, list: id }))),
  }),
  command({
    chapter,
    syntax: "resync held",
    about: "start the cycles of all held effects now",
    example: "resync held",
    read: () => events({ kind: "resync", list: null }),
  }),
  command({
    chapter: "Holding values",
    syntax: "[<sel>] lamp (on | off)",
    about: "the type's own control action, for the time it needs",
    example: "301 thru 302 lamp on",
    read: (args, context) =>
      events({
        kind: "control",
        fixtures: fixturesOf(args, context),
        does: args.on ? "lamp on" : "lamp off",
      }),
  }),
  command({
    chapter: "Holding values",
    syntax: "[<sel>] reset",
    about: "the type's own reset, for the time it needs",
    example: "301 thru 302 reset",
    read: (args, context) => events({ kind: "control", fixtures: fixturesOf(args, context), does: "reset" }),
  }),
  ...(["run", "stop"] as const).map((does): Command => ({
    chapter,
    syntax: `timecode ${does}`,
    about: does === "run" ? "lets timecode run" : "stops timecode: what follows it holds",
    example: `timecode ${does}`,
    read: () => events({ kind: "timecode", does }),
  })),
  command({
    chapter,
    syntax: "timecode at <time:frames>",
    about: "jumps there: lists on timecode are as if it had run there",
    example: "timecode at 0:00:10",
    read: (args) => events({ kind: "timecode", does: "at", frames: args.time }),
  }),
  command({
    chapter,
    syntax: "grand at <amount:percent> [over <time:seconds>]",
    about: "the grand master; over = in so many seconds",
    example: "grand at 80",
    read: (args) => events({ kind: "grand", value: args.amount, ...over(args) }),
  }),
  command({
    chapter,
    syntax: "blackout (on | off)",
    about: "all intensity out",
    example: "blackout on",
    read: (args) => events({ kind: "blackout", on: args.on === true }),
  }),
  command({
    chapter,
    syntax: "why <sel> <attr>",
    about: "the whole stack behind a value, down to the bytes",
    example: "why 7 pan",
    read(args, context) {
      const keys = itemsOf(args, context)
        .flatMap((i) => targetsOf(context.world.show, i, args.attr))
        .map((t) => t.key);
      if (keys.length === 0) fail("none of these fixtures has that attribute");
      return { ...events(), why: keys };
    },
  }),
];
