/** Catches a show test that fails on the show it was written from, or passes when a look has changed. */
import { demoWorld } from "@tests/setup/demo";
import { runLine, newDesk } from "../desk/desk";
import { runScript, type ScriptFiles } from "../desk/script";
import { refuse } from "../show/refusal";
import type { Show } from "../show/schema";
import { newHands } from "../show/world";
import { writeShowTest } from "./showTest";

const filesOf = (show: Show): ScriptFiles => ({
  open: () => show,
  save: () => undefined,
  readText: () => refuse("no files here"),
  writeText: () => undefined,
  readBytes: () => refuse("no files here"),
  writeBytes: () => undefined,
  print: () => undefined,
});

test("the demo passes its own test, and fails it once a palette has changed", () => {
  const { show } = demoWorld();
  const script = writeShowTest(show, "salt.comet.zip");
  const result = runScript(script, filesOf(show));
  expect(result.failures.slice(0, 3)).toEqual([]);
  expect(result.passed).toBeGreaterThan(500);
  const desk = newDesk({ show, hands: newHands(show) });
  expect(runLine(desk, "set palette 41 21 blue at 3 type")).toBeUndefined();
  expect(runScript(script, filesOf(desk.world.show)).failures.length).toBeGreaterThan(0);
});
