/** Macros, pages and views, in the command language. */
import {
  deleteOfDeck,
  duplicatePage,
  nameOfDeck,
  putOnPage,
  recordMacro,
  recordPage,
  recordView,
  renumberPage,
} from "../../deck/intents";
import type { Macro, Page, Placed, View } from "../../show/deckSchema";
import { fail } from "../../show/refusal";
import type { Show } from "../../show/schema";
import {
  effectNumbered,
  listNumbered,
  macrosByNumber,
  pagesByNumber,
  paletteNumbered,
  viewsByNumber,
} from "../../show/world";
import { command, events, intents, type Command } from "../command";

const chapter = "Keeping";

const found = <T extends { number: number }>(all: readonly T[], number: number, what: string): T =>
  all.find((r) => r.number === number) ??
  fail(
    `there is no ${what} ${number}`,
    all.length > 0
      ? `There is ${all
          .slice(0, 12)
          .map((r) => r.number)
          .join(", ")}`
      : `Record one first: record ${what} ${number} ...`,
  );
const macroOf = (show: Show, number: number): Macro => found(macrosByNumber(show), number, "macro");
const pageOf = (show: Show, number: number): Page => found(pagesByNumber(show), number, "page");
const viewOf = (show: Show, number: number): View => found(viewsByNumber(show), number, "view");

/** What is put on a page, by its number. */
function placedOf(show: Show, what: Placed["what"], number: number): string {
  const record =
    what === "list"
      ? listNumbered(show, number)
      : what === "effect"
        ? effectNumbered(show, number)
        : what === "palette"
          ? paletteNumbered(show, number)
          : macroOf(show, number);
  return (record ?? fail(`there is no ${what} ${number}`)).id;
}

const onPage = (what: Placed["what"]): Command =>
  command({
    chapter,
    syntax:
      what === "list"
        ? "put list <number:whole> on page <page> place <place> [pad] [held]"
        : `put ${what} <number:whole> on page <page> place <place> [pad] [held]`,
    about:
      what === "list"
        ? "a lane of the deck; as a pad it is pressed, and with held it plays only while it is"
        : `a pad of the deck that ${what === "macro" ? "runs the macro" : `holds the ${what} for the selection`}`,
    example: `put ${what} 1 on page 2 place ${{ list: 5, effect: 6, palette: 7, macro: 8 }[what]}${what === "list" ? " pad" : ""}`,
    read: (args, { world }) =>
      intents(
        putOnPage.of({
          page: args.page,
          place: args.place,
          put: {
            what,
            id: placedOf(world.show, what, args.number),
            pad: args.pad === true || args.held === true || what !== "list",
            ...(args.held ? { held: true } : {}),
          },
        }),
      ),
  });

export const DECK: Command[] = [
  command({
    chapter,
    syntax: "record macro <macro> <words:texts>",
    about:
      "lines, each in quotes, that are run in order as if typed; where there are several texts the first is the name",
    example: 'record macro 2 "Reset" "none" "blackout off"',
    read(args) {
      const [first, ...rest] = args.words;
      const lines = rest.length > 0 ? rest : [first!];
      return intents(recordMacro.of({ number: args.macro, ...(rest.length > 0 ? { name: first! } : {}), lines }));
    },
  }),
  command({
    chapter,
    syntax: "record view <view> [<label:text>]",
    about: "how this place is arranged now: panels, sheets, columns, filters",
    example: 'record view 2 "Focus"',
    read(args, context) {
      const now = context.arrangement?.() ?? { place: "build" as const, settings: {} };
      return intents(
        recordView.of({
          number: args.view,
          ...(args.label === undefined ? {} : { name: args.label }),
          place: now.place,
          arrangement: now.settings,
        }),
      );
    },
  }),
  command({
    chapter,
    syntax: "record page <page> [<label:text>]",
    about: "a page of the deck, or its name",
    example: 'record page 2 "Storm"',
    read: (args) =>
      intents(recordPage.of({ number: args.page, ...(args.label === undefined ? {} : { name: args.label }) })),
  }),
  command({
    chapter,
    syntax: "duplicate page <page> as <as:page>",
    about: "another page like it",
    example: "duplicate page 1 as 9",
    read: (args, { world }) => intents(duplicatePage.of({ page: pageOf(world.show, args.page).id, as: args.as })),
  }),
  command({
    chapter,
    syntax: "set page <page> number <as:page>",
    about: "another number; it changes places with the page that has it",
    example: "set page 1 number 9",
    read: (args, { world }) => intents(renumberPage.of({ page: pageOf(world.show, args.page).id, as: args.as })),
  }),
  ...(["list", "effect", "palette", "macro"] as const).map(onPage),
  command({
    chapter,
    syntax: "clear page <page> place <place>",
    about: "empties a place of a page",
    example: "clear page 1 place 1",
    read(args, { world }) {
      pageOf(world.show, args.page);
      return intents(putOnPage.of({ page: args.page, place: args.place, put: null }));
    },
  }),
  ...(["macro", "page", "view"] as const).flatMap((what): Command[] => {
    const of = { macro: macroOf, page: pageOf, view: viewOf }[what];
    return [
      {
        chapter,
        syntax: `delete ${what} <number:whole>`,
        about: `deletes a ${what}`,
        example: `delete ${what} 1`,
        read: (args, { world }) => intents(deleteOfDeck.of({ what, id: of(world.show, args.number as number).id })),
      },
      {
        chapter,
        syntax: `set ${what} <number:whole> name <label:text>`,
        about: `names a ${what}`,
        example: `set ${what} 1 name "Act one"`,
        read: (args, { world }) =>
          intents(nameOfDeck.of({ what, id: of(world.show, args.number as number).id, name: args.label as string })),
      },
    ];
  }),
  command({
    chapter: "Playing",
    syntax: "macro <macro>",
    about: "runs its lines in order",
    example: "macro 1",
    read: (args, { world }) => ({ ...events(), macro: macroOf(world.show, args.macro).id }),
  }),
  command({
    chapter: "Playing",
    syntax: "page <page>",
    about: "shows a page of the deck",
    example: "page 1",
    read: (args, { world }) => ({ ...events(), shows: { page: pageOf(world.show, args.page).id } }),
  }),
  command({
    chapter: "Playing",
    syntax: "view <view>",
    about: "arranges its place as it was recorded; only what is seen changes",
    example: "view 1",
    read: (args, { world }) => ({ ...events(), shows: { view: viewOf(world.show, args.view).id } }),
  }),
];
