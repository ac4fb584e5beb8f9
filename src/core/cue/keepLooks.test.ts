/** Catches looks that an edit changed though they were to be kept, and ripple that tells others than change. */
import fc from "fast-check";
import { newDesk, runLine, type Desk } from "../desk/desk";
import { cuesOf, listNumbered, type World } from "../show/world";
import { lookOf, ripple, sameLook } from "./looks";
import { runs } from "@tests/setup/runs";

const value = fc.constantFrom(
  "at 0",
  "at 0",
  "at 50",
  "at full",
  "red at 20",
  "red at 80",
  "zoom at 15",
  "zoom at 50",
  "red release",
  "intensity release",
);
const cue = fc.record({
  lines: fc.array(fc.tuple(fc.integer({ min: 1, max: 3 }), value), { minLength: 1, maxLength: 4 }),
  fresh: fc.integer({ min: 0, max: 7 }).map((n) => n === 0),
  reach: fc.option(fc.integer({ min: 0, max: 3 }), { freq: 3 }),
});
const edit = fc.tuple(
  fc.constantFrom(
    "record cueonly",
    "overwrite cueonly",
    "new cueonly",
    "update cueonly",
    "delete",
    "move",
    "block",
    "unblock",
  ),
  fc.nat(),
  fc.nat(),
  fc.array(fc.tuple(fc.integer({ min: 1, max: 3 }), value), { minLength: 1, maxLength: 3 }),
);

function build(cues: { lines: [number, string][]; fresh: boolean; reach: number | null }[]): Desk {
  const desk = newDesk();
  runLine(desk, "patch 3 kelp-wash as 1 at 1:1");
  cues.forEach((c, i) => {
    for (const [fixture, what] of c.lines) runLine(desk, `${fixture} ${what}`);
    runLine(desk, `record cue ${i + 1}`);
    runLine(desk, "clear");
  });
  cues.forEach((c, i) => {
    if (c.fresh) runLine(desk, `set cue ${i + 1} fresh on`);
    if (c.reach !== null) runLine(desk, `set cue ${i + 1} reach ${i + 1 + c.reach}`);
  });
  return desk;
}

function looks({ show }: World): Map<string, ReturnType<typeof lookOf>> {
  const list = listNumbered(show, 1)!;
  return new Map(cuesOf(list).map((c, i) => [c.id, lookOf(show, list, i)]));
}

function differing(before: World, after: World): Set<string> {
  const [a, b] = [looks(before), looks(after)];
  const found = new Set<string>();
  for (const [id, look] of b) {
    const old = a.get(id);
    if (!old) continue;
    const ids = new Set([...old.keys(), ...look.keys()]);
    if ([...ids].some((f) => !sameLook(old.get(f) ?? null, look.get(f) ?? null))) found.add(id);
  }
  return found;
}

test("no other look changes when looks are kept, and ripple agrees with looking at every cue", () => {
  fc.assert(
    fc.property(
      fc.array(cue, { minLength: 2, maxLength: 6 }),
      edit,
      fc.boolean(),
      (cues, [what, a, b, lines], keep) => {
        const desk = build(cues);
        const n = (a % cues.length) + 1;
        const made = /record|overwrite|new|update/.test(what);
        if (made) for (const [fixture, set] of lines) runLine(desk, `${fixture} ${set}`);
        const only = keep ? " cueonly" : "";
        const line = {
          "record cueonly": `record cue ${n}${only}`,
          "overwrite cueonly": `record cue ${n} overwrite${only}`,
          "new cueonly": `record cue ${n}.5${only}`,
          "update cueonly": `update cue ${n} all${only}`,
          delete: `delete cue ${n} ${keep ? "keeplooks" : "track"}`,
          move: `move cue ${n} to cue ${(b % (cues.length + 1)) + 0.5} ${keep ? "keeplooks" : "track"}`,
          block: `block cue ${n}`,
          unblock: `unblock cue ${n}`,
        }[what];
        const before = desk.world;
        const edited = cuesOf(listNumbered(before.show, 1)!)[n - 1]!.id;
        if (runLine(desk, line)) return;
        const changed = differing(before, desk.world);
        if (!line.startsWith("block")) changed.delete(edited);
        if (keep || what === "block" || what === "unblock") expect([...changed]).toEqual([]);
        expect(new Set(ripple(before.show, desk.world.show).map((r) => r.cue))).toEqual(
          new Set([...changed].filter((id) => id !== edited)),
        );
      },
    ),
    { numRuns: runs(300) },
  );
});
