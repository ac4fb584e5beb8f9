/** Catches a hand that is not told of what it holds over a list, or told of what is held elsewhere. */
import { newDesk, runLine } from "../desk/desk";
import { fixturesHeldOver } from "./heldOver";

test("fixtures count that hold what the list stores, and no others", () => {
  const desk = newDesk();
  const over = (...lines: string[]) => {
    for (const line of lines) expect(runLine(desk, line)).toBeUndefined();
    return fixturesHeldOver(Object.values(desk.world.show.lists)[0]!, desk.world.hands.held);
  };
  expect(over("patch 6 dimmer as 1 at 1:1", "patch 1 petrel-spot as 11", "1 thru 3 at 50", "record cue 1")).toBe(3);
  expect(over("clear")).toBe(0);
  expect(over("4 at 50", "11 pan at 10")).toBe(0);
  expect(over("2 thru 5 at 20")).toBe(2);
  expect(over("record cue 2")).toBe(5);
  expect(over("clear", "2 at 0")).toBe(1);
});
