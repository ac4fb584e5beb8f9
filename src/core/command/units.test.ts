/** Catches a value shown with its unit that cannot be typed so, and one of another unit that is taken for its own. */
import { newDesk, runLine, type Desk } from "../desk/desk";
import { own } from "../show/hasOwn";
import { newBuilding, hold } from "./building";
import { contextOf } from "../desk/desk";

const rigged = (): Desk => {
  const desk = newDesk();
  for (const line of ["patch 3 petrel-spot as 1", "1 thru 3"]) expect(runLine(desk, line)).toBeUndefined();
  return desk;
};
const held = ({ world: { hands } }: Desk, attribute: string) =>
  Object.values(hands.held).flatMap((e) => (e.attribute === attribute ? [e.value] : []));

test.each([
  ["gobo spin at 20 rpm", "Gobo1PosRotate", [20, 20, 20]],
  ["gobo spin at -20rpm", "Gobo1PosRotate", [-20, -20, -20]],
  ["strobe at 1 HZ", "Shutter1Strobe", [1, 1, 1]],
  ["pan at -30° to 30 °", "Pan", [-30, 0, 30]],
  ["pan at -30 to 30 deg", "Pan", [-30, 0, 30]],
  ["at 50 %", "Dimmer", [50, 50, 50]],
  ["at 20 percent to 60", "Dimmer", [20, 40, 60]],
])("%s", (line, attribute, values) => {
  const desk = rigged();
  expect([line, runLine(desk, line)]).toEqual([line, undefined]);
  expect(held(desk, attribute)).toEqual(values);
});

test.each([
  "colour at 3200 K",
  "colour at 3200k",
  "at full over 3 s",
  "at full fade 2 s delay 0 s to 1.5 s",
  "1 place 1 m 2 m 3 m",
  "1 turn 0 0 90°",
])("%s is understood", (line) => expect([line, runLine(rigged(), line)]).toEqual([line, undefined]));

test.each([
  ["pan at 20 rpm", /Pan is in °, not in rpm/],
  ["at 30°", /Dimmer is in %, not in °/],
  ["gobo at 2 rpm", /Gobo is a slot, not in rpm/],
  ["1 place 1 m 2 s 3", /./],
])("%s is refused", (line, why) => expect(runLine(rigged(), line)?.what).toMatch(why));

test("the spread of the hands bends what is typed, but for what asks to go plainly from first to last", () => {
  const desk = rigged();
  expect(runLine(desk, "spread mirror 2")).toBeUndefined();
  const along = (plainly: boolean) => {
    const { show } = desk.world;
    const items = Object.values(show.fixtures).map((f) => f.id);
    const b = newBuilding(items, contextOf(desk));
    b.plainly = plainly;
    hold(b, "Pan", [0, 90], false);
    return items.map((id) => own(b.values, `${id}.0.Pan`)?.value);
  };
  expect(along(true)).toEqual([0, 45, 90]);
  expect(along(false)).not.toEqual([0, 45, 90]);
});
