/** Catches a ripple that names fixtures whose look stays as it is. */
import { newDesk, runLine } from "../desk/desk";
import { ripple } from "./looks";

test("an exception of a palette ripples to its fixtures alone, through effects too", () => {
  const desk = newDesk();
  const does = (...lines: string[]) =>
    lines.forEach((line) => {
      const refusal = runLine(desk, line);
      if (refusal) throw new Error(`${line}: ${refusal.what}`);
    });
  does("patch 4 kelp-wash as 1", "1 colour at #ff0000", "record palette 1 any only colour", "clear");
  does("1 colour at #0000ff", "record palette 2 any only colour", "clear");
  does("1 thru 4 at full colour stops palette 1 snap palette 2 snap bpm 60", "record cue 1 fade 0", "clear");
  does("1 at 50", "record cue 2 fade 0", "clear");
  const before = desk.world.show;
  does("3 palette 1", "red at 40", "update palette 1", "clear");
  const { show } = desk.world;
  const third = Object.values(show.fixtures).find(({ number }) => number === 3)!.id;
  expect(ripple(before, show).map(({ fixtures }) => fixtures)).toEqual([[third], [third]]);
  // What is within what eyes tell apart, or for nobody in the cast, changes no look.
  does("patch 1 kelp-wash as 9", "9 palette 1", "red at 40", "update palette 1", "clear");
  expect(ripple(show, desk.world.show)).toEqual([]);
});
