/** Catches a programmer that does not tell, or tells wrongly, that an effect is held of what is selected. */
import { newDesk, runLine } from "@/core/desk/desk";
import { playedOf } from "./played";

test("effects are told of the fixtures and cells that are selected, by family, and stops are none", () => {
  const desk = newDesk();
  const does = (...lines: string[]) => lines.forEach((line) => expect(runLine(desk, line)).toBeUndefined());
  does("patch 4 kelp-wash as 1", "1 thru 2 pan wave sine low 0 high 10 bpm 30", "3 at 50");
  const [one, two, three] = Object.keys(desk.world.show.fixtures);
  const { held } = desk.world.hands;
  expect(playedOf(held, [one!, two!, three!], "Position")).toEqual([`${one}.0.Pan`, `${two}.0.Pan`]);
  expect(playedOf(held, [two!], "Position")).toEqual([`${two}.0.Pan`]);
  expect(playedOf(held, [three!], "Position")).toEqual([]);
  expect(playedOf(held, [one!], "Colour")).toEqual([]);
  does("1 thru 2", "pan stop");
  expect(playedOf(desk.world.hands.held, [one!, two!], "Position")).toEqual([]);
});
