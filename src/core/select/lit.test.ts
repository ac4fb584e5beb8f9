/** Catches a selection of what is lit that holds what gives no light. */
import { newDesk, runLine, wait } from "../desk/desk";

test("what is lit gives light: hazers and fans do not, whatever their level", () => {
  const desk = newDesk();
  for (const line of [
    "patch 2 dimmer as 1",
    "patch 1 mist-hazer as 11",
    "patch 1 reed-fan as 12",
    "1",
    "at full",
    "all",
  ])
    expect([line, runLine(desk, line)]).toEqual([line, undefined]);
  wait(desk, 0.1);
  expect(runLine(desk, "lit")).toBeUndefined();
  const { show, hands } = desk.world;
  expect(hands.selection.map((i) => show.fixtures[i]!.number)).toEqual([1]);
});
