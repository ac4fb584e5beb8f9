/** Catches a line of the handbook that does not work as printed. */
import { demoWorld } from "@tests/setup/demo";
import { isRefusal, refusalText } from "../show/refusal";
import { contextOf, newDesk, runLine, type Desk } from "./desk";
import { setWorld } from "../play/edit/edit";
import { restorePlay, savePlay } from "../play/keep/saved";
import { COMMANDS, readLine, SCRIPT_COMMANDS } from "../command/read";
import { SETTINGS } from "../command/settings";

const world = demoWorld();

/** Work in the middle: values held, something undone, list 1 running. */
const busy = (() => {
  const desk = newDesk(world);
  for (const line of [
    "patch 2 gannet-profile as 301 at 9:1",
    "sign off cue 2",
    "1 palette 41",
    "1 zoom at 20",
    'record palette 99 "Blue spot" type',
    "clear",
    "none",
    "set cue 2 87 dimmer at 12",
    "go list 1",
    "21 thru 24 at 20",
    "1 thru 12 at full pan at 10",
    "1 thru 3 tilt wave sine relative size 5",
    "3 palette 25",
    "3 pan at 12",
    "1 thru 12 at 50",
    "undo",
  ])
    runLine(desk, line);
  return { ...desk, saved: savePlay(desk.player) };
})();

/** A desk in the middle of that work: always the same one, brought back to it. */
const desk = newDesk(busy.world);
function busyDesk(): Desk {
  setWorld(desk.player, busy.world);
  restorePlay(desk.player, busy.saved);
  return Object.assign(desk, { world: busy.world, history: busy.history, time: desk.player.now });
}

test.each([...COMMANDS, ...SETTINGS].map((c) => [c.example, c.syntax]))("%s", (example) => {
  const refusal = runLine(busyDesk(), example);
  expect(refusal && refusalText(refusal)).toBeUndefined();
});

test.each(SCRIPT_COMMANDS.map((c) => [c.example]))("%s", (example) => {
  const read = readLine(example, contextOf(busyDesk()), { script: true });
  expect(isRefusal(read) ? refusalText(read) : read?.script?.kind).toMatch(/^[a-zA-Z]+$/);
});

test("no two commands claim one line", () => {
  const context = contextOf(busyDesk());
  for (const { example, syntax } of COMMANDS) {
    const read = readLine(example, context);
    expect(isRefusal(read) ? "" : read?.command.syntax).toBe(syntax);
  }
});

/** An example with each of the words that could stand in the place of one of its own. */
function variants(syntax: string, example: string): string[] {
  const groups = [...syntax.matchAll(/\(([a-z]+(?: \| [a-z]+)+)(?: \|[^)]*)?\)/g)].map((m) => m[1]!.split(" | "));
  return groups.flatMap((words) => {
    const there = words.find((w) => new RegExp(`(^| )${w}( |$)`).test(example));
    return there ? words.map((w) => example.replace(new RegExp(`(^| )${there}(?= |$)`), `$1${w}`)) : [];
  });
}

test("a word spelled out means itself where words may be shortened, though others begin with it", () => {
  const context = contextOf(busyDesk());
  for (const { example, syntax } of COMMANDS) {
    for (const line of [example, ...variants(syntax, example)]) {
      const plain = readLine(line, context);
      if (!isRefusal(plain)) expect([line, readLine(line, context, { abbreviate: true })]).toEqual([line, plain]);
    }
  }
  expect(variants("<sel> curve (linear | square | s | points <points:points>)", "81 curve square")).toContain(
    "81 curve s",
  );
});
