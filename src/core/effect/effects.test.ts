/** Catches an effect that jumps, leaves its range, loses its step, or depends on when it was looked at. */
import fc from "fast-check";
import { newDesk, runLine, wait, type Desk } from "../desk/desk";
import { targetsOf } from "../show/model";
import { fixtureNumbered } from "../show/world";
import { runs } from "@tests/setup/runs";

const run = (desk: Desk, ...lines: string[]) => {
  for (const line of lines) expect([line, runLine(desk, line)]).toEqual([line, undefined]);
};
const at = (desk: Desk, fixture: number, attribute: string) => {
  const { key } = targetsOf(desk.world.show, fixtureNumbered(desk.world.show, fixture)!.id, attribute)[0]!;
  return desk.player.stage.value[desk.player.rig.index.get(key)!]!;
};
const rig = (...lines: string[]) => {
  const desk = newDesk();
  run(desk, "patch 4 dimmer as 1 at 1:1", "patch 2 kelp-wash as 11 at 2:1", ...lines);
  return desk;
};

const n = (min: number, max: number) => fc.integer({ min, max });
const wave = fc.constantFrom("sine", "triangle", "rampup", "random", "square", "pulse", "rampdown");
const smooth = fc.constantFrom("sine", "triangle", "random");
const running = fc.record({
  bpm: n(1, 300),
  across: n(0, 900),
  start: n(0, 359),
  width: n(20, 100),
  way: fc.constantFrom("", " backward", " bounce"),
});
const line = (
  w: string,
  { bpm, across, start, width, way }: typeof running extends fc.Arbitrary<infer T> ? T : never,
) => `wave ${w} low 20 high 70 bpm ${bpm} across ${across} start ${start} width ${width}${way}`;

test("it stays between low and high, and does not depend on when ticks fall", () => {
  fc.assert(
    fc.property(wave, running, fc.array(n(1, 900), { maxLength: 6 }), fc.boolean(), (w, how, ticks, held) => {
      const start = [`1 thru 4 dimmer ${line(w, how)}`, ...(held ? [] : ["record cue 1 fade 0", "clear", "go"])];
      const [often, once] = [rig(...start), rig(...start)];
      for (const t of ticks) {
        wait(often, t / 100);
        for (const fixture of [1, 2, 3, 4]) {
          const value = at(often, fixture, "Dimmer");
          expect(value >= 20 - 1e-9 && value <= 70 + 1e-9).toBe(true);
        }
      }
      const all = ticks.reduce((a, b) => a + b, 0) / 100;
      wait(once, all);
      // Where a wave jumps, the last bit of a time may decide.
      if (/sine|triangle|random/.test(w) && how.width === 100)
        for (const fixture of [1, 2, 3, 4])
          expect(at(often, fixture, "Dimmer")).toBeCloseTo(at(once, fixture, "Dimmer"), 6);
    }),
    { numRuns: runs(25) },
  );
});

test("a change of speed never jumps, whoever makes it; nor does an edit of what it runs through restart it", () => {
  fc.assert(
    fc.property(smooth, running, n(1, 5000), n(1, 600), (w, how, before, speed) => {
      const desk = rig(`1 thru 4 dimmer ${line(w, { ...how, width: 100 })}`, "record effect 1 cast", "clear");
      run(desk, "1 thru 4 effect 1", "record cue 1 fade 0", "clear", "go");
      wait(desk, before / 100);
      for (const change of [
        `set effect 1 bpm ${speed}`,
        `effectrate list 1 at ${speed}`,
        `set effect 1 rate ${speed}`,
      ]) {
        const was = [1, 2, 3, 4].map((f) => at(desk, f, "Dimmer"));
        run(desk, change);
        [1, 2, 3, 4].forEach((f, k) => expect(at(desk, f, "Dimmer")).toBeCloseTo(was[k]!, 6));
        wait(desk, 0.37);
      }
      // Twice the span: the same place in the cycle.
      const was = [1, 2, 3, 4].map((f) => at(desk, f, "Dimmer"));
      run(desk, "set effect 1 low 0 high 100");
      [1, 2, 3, 4].forEach((f, k) => expect(at(desk, f, "Dimmer")).toBeCloseTo((was[k]! - 20) * 2, 6));
    }),
    { numRuns: runs(25) },
  );
});

