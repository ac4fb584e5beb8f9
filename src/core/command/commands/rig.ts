/** The patch, in the command language. */
import { address, patch, remove, renumber, unpatch } from "../../patch/intents";
import { copyProgramming, duplicateFixtures } from "../../rig/duplicateIntent";
import { swapType } from "../../rig/swapIntent";
import { runFrom, spanOf } from "../../show/address";
import { modelOf } from "../../show/model";
import type { Fixture, Show } from "../../show/schema";
import { fail } from "../../show/refusal";
import { fixtureNumbered } from "../../show/world";
import { command, fixturesOf, intents, type Command } from "../command";
import { change } from "./change";

/** How many slots one more address of a fixture carries. */
function sizeOfBreak(show: Show, fixture: Fixture, part: number): number {
  const { mode } = modelOf(show, fixture);
  const breaks = (mode.breaks?.length ?? 0) + 1;
  if (part > breaks)
    fail(
      `fixture ${fixture.number} has ${breaks === 1 ? "no second DMX break" : `${breaks} DMX breaks`}`,
      "Without `break` it sends the same data to one more address",
    );
  const more = part === 1 ? {} : { part };
  return spanOf(mode, [...fixture.addresses, { universe: 1, slot: 1, ...more }], more).size;
}

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
    about: "invert an axis at output",
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
    syntax: "<sel> curve (linear | square | s | points <points:points>)",
    about: "dimmer curve at output: linear, square, s, or points in percent, in and out",
    example: "81 curve square",
    read: (args, context) => {
      const curve = args.points ? { points: args.points } : args.square ? "square" : args.s ? "s" : "linear";
      return change(args, context, `curve ${typeof curve === "string" ? curve : "of its own"}`, () => ({ curve }));
    },
  }),
  command({
    chapter,
    syntax: "<sel> preheat <least:percent>",
    about: "its lamp never gets less than this, percent",
    example: "81 preheat 8",
    read: (args, context) => change(args, context, `preheat ${args.least} %`, () => ({ preheat: args.least })),
  }),
  command({
    chapter,
    syntax: "<sel> out of service (on | off)",
    about: "broken or away: sent dark, left out of Check and of counts",
    example: "81 out of service on",
    read: (args, context) =>
      change(args, context, args.on ? "out of service" : "back in service", () => ({ outOfService: args.on === true })),
  }),
  command({
    chapter,
    syntax: "<sel> position <label:text>",
    about: "where it hangs, by name: a truss, a pipe; for paper",
    example: '81 position "Mast truss"',
    read: (args, context) => change(args, context, `position ${args.label}`, () => ({ position: args.label })),
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
    syntax: "<sel> also at <address> [break <part:break>]",
    about:
      "send the same data to one more address each, running on by footprint; with `break` the data of that DMX break alone, the first stays where it is",
    example: "1 thru 5 also at 9:201",
    read(args, context) {
      const { show } = context.world;
      const ids = fixturesOf(args, context);
      const more = runFrom(
        args.address,
        ids.map((id) => sizeOfBreak(show, show.fixtures[id]!, args.part ?? 1)),
      ).map((at) => ({ ...at, ...(args.part === undefined || args.part === 1 ? {} : { part: args.part }) }));
      return change(args, context, "one more address", (f, k) => ({ addresses: [...f.addresses, more[k]!] }));
    },
  }),
  command({
    chapter,
    syntax: "<sel> note <words:text>",
    about: "a note about a fixture",
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
    syntax: "swap type <sel> <to:type> [mode <mode>] [at (<address> | auto) | unpatched]",
    about:
      "make them another type; groups, palettes, cues and effects keep what they mean. They stay at their address where they fit",
    example: "swap type 1 thru 5 kelp-wash mode standard",
    read: (args, context) =>
      intents(
        swapType.of({
          fixtures: fixturesOf(args, context),
          type: args.to,
          ...(args.mode === undefined ? {} : { mode: args.mode }),
          at: args.address ?? (args.auto ? "auto" : args.unpatched ? "unpatched" : "keep"),
        }),
      ),
  }),
  command({
    chapter,
    syntax: "duplicate <sel> as <from:fixture> [at (<address> | auto) | unpatched]",
    about:
      "duplicate them with all their programming: groups, exceptions in palettes, cues and effects; without `at` unpatched",
    example: "duplicate 1 thru 5 as 601",
    read: (args, context) =>
      intents(
        duplicateFixtures.of({
          fixtures: fixturesOf(args, context),
          from: args.from,
          at: args.address ?? (args.auto ? "auto" : "unpatched"),
        }),
      ),
  }),
  command({
    chapter,
    syntax: "<sel> copy programming from <source:fixture>",
    about:
      "give them another fixture's programming, in cues, palettes, groups and effects; by what they can, where they are of other types",
    example: "2 thru 5 copy programming from 1",
    read(args, context) {
      const from = fixtureNumbered(context.world.show, args.source) ?? fail(`there is no fixture ${args.source}`);
      return intents(copyProgramming.of({ from: from.id, to: fixturesOf(args, context) }));
    },
  }),
  command({
    chapter,
    syntax: "remove <sel>",
    about: "remove fixtures, from groups and cues too",
    example: "remove 5",
    read: (args, context) => intents(remove.of({ fixtures: fixturesOf(args, context) })),
  }),
];
