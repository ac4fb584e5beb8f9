/** Catches cells that are drawn twice or not at all, and bunches that are drawn again though they say the same. */
import fc from "fast-check";
import { bunchesOf, sameLooks } from "./looks";

const columns = Array.from({ length: 200 }, (_, k) => ({ id: `c${k}` }));

test("bunches cover the columns that lead and those in sight once each, at their places", () => {
  fc.assert(
    fc.property(fc.nat(3), fc.nat(180), fc.nat(40), (lead, skipped, some) => {
      const first = lead + skipped;
      const last = Math.min(columns.length - 1, first + some);
      const seen = bunchesOf(columns, { lead, first, last, gap: 0 }).flatMap((b) =>
        b.columns.map((c, k) => [b.from + k, c.id]),
      );
      const wanted = columns.map((c, k) => [k, c.id]).filter((_, k) => k < lead || (k >= first && k <= last));
      expect(seen).toEqual(wanted);
    }),
  );
  expect(bunchesOf(columns, null).flatMap((b) => b.columns)).toEqual(columns);
});

test("scrolled across, the bunches that stay in sight are the very same", () => {
  const at = (first: number) => bunchesOf(columns, { lead: 1, first, last: first + 24, gap: 0 });
  const [one, next] = [at(30), at(31)];
  expect(next.filter((bunch) => one.includes(bunch)).length).toBeGreaterThanOrEqual(next.length - 2);
});

test("looks that say the same are kept, and a bunch of them as a whole", () => {
  const look = (text: string, state = "stored") => ({ content: text, title: text, data: { "data-state": state } });
  const before = [look("1"), look("2")];
  expect(sameLooks(before, [look("1"), look("2")])).toBe(before);
  const after = sameLooks(before, [look("1"), look("2", "tracked")]);
  expect(after).not.toBe(before);
  expect(after[0]).toBe(before[0]);
  expect(after[1]).toEqual(look("2", "tracked"));
  expect(sameLooks(before, [look("1")])).toHaveLength(1);
});
