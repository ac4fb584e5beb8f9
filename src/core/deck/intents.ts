/** Macros, pages and views as intents. */
import { z } from "../units/zod";
import {
  ArrangementSchema,
  MacroLineSchema,
  MOST_PLACES,
  PLACED,
  VIEW_PLACES,
  type Page,
  type Placed,
} from "../show/deckSchema";
import { defineIntent, newId, type WorldDraft } from "../show/change/intent";
import { IdSchema, type Id } from "../show/ids";
import { quote } from "../show/words/lineText";
import { fail } from "../show/refusal";
import { emptyPlaces } from "../show/places";
import { wholeNumber } from "../show/schema";
import type { World } from "../show/world";
import { macroText, notAMacro } from "./macro";
import { plural } from "../units/plural";

const name = z.string().max(200);
type Records = Record<Id, { id: Id; number: number; name: string }>;

const numbered = (records: Readonly<Records>, number: number) =>
  Object.values(records).find((r) => r.number === number);

/** Records lines as a macro; recording onto one replaces it. */
export const recordMacro = defineIntent({
  kind: "recordMacro",
  fields: { number: wholeNumber, name: name.optional(), lines: z.array(MacroLineSchema).min(1).max(1000) },
  apply(world, { number, name: called, lines }) {
    const wrong = notAMacro(world.show, number, lines);
    if (wrong) fail(wrong.what, wrong.cure);
    const old = numbered(world.show.macros, number);
    const id = old?.id ?? newId(world, "m");
    world.show.macros[id] = { id, number, name: called ?? old?.name ?? `Macro ${number}`, lines };
  },
  says(world, { number, name: called, lines }) {
    const old = numbered(world.show.macros, number);
    const label = macroText({ number, name: called ?? old?.name ?? "" });
    return `${old ? "replaces" : "records"} ${label}: ${plural(lines.length, "line")}`;
  },
  lines: (_, { number, name: called, lines }) => [
    // Without a name the first line would be taken for it.
    `record macro ${number} ${quote(called ?? `Macro ${number}`)} ${lines.map(quote).join(" ")}`,
  ],
});

/** Records a page; one that exists takes the name. */
export const recordPage = defineIntent({
  kind: "recordPage",
  fields: { number: wholeNumber, name: name.optional() },
  apply(world, { number, name: called }) {
    const old = numbered(world.show.pages, number);
    if (old) {
      if (called !== undefined) old.name = called;
      return;
    }
    const id = newId(world, "q");
    world.show.pages[id] = { id, number, name: called ?? `Page ${number}`, places: {} };
  },
  says: (world, { number, name: called }) =>
    numbered(world.show.pages, number)
      ? `names page ${number} ${quote(called ?? "")}`
      : `makes page ${number}${called ? ` ${quote(called)}` : ""}`,
  lines: (_, { number, name: called }) => [`record page ${number}${called === undefined ? "" : ` ${quote(called)}`}`],
});

/** A page like another, under a number of its own. */
export const duplicatePage = defineIntent({
  kind: "duplicatePage",
  fields: { page: IdSchema, as: wholeNumber },
  apply(world, { page: from, as }) {
    const page = world.show.pages[from] ?? fail("that page does not exist");
    if (numbered(world.show.pages, as)) fail(`page ${as} exists already`, "Choose a number that is free");
    const id = newId(world, "q");
    world.show.pages[id] = {
      ...page,
      id,
      number: as,
      name: `${page.name} again`.slice(0, 200),
      places: { ...page.places },
    };
  },
  says: ({ show }, { page, as }) => `makes page ${as} like page ${show.pages[page]?.number ?? "?"}`,
  lines: ({ show }, { page, as }) => [`duplicate page ${show.pages[page]?.number ?? "?"} as ${as}`],
});

/** Another number for a page: it changes places with the one that has it. */
export const renumberPage = defineIntent({
  kind: "renumberPage",
  fields: { page: IdSchema, as: wholeNumber },
  apply(world, { page: id, as }) {
    const page = world.show.pages[id] ?? fail("that page does not exist");
    const other = numbered(world.show.pages, as);
    if (other && other.id !== id) other.number = page.number;
    page.number = as;
  },
  says: ({ show }, { page, as }) => `makes page ${show.pages[page]?.number ?? "?"} page ${as}`,
  lines: ({ show }, { page, as }) => [`set page ${show.pages[page]?.number ?? "?"} number ${as}`],
});

const collectionOf = { list: "lists", effect: "effects", palette: "palettes", macro: "macros" } as const;
/** What stands in a place, in words. */
export function placedText({ show }: Pick<World, "show">, { what, id }: Pick<Placed, "what" | "id">): string {
  const record = show[collectionOf[what]][id];
  return `${what} ${record?.number ?? "?"}${record?.name ? ` ${quote(record.name)}` : ""}`;
}

