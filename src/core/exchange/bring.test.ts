/** Catches an exchange between shows that changes what was not ticked, or brings something that leads nowhere. */
import fc from "fast-check";
import { demoWorld } from "@tests/setup/demo";
import { newDesk, runLine } from "../desk/desk";
import { checkShow } from "../show/checking/check";
import { INTENTS } from "../intents";
import { applyIntents } from "../show/change/intent";
import { isRefusal } from "../show/refusal";
import type { Show } from "../show/schema";
import { newHands } from "../show/world";
import { BRINGABLE, brought, COLLECTION, mappedByNumber, mappedByType, type BringRequest } from "./bring";
import { bringFrom } from "./bringIntent";
import { runs } from "@tests/setup/runs";

const demo = demoWorld().show;
const COLLECTIONS = ["palettes", "effects", "waves", "groups", "macros", "views", "lists", "pages"] as const;

/** A show of another rig, with a few things of its own. */
function own(): Show {
  const desk = newDesk();
  for (const line of [
    "patch 12 gannet-wash as 1 at 1:1",
    "patch 6 kelp-wash as 21",
    "patch 6 lantern-par as 41",
    "1 thru 12 at 60",
    "record group 1",
    "record cue 1",
    "1 thru 6 red at 80",
    "record palette 41 any only colour",
    'record macro 1 "Mine" "clear"',
    "clear",
  ])
    runLine(desk, line);
  return desk.world.show;
}
const mine = own();
const ids = (what: (typeof BRINGABLE)[number]) => Object.keys(demo[COLLECTION[what]]);
const picks = fc.record(
  Object.fromEntries(
    BRINGABLE.map((what) => [
      what,
      ids(what).length > 0 ? fc.subarray(ids(what), { maxLength: Math.min(3, ids(what).length) }) : fc.constant([]),
    ]),
  ) as Record<(typeof BRINGABLE)[number], fc.Arbitrary<string[]>>,
);

test("what was not ticked stays as it was, and the show is whole", () => {
  fc.assert(
    fc.property(picks, fc.boolean(), fc.constantFrom("beside" as const, "replace" as const), (some, byType, clash) => {
      const fixtures = byType ? mappedByType(demo, mine) : mappedByNumber(demo, mine);
      const request: BringRequest = { show: demo, picks: some, fixtures, clash };
      const { show, rows } = brought(mine, request);
      for (const name of COLLECTIONS)
        for (const [id, record] of Object.entries(mine[name])) {
          const replaced =
            clash === "replace" &&
            rows.some(
              (r) => r.how !== "same" && r.as === (record as { number: number }).number && `${r.what}s` === name,
            );
          const empty = name === "lists" && rows.some((r) => r.what === "list");
          if (!replaced && !empty) expect(show[name][id]).toBe(record);
        }
      for (const same of ["fixtures", "types", "scenery", "outputs"] as const) expect(show[same]).toBe(mine[same]);
      const checked = checkShow(JSON.parse(JSON.stringify(show)));
      expect("refused" in checked ? checked : undefined).toBeUndefined();
      if (rows.length === 0) return;
      const done = applyIntents(INTENTS, { show: mine, hands: newHands(mine) }, [bringFrom.of(request)]);
      expect(isRefusal(done) ? done.what : "done").toBe("done");
    }),
    { numRuns: runs(12) },
  );
});

test("all that a list plays comes along, and what is the same already is used", () => {
  const list = Object.values(demo.lists).find((l) => l.number === 1)!;
  const request: BringRequest = {
    show: demo,
    picks: { list: [list.id] },
    fixtures: mappedByNumber(demo, mine),
    clash: "beside",
  };
  const once = brought(mine, request);
  expect(once.rows.some((r) => r.what === "palette" && r.along)).toBe(true);
  const twice = brought(once.show, request);
  for (const row of twice.rows.filter((r) => r.along && r.what === "wave")) expect(row.how).toBe("same");
  expect(Object.keys(once.show.lists)).toHaveLength(2);
});

test("a number that is taken moves what has it alone: all else that was ticked keeps its own", () => {
  const palettes = (lines: string[]) => {
    const desk = newDesk();
    for (const line of ["patch 1 kelp-wash as 1 at 1:1", ...lines]) expect(runLine(desk, line)).toBeUndefined();
    return desk.world.show;
  };
  const three = [1, 2, 3].flatMap((n) => [`1 pan at ${n * 10}`, `record palette ${n} "P${n}"`]);
  const [from, to] = [palettes(three), palettes(["1 pan at 99", 'record palette 2 "Mine"'])];
  const { rows } = brought(to, {
    show: from,
    picks: { palette: Object.keys(from.palettes) },
    fixtures: Object.fromEntries(Object.keys(from.fixtures).map((id, i) => [id, Object.keys(to.fixtures)[i]!])),
    clash: "beside",
  });
  expect(rows.map((r) => [r.number, r.as])).toEqual([
    [1, 1],
    [2, 4],
    [3, 3],
  ]);
});
