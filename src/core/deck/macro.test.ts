/** Catches macros that take for ever to be gone through, or lines that are not those they come to. */
import { newDesk, runLine } from "../desk/desk";
import { macroUses } from "./macroUses";
import { allLines, notAMacro } from "./macro";
import { isRefusal } from "../show/refusal";
import type { Macro } from "../show/deckSchema";

const macros = (lines: readonly (readonly string[])[]) => ({
  macros: Object.fromEntries(
    lines.map((of, k) => [`m${k + 1}`, { id: `m${k + 1}`, number: k + 1, name: "", lines: [...of] } satisfies Macro]),
  ),
});
const twice = (levels: number, first: readonly string[]) =>
  macros([first, ...Array.from({ length: levels }, (_, k) => [`macro ${k + 1}`, `macro ${k + 1} // again`])]);

test("macros that each run the one before twice are gone through once, also where they are comments alone", () => {
  const empty = twice(200, ["// nothing"]);
  expect(allLines(empty, empty.macros.m201!)).toEqual([]);
  expect(notAMacro(empty, 300, ["macro 201", "macro 201"])).toBeUndefined();
  const full = twice(200, ["go"]);
  expect(isRefusal(allLines(full, full.macros.m201!))).toBe(true);
  const some = twice(3, ["go", "// a bow", "wait 1"]);
  expect(allLines(some, some.macros.m4!)).toEqual(Array.from({ length: 8 }, () => ["go", "wait 1"]).flat());
});

test("a way back to itself is found, whatever leads there", () => {
  const round = macros([["go"], ["macro 1", "macro 3"], ["macro 4"], ["macro 1", "macro 2"]]);
  expect(notAMacro(round, 2, ["macro 1", "macro 3"])?.what).toMatch(
    /macro 2 would run macro 3 would run macro 4 would run macro 2/,
  );
  expect(notAMacro(round, 5, ["macro 2"])).toBeUndefined();
  expect(notAMacro(round, 1, ["macro 4"])?.what).toMatch(/macro 1 would run macro 4 would run macro 1/);
  const lines = allLines(round, round.macros.m2!);
  expect(isRefusal(lines) && lines.what).toMatch(/macro 2 would run itself/);
});

test("who runs a macro is named: cues, pads and other macros", () => {
  const desk = newDesk();
  for (const line of [
    "patch 1 dimmer as 1",
    "1 at full",
    "record cue 3",
    'record macro 2 "A" "go"',
    'record macro 5 "B" "macro 2"',
    'set cue 3 runs "macro 2"',
    'record page 1 "P"',
    "put macro 2 on page 1 place 4",
  ])
    expect([line, runLine(desk, line)]).toEqual([line, undefined]);
  const { show } = desk.world;
  const numbered = (n: number) => Object.values(show.macros).find((m) => m.number === n)!;
  expect(macroUses(show, numbered(2))).toBe("cue 3, pad 4 of page 1, macro 5");
  expect(macroUses(show, numbered(5))).toBeNull();
});
