/** Catches cells that are drawn twice or not at all, and bunches that are drawn again though they say the same. */
import fc from "fast-check";
import { bunchesOf, KeptLooks, sameLooks, type Look } from "./looks";
import type { SheetColumn } from "./view";

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

test("rows show what a cell says now, and only cells whose row or column is another are asked", () => {
  const some: SheetColumn[] = Array.from({ length: 20 }, (_, k) => ({
    id: `c${k}`,
    title: "",
    hint: "",
    width: 60,
    kind: "number",
  }));
  const bunches = bunchesOf(some, null);
  const edits = fc.array(
    fc.record({ row: fc.nat(4), column: fc.nat(19), kind: fc.constantFrom("row", "column", "look") }),
    { maxLength: 12 },
  );
  fc.assert(
    fc.property(edits, (made) => {
      const kept = new KeptLooks<{ id: string; says: number }, SheetColumn>();
      let rows = Array.from({ length: 5 }, (_, k) => ({ id: `r${k}`, says: 0 }));
      const columns = new Map(some.map((c) => [c.id, 0]));
      let asked = 0;
      const looking = (all: number) => (row: { says: number }, column: SheetColumn) => {
        asked += 1;
        return { content: `${all} ${row.says} ${columns.get(column.id)}` };
      };
      let look = looking(0);
      const drawn = () => {
        kept.ask(look, (column) => [columns.get(column.id)]);
        return rows.map((row) => kept.of(row, bunches));
      };
      let before = drawn();
      for (const { row, column, kind } of made) {
        if (kind === "row") rows = rows.map((r, k) => (k === row ? { ...r, says: r.says + 1 } : r));
        if (kind === "column") columns.set(`c${column}`, columns.get(`c${column}`)! + 1);
        if (kind === "look") look = looking(asked);
        asked = 0;
        const after = drawn();
        const most = { row: some.length, column: rows.length * 6, look: rows.length * some.length }[kind];
        expect(asked).toBeLessThanOrEqual(most);
        after.forEach((of, k) => {
          const wanted = bunches.flatMap((b) => b.columns.map((c) => look(rows[k]!, c)));
          expect(of.flat()).toEqual(wanted satisfies Look[]);
        });
        if (kind === "row") after.forEach((of, k) => k !== row && expect(of).toBe(before[k]));
        before = after;
      }
    }),
  );
});
