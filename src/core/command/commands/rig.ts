/** The patch, in the command language. */
import { address, patch, remove, renumber, unpatch } from "../../patch/intents";
import { runFrom, sizeOf } from "../../show/address";
import { command, fixturesOf, intents, type Command } from "../command";
import { change } from "./change";

const chapter = "Rig";

export const RIG: Command[] = [
  command({
    chapter,
    syntax:
      "patch <count> <type> [mode <mode>] [as <from:fixture>] [at (<address> | auto) | unpatched] [name <name:text>]",
    about: "add fixtures; without `as` counting on from the highest number, without `at` at the first free run",
    example: "patch 5 petrel-spot mode compact as 201 at 8:1",
    read: (args) =>
      intents(
        patch.of({
          count: args.count,
          type: args.type,
          at: args.address ?? (args.unpatched ? "unpatched" : "auto"),
          ...(args.mode === undefined ? {} : { mode: args.mode }),
          ...(args.from === undefined ? {} : { from: args.from }),
          ...(args.name !== undefined ? { name: args.name } : {}),
        }),
      ),
  }),
  command({
    chapter,
    syntax: "<sel> address (<at:address> | auto)",
    about: "give addresses, running on by footprint",
    example: "1 thru 5 address 9:101",
    read: (args, context) => intents(address.of({ fixtures: fixturesOf(args, context), at: args.at ?? "auto" })),
  }),
  command({
    chapter,
    syntax: "<sel> unpatch",
    about: "take the addresses away; the fixture stays",
    example: "3 unpatch",
    read: (args, context) => intents(unpatch.of({ fixtures: fixturesOf(args, context) })),
  }),
  command({
    chapter,
    syntax: "<sel> renumber <from:fixture>",
    about: "new numbers, counting on",
    example: "1 thru 5 renumber 501",
    read: (args, context) => intents(renumber.of({ fixtures: fixturesOf(args, context), from: args.from })),
  }),
  command({
    chapter,
    syntax: "<sel> name <label:text>",
    about: "name fixtures, counting on where there are several",
    example: '1 thru 5 name "Mast"',
    read: (args, context) =>
      change(args, context, `name "${args.label}"`, (_, k, n) => ({
        name: n > 1 ? `${args.label} ${k + 1}` : args.label,
      })),
  }),
  command({
    chapter,
    syntax: "<sel> invert (pan | tilt) (on | off)",
    about: "turn an axis round at output",
    example: "1 invert pan on",
    read: (args, context) =>
      change(args, context, `invert ${args.pan ? "pan" : "tilt"} ${args.on ? "on" : "off"}`, () =>
        args.pan ? { invertPan: args.on === true } : { invertTilt: args.on === true },
      ),
  }),
  command({
    chapter,
    syntax: "<sel> swap (on | off)",
    about: "exchange pan and tilt at output",
    example: "1 swap on",
    read: (args, context) =>
      change(args, context, `swap pan and tilt ${args.on ? "on" : "off"}`, () => ({ swap: args.on === true })),
  }),
  command({
    chapter,
    syntax: "<sel> scale <factor:twice>",
    about: "percent of Dimmer at output",
    example: "1 scale 80",
    read: (args, context) => change(args, context, `scale ${args.factor} %`, () => ({ scale: args.factor })),
  }),
  command({
    chapter,
    syntax: "<sel> correct [pan <panBy:degrees>] [tilt <tiltBy:degrees>]",
    about: "hang correction: degrees added at output",
    example: "1 correct pan 3.5 tilt -1",
    read: (args, context) =>
      change(args, context, "corrects the hang", (f) => ({
        correct: {
          pan: args.panBy ?? f.correct.pan,
          tilt: args.tiltBy ?? f.correct.tilt,
        },
      })),
  }),
  command({
    chapter,
    syntax: "<sel> also at <address>",
    about: "send the same data to one more address each, running on by footprint",
    example: "1 thru 5 also at 9:201",
    read(args, context) {
      const { show } = context.world;
      const ids = fixturesOf(args, context);
      const more = runFrom(
        args.address,
        ids.map((id) => sizeOf(show, show.fixtures[id]!)),
      );
      return change(args, context, "one more address", (f, k) => ({ addresses: [...f.addresses, more[k]!] }));
    },
  }),
  command({
    chapter,
    syntax: "<sel> note <words:text>",
    about: "what to remember of a fixture",
    example: '1 note "gel frame missing"',
    read: (args, context) => change(args, context, "a note", () => ({ note: args.words })),
  }),
  command({
    chapter,
    syntax: "<sel> mode <mode>",
    about: "another mode of the same type, where it fits",
    example: "1 mode compact",
    read: (args, context) => change(args, context, `mode ${args.mode}`, () => ({ mode: args.mode })),
  }),
  command({
    chapter,
    syntax: "<sel> virtual dimmer (on | off)",
    about: "whether fixtures with emitters and no dimmer get one",
    example: "41 virtual dimmer off",
    read: (args, context) =>
      change(args, context, `virtual dimmer ${args.on ? "on" : "off"}`, () => ({ virtualDimmer: args.on === true })),
  }),
  command({
    chapter,
    syntax: "remove <sel>",
    about: "remove fixtures, from groups and cues too",
    example: "remove 5",
    read: (args, context) => intents(remove.of({ fixtures: fixturesOf(args, context) })),
  }),
];
