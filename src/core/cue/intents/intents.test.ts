/** Catches edits of cues that change what they should leave, over random lists. */
import fc from "fast-check";
import { newDesk, runLine, type Desk } from "../../desk/desk";
import { cuesOf, listNumbered } from "../../show/world";
import { ends } from "../../show/value";
import { lookOf, sameLook } from "../looks";
import { allInForce, storedIn } from "../tracking";
import { runs } from "@tests/setup/runs";

const cue = fc.record({
  lines: fc.array(
    fc.tuple(
      fc.integer({ min: 1, max: 4 }),
      fc.constantFrom("dimmer", "pan", "red"),
      fc.oneof(
        { weight: 4, arbitrary: fc.integer({ min: 0, max: 100 }).map((v) => `at ${v}`) },
        { weight: 1, arbitrary: fc.constant("release") },
      ),
    ),
    { minLength: 1, maxLength: 4 },
  ),
  mark: fc.constantFrom("", "", "", "fresh on", "reach +1", "reach +0"),
});
const cues = fc.array(cue, { minLength: 2, maxLength: 6 });
const place = fc.nat(5);

function deskOf(given: { lines: [number, string, string][]; mark: string }[]): Desk {
  const desk = newDesk();
  const run = (line: string) => {
    const refusal = runLine(desk, line);
    if (refusal) throw new Error(`${line}: ${refusal.what}`);
  };
  run("patch 4 kelp-wash as 1");
  given.forEach(({ lines, mark }, i) => {
    for (const [fixture, attribute, what] of lines) run(`${fixture} ${attribute} ${what}`);
    run(`record cue ${i + 1} fade ${i}`);
    run("clear");
    if (mark && mark !== "reach +0") run(`set cue ${i + 1} ${mark}`);
  });
  return desk;
}
const listOf = (desk: Desk) => listNumbered(desk.world.show, 1)!;
const looks = (desk: Desk) => cuesOf(listOf(desk)).map((_, i) => lookOf(desk.world.show, listOf(desk), i));
const same = (a: ReturnType<typeof looks>, b: ReturnType<typeof looks>) =>
  a.length === b.length &&
  a.every((look, i) => look.size === b[i]!.size && [...look].every(([id, l]) => sameLook(l, b[i]!.get(id) ?? null)));

test("block stores all that is in force and unblock all that would track in again; no look changes", () => {
  fc.assert(
    fc.property(cues, place, (given, at) => {
      const desk = deskOf(given);
      const number = (at % given.length) + 1;
      const before = looks(desk);
      const inForce = allInForce(listOf(desk), number - 1, desk.world.show);
      runLine(desk, `block cue ${number}`);
      const blocked = cuesOf(listOf(desk))[number - 1]!;
      for (const [key, found] of inForce) expect(blocked.entries[key]?.value).toEqual(found.entry.value);
      expect(same(looks(desk), before)).toBe(true);
      runLine(desk, `unblock cue ${number}`);
      expect(same(looks(desk), before)).toBe(true);
      const left = cuesOf(listOf(desk))[number - 1]!;
      const tracking = storedIn({
        ...listOf(desk),
        cues: { ...listOf(desk).cues, [left.id]: { ...left, entries: {} } },
      });
      for (const [key, entry] of Object.entries(left.entries)) {
        if (ends(entry, "value") || left.fresh) continue;
        const under = tracking.columns.get(key);
        expect(
          under === undefined ||
            allInForce(
              { ...listOf(desk), cues: { ...listOf(desk).cues, [left.id]: { ...left, entries: {} } } },
              number - 1,
              desk.world.show,
            ).get(key)?.entry.value,
        ).not.toEqual(entry.value);
      }
    }),
    { numRuns: runs(120) },
  );
});

test("taking a cue and updating it with what was taken changes nothing", () => {
  fc.assert(
    fc.property(cues, place, fc.boolean(), (given, at, all) => {
      const desk = deskOf(given);
      const number = (at % given.length) + 1;
      const before = looks(desk);
      const refused = runLine(desk, `take cue ${number}${all ? " all" : ""}`);
      if (refused) return;
      const entries = cuesOf(listOf(desk))[number - 1]!.entries;
      runLine(desk, `update cue ${number}`);
      expect(cuesOf(listOf(desk))[number - 1]!.entries).toEqual(entries);
      expect(same(looks(desk), before)).toBe(true);
    }),
    { numRuns: runs(80) },
  );
});

test("renumbering keeps order, looks and what plays; moving with looks kept keeps the others' looks", () => {
  fc.assert(
    fc.property(cues, place, place, (given, at, to) => {
      const desk = deskOf(given);
      const before = looks(desk);
      const ids = cuesOf(listOf(desk)).map((c) => c.id);
      runLine(desk, `go cue ${(at % given.length) + 1}`);
      const standing = desk.player.runs.get(listOf(desk).id)!.cue;
      expect(runLine(desk, "renumber list 1 from 10 step 5")).toBeUndefined();
      expect(cuesOf(listOf(desk)).map((c) => c.id)).toEqual(ids);
      expect(cuesOf(listOf(desk)).map((c) => c.number)).toEqual(ids.map((_, i) => 10 + 5 * i));
      expect(same(looks(desk), before)).toBe(true);
      expect(desk.player.runs.get(listOf(desk).id)!.cue).toBe(standing);

      const [from, target] = [10 + 5 * (at % given.length), 12 + 5 * (to % given.length)];
      const lookById = new Map(cuesOf(listOf(desk)).map((c, i) => [c.id, looks(desk)[i]!]));
      expect(runLine(desk, `move cue ${from} to cue ${target} keeplooks`)).toBeUndefined();
      const moved = cuesOf(listOf(desk));
      expect(moved.map((c) => c.number)).toEqual([...moved.map((c) => c.number)].sort((a, b) => a - b));
      moved.forEach((c, i) => c.number === target || expect(same([looks(desk)[i]!], [lookById.get(c.id)!])).toBe(true));
    }),
    { numRuns: runs(80) },
  );
});