test("two voices of one effect keep their step through stalls, speeds and edits", () => {
  fc.assert(
    fc.property(
      fc.array(
        fc.oneof(
          n(1, 400).map((t) => `wait ${t / 100}`),
          n(10, 500).map((r) => `set effect 1 rate ${r}`),
          n(10, 400).map((r) => `effectrate list 1 at ${r}`),
        ),
        { maxLength: 8 },
      ),
      (story) => {
        const desk = rig("11 pan wave sine low -50 high 50 bpm 30 tilt wave sine low -50 high 50 bpm 30 start 90");
        run(desk, "record effect 1", "clear", "11 effect 1", "record cue 1 fade 0", "clear", "go");
        for (const step of [...story, "wait 3600"]) {
          if (step.startsWith("wait")) wait(desk, Number(step.slice(5)));
          else run(desk, step);
          // A circle: cosine and sine of one angle.
          expect(Math.hypot(at(desk, 11, "Pan"), at(desk, 11, "Tilt"))).toBeCloseTo(50, 5);
        }
      },
    ),
    { numRuns: runs(20) },
  );
});

test("undo restores the show exactly, whatever was done to its effects", () => {
  const edits = fc.constantFrom(
    "set effect 1 bpm 7",
    "set effect 1 mirror 2 by left",
    "set effect 1 voice new tilt wave sine relative size 4",
    "set effect 1 voice 1 off",
    "set effect 1 mute 1",
    "set effect 2 stops #ff0000 #00ff00 #0000ff",
    'record wave "Tip" points 0 10, 40 90',
    'delete wave "Tip"',
    "delete effect 1",
    "delete effect 2",
    "1 thru 4 at 30",
    "update effect 1",
    "record cue 1 overwrite",
    "block cue 2",
    "unblock cue 2",
    "update cue 1 all cueonly",
    "record list 1 cue 1.5 cueonly",
    "delete cue 1 keeplooks",
    "set list 7 kind effect 1",
    "remove 2",
  );
  fc.assert(
    fc.property(fc.array(edits, { minLength: 1, maxLength: 6 }), (lines) => {
      const desk = rig(
        'record wave "Tip" points 0 0, 50 100, 100 0',
        '1 thru 4 dimmer wave "Tip" low 0 high 100',
        "11 pan wave sine relative size 10",
        "record effect 1 cast",
        "clear",
        "11 thru 12 colour stops #ff0000 #0000ff",
        "record effect 2",
        "clear",
        "1 thru 4 effect 1",
        "record cue 1",
        "clear",
        "11 effect 2",
        "record cue 2",
        "1 dimmer stop",
      );
      const now = () => JSON.stringify(canonical([desk.world.show, desk.world.hands.held]));
      const before = now();
      // A line that changed nothing is no step.
      for (const text of lines) {
        const was = now();
        if (runLine(desk, text) !== undefined || now() === was) continue;
        const then = now();
        runLine(desk, "undo");
        expect(now()).toBe(was);
        runLine(desk, "redo");
        expect(now()).toBe(then);
      }
      for (let i = 0; i <= lines.length && now() !== before; i++) runLine(desk, "undo");
      expect(now()).toBe(before);
    }),
    { numRuns: runs(25) },
  );
});

/** Keys in order, so that only what is said counts. */
function canonical(value: unknown): unknown {
  if (Array.isArray(value)) return value.map(canonical);
  if (typeof value !== "object" || value === null) return value;
  return Object.fromEntries(
    Object.entries(value)
      .sort(([a], [b]) => (a < b ? -1 : 1))
      .map(([k, v]) => [k, canonical(v)]),
  );
}
