/** Palettes, in the command language. */
import {
  exceptPalette,
  foldPalette,
  recordPalette,
  referPalette,
  setPalette,
  updatePalette,
  widenPalette,
} from "../../palette/intents";
import { deletePalette, orderPalettes, replacePalette, shelvePalettes } from "../../palette/goneIntents";
import { correctHang } from "../../program/hangIntent";
import { hardenCue } from "../../cue/intents/hardIntent";
import { dropLinks, writePalette } from "../../palette/writeIntent";
import { targetsOf } from "../../show/model";
import { startPalettes } from "../../palette/startIntent";
import { evaluateSel } from "../../select/expression";
import { fail } from "../../show/refusal";
import { fixtureNumbered, paletteNumbered } from "../../show/world";
import type { Palette } from "../../show/paletteSchema";
import { command, cueOf, fixturesOf, intents, listOf, type Command } from "../command";
import type { ReadContext } from "../context";
import { gather } from "../gathering";

const chapter = "Keeping";

export const paletteOf = (number: number, { world }: Pick<ReadContext, "world">): Palette =>
  paletteNumbered(world.show, number) ??
  fail(`there is no palette ${number}`, "Record it first, or choose one from the shelf");

export const PALETTES: Command[] = [
  command({
    chapter,
    syntax:
      "record palette <number:palette> [<name:text>] [each | type | any] [only <only:families>] [whole <whole:families>] [with <along:families>] [off shelf] [merge | overwrite]",
    about:
      "what is held, for these fixtures, their types or any; only: just these families of it; whole: where something of a family is held, all of it; with: all of it anyway",
    example: 'record palette 24 "Lagoon" type only intensity',
    read(args, context) {
      const old = paletteNumbered(context.world.show, args.number);
      const width = args.each ? "each" : args.type ? "type" : args.any ? "any" : undefined;
      const { only, whole, along } = args;
      return intents(
        recordPalette.of({
          number: args.number,
          entries: gather(context, { width: width ?? old?.width ?? "type", only, whole, along }),
          ...(args.name === undefined ? {} : { name: args.name }),
          ...(width ? { width } : {}),
          ...(only ? { only } : {}),
          ...(whole ? { whole } : {}),
          ...(along ? { along } : {}),
          ...(args.off ? { offShelf: true } : {}),
          ...(args.overwrite ? { onto: "overwrite" as const } : {}),
        }),
      );
    },
  }),
  command({
    chapter,
    syntax: "update palette <number:palette> [type]",
    about: "write what is held of its families into it: for these fixtures only, or for their whole type",
    example: "update palette 1",
    read: (args, context) =>
      intents(updatePalette.of({ palette: paletteOf(args.number, context).id, type: args.type === true })),
  }),
  command({
    chapter,
    syntax: "set palette <number:palette> name <label:text>",
    about: "name a palette",
    example: 'set palette 1 name "Ember"',
    read: (args, context) => intents(setPalette.of({ palette: paletteOf(args.number, context).id, name: args.label })),
  }),
  command({
    chapter,
    syntax: "set palette <of:palette> number <next:palette>",
    about: "another number; everything that uses it follows",
    example: "set palette 1 number 101",
    read: (args, context) => intents(setPalette.of({ palette: paletteOf(args.of, context).id, number: args.next })),
  }),
  command({
    chapter,
    syntax: "set palette <number:palette> colour (<hex:colours> | off)",
    about: "the colour of its tag",
    example: "set palette 1 colour #ffb07a",
    read: (args, context) =>
      intents(setPalette.of({ palette: paletteOf(args.number, context).id, colour: args.hex?.[0] ?? null })),
  }),
  command({
    chapter,
    syntax: "set palette <number:palette> shelf (on | off)",
    about: "with a tile on the shelf, or kept without one",
    example: "set palette 1 shelf off",
    read: (args, context) =>
      intents(setPalette.of({ palette: paletteOf(args.number, context).id, shelf: args.on === true })),
  }),
  command({
    chapter,
    syntax: "set palette <number:palette> reference <fixture>",
    about: "the fixture its type follows; what each fixture gets stays",
    example: "set palette 83 reference 22",
    read: (args, context) =>
      intents(
        referPalette.of({
          palette: paletteOf(args.number, context).id,
          fixture: (fixtureNumbered(context.world.show, args.fixture) ?? fail(`there is no fixture ${args.fixture}`))
            .id,
        }),
      ),
  }),
  command({
    chapter,
    syntax: "set palette <number:palette> own <sel>",
    about: "what these fixtures follow becomes their own",
    example: "set palette 83 own 22",
    read: (args, context) =>
      intents(
        exceptPalette.of({
          palette: paletteOf(args.number, context).id,
          items: evaluateSel(args.sel, context),
          own: true,
        }),
      ),
  }),
  command({
    chapter,
    syntax: "set palette <number:palette> follow <sel>",
    about: "these fixtures drop their exceptions and follow again",
    example: "set palette 83 follow 36",
    read: (args, context) =>
      intents(
        exceptPalette.of({
          palette: paletteOf(args.number, context).id,
          items: evaluateSel(args.sel, context),
          own: false,
        }),
      ),
  }),
  command({
    chapter,
    syntax: "set palette <number:palette> <sel> <attr> at <value:number> [type]",
    about: "a value in the palette itself, nothing held: for these fixtures only, or for their whole type",
    example: "set palette 83 22 zoom at 38",
    read(args, context) {
      const { show } = context.world;
      const targets = evaluateSel(args.sel, context).flatMap((i) => targetsOf(show, i, args.attr));
      if (targets.length === 0) fail(`none of these fixtures has ${args.attr}`, "Name fixtures that have it");
      const values = Object.fromEntries(targets.map((t) => [t.key, { attribute: t.attribute, value: args.value }]));
      return intents(
        writePalette.of({ palette: paletteOf(args.number, context).id, values, type: args.type === true }),
      );
    },
  }),
  command({
    chapter,
    syntax: "set [list <list>] cue <cueNumber:cue> hard palette <number:palette>",
    about: "the cue keeps what the palette gives it now, as numbers; the next cue goes on following it",
    example: "set cue 1 hard palette 41",
    read(args, context) {
      const list = listOf(args, context);
      const { id } = paletteOf(args.number, context);
      return intents(hardenCue.of({ list: list.id, cue: cueOf(list, args.cueNumber).id, palette: id }));
    },
  }),
  command({
    chapter,
    syntax: "set palette <number:palette> fold in",
    about: "remove exceptions equal to what they would follow",
    example: "set palette 1 fold in",
    read: (args, context) => intents(foldPalette.of({ palette: paletteOf(args.number, context).id })),
  }),
  command({
    chapter,
    syntax: "set palette <number:palette> drop palette <of:palette>",
    about: "unlink it from the other palette; it no longer sets those values",
    example: "set palette 99 drop palette 41",
    read: (args, context) =>
      intents(dropLinks.of({ palette: paletteOf(args.number, context).id, to: paletteOf(args.of, context).id })),
  }),
  command({
    chapter,
    syntax: "set palette <number:palette> width (each | type | any)",
    about: "another scope; what each fixture gets stays",
    example: "set palette 1 width any",
    read: (args, context) =>
      intents(
        widenPalette.of({
          palette: paletteOf(args.number, context).id,
          width: args.each ? "each" : args.type ? "type" : "any",
        }),
      ),
  }),
  command({
    chapter,
    syntax: "starter palettes [<wanted:families>]",
    about: "starter palettes made from the rig; existing ones are left out",
    example: "starter palettes focusing",
    read: (args) => intents(startPalettes.of(args.wanted ? { families: args.wanted } : {})),
  }),
  command({
    chapter,
    syntax: "<sel> correct hang",
    about: "turn the difference from a position palette into a hang correction; no palette, aim or cue changes",
    example: "3 correct hang",
    read: (args, context) => intents(correctHang.of({ fixtures: fixturesOf(args, context) })),
  }),
  command({
    chapter,
    syntax: "order palettes <wanted:palettes>",
    about: "renumber them among themselves, in that order",
    example: "order palettes 3 1 2",
    read: (args, context) => intents(orderPalettes.of({ palettes: args.wanted.map((n) => paletteOf(n, context).id) })),
  }),
  command({
    chapter,
    syntax: "shelve palettes <wanted:palettes>",
    about: "their tiles in that order on the shelf; their numbers stay",
    example: "shelve palettes 3 1 2",
    read: (args, context) => intents(shelvePalettes.of({ palettes: args.wanted.map((n) => paletteOf(n, context).id) })),
  }),
  command({
    chapter,
    syntax: "delete palette <number:palette>",
    about: "delete it; users keep plain values",
    example: "delete palette 1",
    read: (args, context) => intents(deletePalette.of({ palette: paletteOf(args.number, context).id })),
  }),
  command({
    chapter,
    syntax: "replace palette <number:palette> by <other:palette>",
    about: "another palette in its place, wherever it is used",
    example: "replace palette 1 by 2",
    read: (args, context) =>
      intents(
        replacePalette.of({
          palette: paletteOf(args.number, context).id,
          by: paletteOf(args.other, context).id,
          merge: false,
        }),
      ),
  }),
  command({
    chapter,
    syntax: "merge palette <number:palette> into <other:palette>",
    about: "merge two palettes; where both have a value, the second wins",
    example: "merge palette 1 into 2",
    read: (args, context) =>
      intents(
        replacePalette.of({
          palette: paletteOf(args.number, context).id,
          by: paletteOf(args.other, context).id,
          merge: true,
        }),
      ),
  }),
];
