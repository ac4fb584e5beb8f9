/** Catches a first step that is ticked without being done or whose line does not do it, and a thing to try that cannot be done or taken back. */
import { newDesk, runLine } from "@/core/desk/desk";
import { demoWorld } from "@tests/setup/demo";
import { firstSteps } from "./firstSteps";
import { WORTH_TRYING } from "./worthTrying";

test("each step of the path is done by its own lines, and by nothing less", () => {
  const desk = newDesk();
  const steps = () => firstSteps(desk.world, Object.keys(desk.player.runs ?? {}).length > 0);
  for (let k = 0; k < 4; k++) {
    expect(steps().map((s) => s.done)).toEqual([0, 1, 2, 3, 4].map((i) => i < k));
    // One line at a time, as it is shown.
    for (let most = 3; most > 0 && !steps()[k]!.done; most--) {
      const [line] = steps()[k]!.lines;
      expect([line, runLine(desk, line!)]).toEqual([line, undefined]);
    }
  }
  expect(steps().map((s) => s.done)).toEqual([true, true, true, true, false]);
  while (steps()[4]!.lines.length > 1) expect(runLine(desk, steps()[4]!.lines[0]!)).toBeUndefined();
  expect(runLine(desk, steps()[4]!.lines[0]!)).toBeUndefined();
  expect(desk.player.stage.value.some((v) => v > 0)).toBe(true);
});

test.each(WORTH_TRYING.map((t) => [t.title, t] as const))("%s", (_, { lines, typed, ends = [] }) => {
  const world = demoWorld();
  const desk = newDesk(world);
  for (const line of lines) expect([line, runLine(desk, line)]).toEqual([line, undefined]);
  const steps = desk.history.done.length;
  for (const line of ends) expect([line, runLine(desk, line)]).toEqual([line, undefined]);
  for (let k = 0; k < steps; k++) expect(runLine(desk, "undo")).toBeUndefined();
  expect(desk.world.show).toEqual(world.show);
  expect(desk.world.hands.held).toEqual(world.hands.held);
  expect(desk.world.hands.blind).toBe(false);
  if (typed !== undefined) expect([typed, runLine(desk, typed)]).toEqual([typed, undefined]);
});
