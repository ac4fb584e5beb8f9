/** Catches drift that is missed or made up, and a clean that changes a look or leaves what it could cure. */
import fc from "fast-check";
import { newDesk, runLine, type Desk } from "../desk/desk";
import { listNumbered, cuesOf } from "../show/world";
import { cleaned } from "./intents/cleanIntent";
import { driftsOf } from "./drift";
import { isLitIn, lastLitIn, lifeOf, nextLitIn } from "./life";
import { fixtureLook, partsOf, sameLook } from "./looks";
import { trackingOf } from "./tracking";
import { runs } from "@tests/setup/runs";

interface Made {
  values: { fixture: number; attribute: string; value: number | "release" }[];
  fresh: boolean;
  reach: number | null;
  meant: boolean;
}

const cue = fc.record<Made>({
  values: fc.array(
    fc.record({
      fixture: fc.integer({ min: 1, max: 3 }),
      attribute: fc.constantFrom("dimmer", "dimmer", "pan", "tilt", "zoom"),
      value: fc.oneof(
        { weight: 5, arbitrary: fc.constantFrom(0, 0, 10, 20, 40) },
        { weight: 1, arbitrary: fc.constant("release" as const) },
      ),
    }),
    { maxLength: 6 },
  ),
  fresh: fc.integer({ min: 0, max: 7 }).map((n) => n === 0),
  reach: fc.option(fc.integer({ min: 0, max: 3 }), { freq: 4 }),
  meant: fc.integer({ min: 0, max: 9 }).map((n) => n === 0),
});

function listOf(made: readonly Made[]): Desk {
  const desk = newDesk();
  const run = (line: string) => {
    const refusal = runLine(desk, line);
    if (refusal) throw new Error(`${line}: ${refusal.what}`);
  };
  run("patch 3 kelp-wash as 1");
  made.forEach(({ values }, i) => {
    for (const { fixture, attribute, value } of values)
      run(
        `${fixture} ${attribute} ${value === "release" ? "release" : `at ${attribute === "zoom" ? 6 + value : value}`}`,
      );
    run(`record cue ${i + 1}${values.length === 0 ? " empty" : ""}`);
    run("clear");
  });
  made.forEach(({ fresh, reach, meant }, i) => {
    if (fresh) run(`set cue ${i + 1} fresh on`);
    if (reach !== null) run(`set cue ${i + 1} reach ${i + 1 + reach}`);
    if (meant) run(`set cue ${i + 1} meant 2`);
  });
  return desk;
}

const cues = fc.array(cue, { minLength: 1, maxLength: 8 });

test("a life is what its looks say", () => {
  fc.assert(
    fc.property(cues, (made) => {
      const { show } = listOf(made).world;
      const list = listNumbered(show, 1)!;
      const tracking = trackingOf(list, show);
      for (const fixture of Object.values(show.fixtures)) {
        const life = lifeOf(show, list, fixture);
        const lit = cuesOf(list).map((_, i) => fixtureLook(show, fixture, tracking, i) !== null);
        expect(cuesOf(list).map((_, i) => isLitIn(life, i))).toEqual(lit);
        lit.forEach((_, i) => {
          expect(nextLitIn(life, i)).toBe(lit.indexOf(true, i + 1));
          expect(lastLitIn(life, i)).toBe(lit.slice(0, i).lastIndexOf(true));
        });
      }
    }),
    { numRuns: runs(150) },
  );
});

test("clean never changes a look, and leaves no drift that it could cure", () => {
  fc.assert(
    fc.property(cues, (made) => {
      const desk = listOf(made);
      const { show } = desk.world;
      const before = listNumbered(show, 1)!;
      const drifts = driftsOf(show, before);
      expect(drifts.every((d) => !before.cues[d.cue]!.meant?.includes(d.fixture))).toBe(true);
      const after = cleaned(show, before, new Set(Object.keys(before.cues)));
      const [a, b] = [trackingOf(before, show), trackingOf(after, show)];
      cuesOf(before).forEach((c, i) => {
        for (const fixture of Object.values(show.fixtures))
          if (!sameLook(fixtureLook(show, fixture, a, i), fixtureLook(show, fixture, b, i)))
            throw new Error(`cue ${c.number} looks different for fixture ${fixture.number}`);
      });
      expect(driftsOf(show, after).filter((d) => d.curable)).toEqual([]);
      expect(runLine(desk, "clean list 1")).toBeUndefined();
      const cured = listNumbered(desk.world.show, 1)!;
      if (drifts.some((d) => d.curable)) {
        expect(runLine(desk, "undo")).toBeUndefined();
        expect(desk.world.show.lists).toEqual(show.lists);
      } else expect(cured).toBe(before);
    }),
    { numRuns: runs(150) },
  );
});

test("only some cues are cleaned where only they are named, and what none stores is only told", () => {
  const desk = newDesk();
  for (const line of [
    "patch 2 kelp-wash as 1",
    "1 at full pan at 0",
    "record cue 1",
    "1 at 0 pan at 10",
    "record cue 2",
    "clear",
    "1 pan at 20",
    "record cue 3",
    "set cue 3 reach +0",
    "clear",
    "1 tilt at 5",
    "record cue 4",
    "clean cue 2",
  ])
    expect(runLine(desk, line)).toBeUndefined();
  const { show } = desk.world;
  const list = listNumbered(show, 1)!;
  const told = driftsOf(show, list).map((d) => [d.at, d.kind, d.curable]);
  // Cue 3 was let be; the end of its reach is nobody's entry; cue 4 moves its tilt.
  expect(told).toEqual([
    [2, "dark", true],
    [3, "dark", true],
  ]);
  expect(driftsOf(show, list)[1]!.changes.map((c) => c.key.split(".")[2])).toEqual(["Pan", "Tilt"]);
  expect(partsOf(show, show.fixtures[Object.keys(show.fixtures)[0]!]!).length).toBeGreaterThan(3);
});
