/** Catches what leads to itself without end: cues that follow or run each other, macros that cues run, at one instant or soon after. */
import fc from "fast-check";
import { runs } from "@tests/setup/runs";
import { listNumbered } from "../show/world";
import { restorePlay, savePlay } from "../play/keep/saved";
import { newDesk, runLine, wait, type Desk } from "./desk";

function does(lines: readonly string[]): { desk: Desk; told: string[] } {
  const told: string[] = [];
  const desk = newDesk(undefined, (text) => void told.push(text));
  for (const line of ["patch 2 dimmer as 1 at 1:1", ...lines]) {
    const refusal = runLine(desk, line);
    if (refusal) throw new Error(`${line}: ${refusal.what}`);
  }
  return { desk, told };
}
const runOf = (desk: Desk, number: number) => desk.player.runs.get(listNumbered(desk.world.show, number)!.id)!;
/** A list beside, in a fade of ten seconds. */
const BESIDE = ["2 at full", "record list 9 cue 1 fade 10", "clear", "go list 9"];
const half = (desk: Desk) => Math.abs(desk.player.stage.value[1]! - 50) < 1e-6;

test.each<[what: string, lines: string[], named: RegExp]>([
  [
    "a cue that follows at once and goes back to the one before",
    [
      "record list 61 cue 1 empty",
      "record list 61 cue 2 empty auto 4",
      "record list 61 cue 3 empty auto 0",
      'set list 61 cue 3 runs "go list 61 cue 2"',
      "go list 61 cue 1",
    ],
    /^list 61/,
  ],
  [
    "two lists that start each other",
    [
      "record list 61 cue 1 empty",
      "record list 62 cue 1 empty",
      'set list 61 cue 1 runs "go list 62 cue 1"',
      'set list 62 cue 1 runs "go list 61 cue 1"',
      "go list 61",
    ],
    /list 6[12]/,
  ],
  [
    "a macro that waits for nothing and starts the cue that runs it",
    [
      "record list 2 cue 1 empty",
      'record macro 1 "Round" "wait 0" "go list 2 cue 1"',
      'set list 2 cue 1 runs "macro 1"',
      "go list 2 cue 1",
    ],
    /macro 1|list 2/,
  ],
  [
    "macros of four goes, run by the cues they go to",
    [
      ...[1, 2, 3, 4].map((n) => `record list 2 cue ${n} empty`),
      ...[1, 2, 3, 4].map(
        (n) => `record macro ${n} "M${n}" "go list 2 cue 1" "go list 2 cue 2" "go list 2 cue 3" "go list 2 cue 4"`,
      ),
      ...[1, 2, 3, 4].map((n) => `set list 2 cue ${n} runs "macro ${n}"`),
      "go list 2 cue 1",
    ],
    /macro [1-4]|list 2/,
  ],
])("%s is stopped and named, and all else plays on", (_, lines, named) => {
  const { desk, told } = does([...BESIDE, ...lines]);
  wait(desk, 5);
  expect(told.some((text) => named.test(text))).toBe(true);
  expect(told.length).toBeLessThan(100);
  expect(half(desk)).toBe(true);
  // Also from what was saved: a reload does not begin it again.
  const again = newDesk(desk.world, (text) => void told.push(text));
  restorePlay(again.player, savePlay(desk.player));
  wait(again, 1);
  // And it can be given a go again once it is mended.
  for (const list of [2, 61, 62])
    if (listNumbered(desk.world.show, list)) {
      runLine(desk, `set list ${list} cue 1 runs ""`);
      expect(runLine(desk, `release list ${list}`)).toBeUndefined();
    }
});

test("a long row of cues that follow at once is gone through, and so is a quick chase", () => {
  const { desk, told } = does([
    ...Array.from({ length: 120 }, (_, k) => `record list 3 cue ${k + 1} empty auto 0`),
    "set list 3 cue 1 manual",
    "go list 3",
  ]);
  expect([runOf(desk, 3).cue, told]).toEqual([Object.values(listNumbered(desk.world.show, 3)!.cues).at(-1)!.id, []]);
  for (const line of ["set list 3 kind chase", "set list 3 bpm 6000", "release list 3", "go list 3"])
    runLine(desk, line);
  wait(desk, 4);
  expect(told).toEqual([]);
});

test("whatever cues and macros run, time passes and what runs beside is where it should be", () => {
  const go = fc
    .tuple(fc.integer({ min: 1, max: 3 }), fc.integer({ min: 1, max: 3 }))
    .map(([l, c]) => `go list ${l} cue ${c}`);
  const macro = fc.integer({ min: 1, max: 3 }).map((n) => `macro ${n}`);
  const pause = fc.constantFrom("wait 0", "wait 0.001", "wait 1");
  const cue = fc.record({
    runs: fc.option(fc.oneof(go, macro), { freq: 2 }),
    auto: fc.option(fc.constantFrom(0, 0.0001, 1), { freq: 2 }),
  });
  fc.assert(
    fc.property(
      fc.array(cue, { minLength: 9, maxLength: 9 }),
      fc.array(fc.array(fc.oneof(go, go, pause), { minLength: 1, maxLength: 4 }), { minLength: 3, maxLength: 3 }),
      (cues, macros) => {
        const at = (k: number) => `list ${Math.floor(k / 3) + 1} cue ${(k % 3) + 1}`;
        const { desk } = does([
          ...BESIDE,
          ...cues.map(({ auto }, k) => `record ${at(k)} empty${auto === null ? "" : ` auto ${auto}`}`),
          ...macros.map((lines, n) => `record macro ${n + 1} "M${n}" ${lines.map((l) => `"${l}"`).join(" ")}`),
          ...cues.flatMap(({ runs: line }, k) => (line === null ? [] : [`set ${at(k)} runs "${line}"`])),
        ]);
        for (const line of ["go list 1", "go list 2", "go list 3"]) runLine(desk, line);
        wait(desk, 5);
        expect(half(desk)).toBe(true);
      },
    ),
    { numRuns: runs(60) },
  );
});