/** Puts something in a place of a page, or takes out what is there. */
export const putOnPage = defineIntent({
  kind: "putOnPage",
  fields: {
    /** Made where there is none of that number. */
    page: wholeNumber,
    place: z.number().int().min(1).max(MOST_PLACES),
    /** Null takes out what is there. */
    put: z.object({ what: z.enum(PLACED), id: IdSchema, pad: z.boolean(), held: z.boolean().optional() }).nullable(),
  },
  apply(world, { page: number, place, put }) {
    const page = pageNumbered(world, number);
    if (!put) {
      if (!page.places[place]) fail(`place ${place} of page ${number} is empty`);
      delete page.places[place];
      return;
    }
    const { what, id, pad, held } = put;
    if (!world.show[collectionOf[what]][id]) fail(`that ${what} does not exist`);
    page.places[place] = {
      what,
      id,
      as: pad || what !== "list" ? "pad" : "lane",
      ...(held ? { held: true as const } : {}),
    };
  },
  says(world, { page, place, put }) {
    const old = numbered(world.show.pages, page) as Page | undefined;
    const there = old?.places[place];
    if (!put)
      return there ? `takes ${placedText(world, there)} off page ${page}` : `place ${place} of page ${page} is empty`;
    const how =
      put.pad || put.what !== "list" ? (put.held ? " as a pad that plays while it is held" : " as a pad") : "";
    return `puts ${placedText(world, put)} on page ${page}, place ${place}${how}${there ? `, in place of ${placedText(world, there)}` : ""}`;
  },
  lines: ({ show }, { page, place, put }) => [
    put
      ? `put ${put.what} ${show[collectionOf[put.what]][put.id]?.number ?? "?"} on page ${page} place ${place}${put.held ? " pad held" : put.pad ? " pad" : ""}`
      : `clear page ${page} place ${place}`,
  ],
});

function pageNumbered(world: WorldDraft, number: number): Page {
  const found = numbered(world.show.pages, number);
  if (found) return found as Page;
  const id = newId(world, "q");
  world.show.pages[id] = { id, number, name: `Page ${number}`, places: {} };
  return world.show.pages[id];
}

/** Records how a place is arranged; recording onto a view replaces it. */
export const recordView = defineIntent({
  kind: "recordView",
  fields: { number: wholeNumber, name: name.optional(), place: z.enum(VIEW_PLACES), arrangement: ArrangementSchema },
  apply(world, { number, name: called, place, arrangement }) {
    const old = numbered(world.show.views, number);
    const id = old?.id ?? newId(world, "v");
    world.show.views[id] = { id, number, name: called ?? old?.name ?? `View ${number}`, place, arrangement };
  },
  says: (world, { number, name: called, place }) =>
    `${numbered(world.show.views, number) ? "replaces" : "records"} view ${number}${called ? ` ${quote(called)}` : ""}: ${place[0]!.toUpperCase()}${place.slice(1)} as it is arranged now`,
  lines: (_, { number, name: called }) => [`record view ${number}${called === undefined ? "" : ` ${quote(called)}`}`],
});

const GONE = ["macro", "page", "view"] as const;
const GONE_FROM = { macro: "macros", page: "pages", view: "views" } as const;

/** Deletes a macro, page or view; pads that ran a macro are empty. */
export const deleteOfDeck = defineIntent({
  kind: "deleteOfDeck",
  fields: { what: z.enum(GONE), id: IdSchema },
  apply(world, { what, id }) {
    const records: Records = world.show[GONE_FROM[what]];
    if (!records[id]) fail(`that ${what} does not exist`);
    delete records[id];
    if (what === "macro") emptyPlaces(world, "macro", id);
  },
  says: ({ show }, { what, id }) => {
    const record = show[GONE_FROM[what]][id];
    return `deletes ${what} ${record?.number ?? "?"} ${quote(record?.name ?? "")}`;
  },
  lines: ({ show }, { what, id }) => [`delete ${what} ${show[GONE_FROM[what]][id]?.number ?? "?"}`],
});

/** Another name for a macro, page or view. */
export const nameOfDeck = defineIntent({
  kind: "nameOfDeck",
  fields: { what: z.enum(GONE), id: IdSchema, name },
  apply(world, { what, id, name: called }) {
    const record = world.show[GONE_FROM[what]][id] ?? fail(`that ${what} does not exist`);
    record.name = called;
  },
  says: ({ show }, { what, id, name: called }) =>
    `names ${what} ${show[GONE_FROM[what]][id]?.number ?? "?"} ${quote(called)}`,
  lines: ({ show }, { what, id, name: called }) => [
    `set ${what} ${show[GONE_FROM[what]][id]?.number ?? "?"} name ${quote(called)}`,
  ],
});
