/** Catches a trial, or a pad let go of, that leaves something held or takes what somebody else held. */
import { newDesk, performOn, runLine, type Desk } from "../desk/desk";
import { puttingBack } from "./puttingBack";

const does = (desk: Desk, ...lines: string[]) => {
  for (const line of lines) expect([line, runLine(desk, line)]).toEqual([line, undefined]);
};
const hands = ({ world }: Desk) => world.hands;
function rigged(): Desk {
  const desk = newDesk();
  does(desk, "patch 3 kelp-wash as 1", "1 thru 3", "red at 80", 'record palette 1 "Red"', "clear");
  return desk;
}

test("what was held before is held again, kept out as it was; what was changed meanwhile stays", () => {
  const desk = rigged();
  does(desk, "1 thru 3", "1 red at 20", "colour keep out");
  const before = hands(desk);
  does(desk, "palette 1");
  const during = hands(desk);
  does(desk, "3 red at 5");
  expect(performOn(desk, { intents: puttingBack(before, during, hands(desk)), events: [] })).toBeUndefined();
  const reds = Object.values(hands(desk).held).flatMap((e) => (e.attribute === "ColorAdd_R" ? [e.value] : []));
  expect(reds.sort()).toEqual([20, 5].sort());
  expect(hands(desk).keptOut).toEqual(before.keptOut);
});

test("with nothing held before, nothing is held after", () => {
  const desk = rigged();
  does(desk, "1 thru 3");
  const before = hands(desk);
  does(desk, "palette 1");
  expect(performOn(desk, { intents: puttingBack(before, hands(desk), hands(desk)), events: [] })).toBeUndefined();
  expect(hands(desk).held).toEqual({});
});
