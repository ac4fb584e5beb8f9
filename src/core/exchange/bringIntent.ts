/** Bringing things over from another show, as an intent. */
import { current } from "immer";
import { z } from "../units/zod";
import { defineIntent } from "../show/change/intent";
import { FixtureIdSchema, IdSchema } from "../show/ids";
import { unsaid } from "../show/words/lineText";
import { attempt, fail, isRefusal } from "../show/refusal";
import { problemIn } from "../show/checking/references";
import { ShowSchema, wholeNumber, type Show } from "../show/schema";
import { settleReaches } from "../cue/reach";
import { brought, BRINGABLE, type BringRequest, type BroughtRow } from "./bring";

const ids = z.array(IdSchema).max(20_000);

export const bringFrom = defineIntent({
  kind: "bringFrom",
  fields: {
    show: ShowSchema,
    picks: z.partialRecord(z.enum(BRINGABLE), ids),
    cues: z.object({ list: IdSchema, cues: ids, into: wholeNumber }).optional(),
    fixtures: z.record(FixtureIdSchema, FixtureIdSchema),
    clash: z.enum(["beside", "replace"]),
  },
  apply(world, request) {
    const wrong = problemIn(request.show);
    if (wrong) fail(`the other show is not whole: ${wrong}`, "Open another copy of it");
    const { show, rows } = brought(current<Show>(world.show), request);
    if (rows.length === 0) fail("nothing of it was found in the other show", "Tick something it has");
    const { nextId, waves, palettes, effects, groups, macros, views, lists, pages } = show;
    Object.assign(world.show, { nextId, waves, palettes, effects, groups, macros, views, lists, pages });
    for (const list of Object.values(world.show.lists)) settleReaches(list);
  },
  says({ show }, request) {
    const made = attempt(() => brought(show, request as BringRequest));
    return isRefusal(made) ? made.what : broughtText(made.rows);
  },
  lines: ({ show }, request) => [unsaid(broughtText(brought(show, request as BringRequest).rows))],
});

/** What came over, in a line. */
export function broughtText(rows: readonly BroughtRow[]): string {
  const count = (some: readonly BroughtRow[]) =>
    [...new Set(some.map((r) => r.what))]
      .map((what) => {
        const n = some.filter((r) => r.what === what).length;
        return `${n} ${what}${n === 1 ? "" : "s"}`;
      })
      .join(", ");
  const own = rows.filter((r) => !r.along);
  const along = rows.filter((r) => r.along && r.how !== "same");
  const beside = rows.filter((r) => r.how === "beside");
  const replaced = rows.filter((r) => r.how === "replaces");
  const left = rows.reduce((n, r) => n + r.left, 0);
  return [
    `brings over ${count(own)}`,
    along.length > 0 && `along with ${count(along)}`,
    beside.length > 0 &&
      `${beside
        .map((r) => `${r.what} ${r.number} as ${r.as}`)
        .slice(0, 6)
        .join(", ")}`,
    replaced.length > 0 && `in place of ${count(replaced)}`,
    left > 0 && `${left} values of fixtures that are not here stay behind`,
  ]
    .filter(Boolean)
    .join("; ");
}
