/** Catches a copy that brings other values than its words say. */
import fc from "fast-check";
import { newDesk, runLine, type Desk } from "../desk/desk";
import { splitKey } from "../show/ids";
import { specOf } from "../show/model";
import type { Cue, CueList } from "../show/schema";
import { isRelease, type Entry } from "../show/value";
import { cuesOf, listNumbered } from "../show/world";
import { runs } from "@tests/setup/runs";

const value = fc.constantFrom("at 0", "at 50", "at full", "red at 20", "pan at 30", "zoom at 15", "red release");
const cue = fc.array(fc.tuple(fc.integer({ min: 1, max: 3 }), value), { minLength: 1, maxLength: 4 });

function build(cues: readonly (readonly [number, string])[][]): Desk {
  const desk = newDesk();
  runLine(desk, "patch 3 kelp-wash as 1 at 1:1");
  cues.forEach((lines, i) => {
    for (const [fixture, what] of lines) runLine(desk, `${fixture} ${what}`);
    runLine(desk, `record cue ${i + 1} fade 0`);
    runLine(desk, "clear");
  });
  return desk;
}
const listOf = (desk: Desk): CueList => listNumbered(desk.world.show, 1)!;

/** What is in force of a parameter, read backwards without reaches or fresh starts. */
function before(cues: readonly Cue[], place: number, key: string): Entry | undefined {
  for (let at = place; at >= 0; at--) {
    const entry = cues[at]!.entries[key];
    if (entry) return isRelease(entry.value!) ? undefined : entry;
  }
  return undefined;
}

test("a copy brings what is stored, seen or everything, and leaves, sets or releases the rest", () => {
  fc.assert(
    fc.property(
      fc.array(cue, { minLength: 2, maxLength: 5 }),
      fc.nat(),
      fc.nat(),
      fc.constantFrom("stored", "seen", "everything"),
      fc.constantFrom("keep", "defaults", "release"),
      fc.constantFrom("merge", "overwrite"),
      (made, a, b, bring, elsewhere, onto) => {
        const desk = build(made);
        const cues = cuesOf(listOf(desk));
        const from = a % cues.length;
        // Onto a cue that is there, or a new one at the end.
        const to = b % (cues.length + 1);
        if (from === to) return;
        expect(
          runLine(desk, `copy cue ${from + 1} to cue ${to + 1} bring ${bring} elsewhere ${elsewhere} ${onto}`),
        ).toBeUndefined();
        const keys = [...new Set(cues.flatMap((c) => Object.keys(c.entries)))];
        const lit = (fixture: string) => {
          const found = before(cues, from, `${fixture}.0.Dimmer`)?.value;
          return typeof found === "number" && found > 0;
        };
        const brought: Record<string, unknown> = {};
        for (const key of keys) {
          const { fixture } = splitKey(key);
          const stored = cues[from]!.entries[key];
          if (bring === "stored") {
            if (stored) brought[key] = stored.value;
          } else if (bring === "everything" || lit(fixture)) {
            const found = before(cues, from, key);
            if (found) brought[key] = found.value;
          }
          if (bring === "seen" && !lit(fixture)) brought[`${fixture}.0.Dimmer`] = 0;
        }
        const rest: Record<string, unknown> = {};
        if (elsewhere !== "keep")
          for (const key of keys)
            if (!(key in brought))
              rest[key] = elsewhere === "release" ? { release: true } : specOf(desk.world.show, key)!.default;
        const old = onto === "merge" ? (cues[to]?.entries ?? {}) : {};
        const expected = {
          ...Object.fromEntries(Object.entries(old).map(([key, e]) => [key, e.value])),
          ...rest,
          ...brought,
        };
        const target = cuesOf(listOf(desk)).find((c) => c.number === to + 1)!;
        expect(Object.fromEntries(Object.entries(target.entries).map(([key, e]) => [key, e.value]))).toEqual(expected);
      },
    ),
    { numRuns: runs(150) },
  );
});

test("with a word for all else, nothing of the target is left beside what comes, merged or not", () => {
  const desk = newDesk();
  for (const line of [
    "patch 2 kelp-wash as 1 at 1:1",
    "1 at 50",
    "record cue 1 fade 0",
    "clear",
    "1 at 20",
    "record cue 2 fade 0",
    "clear",
    "1 dimmer wave sine relative size 10",
    "record cue 2 merge",
    "clear",
  ])
    expect([line, runLine(desk, line)]).toEqual([line, undefined]);
  const [, target] = cuesOf(listOf(desk));
  const [key] = Object.keys(target!.entries);
  expect(target!.entries[key!]!.effect).toBeDefined();
  expect(runLine(desk, "copy cue 1 to cue 2 elsewhere defaults merge")).toBeUndefined();
  expect(cuesOf(listOf(desk))[1]!.entries[key!]).toEqual({ attribute: "Dimmer", value: 50 });
});
