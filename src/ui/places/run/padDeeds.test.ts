/** Catches a pad that leaves something held, or takes what somebody else held. */
import { newDesk, performOn, runLine, type Desk } from "@/core/desk/desk";
import type { Intent } from "@/core/show/change/intent";
import type { Placed } from "@/core/show/deckSchema";
import { endings, heldOf } from "./padDeeds";

function rigged(): { desk: Desk; palette: Placed; effect: Placed } {
  const desk = newDesk();
  for (const line of [
    "patch 3 kelp-wash as 1",
    "1 thru 3",
    "red at 80",
    'record palette 1 "Red"',
    "clear",
    "1 thru 3 dimmer wave sine low 0 high 100",
    'record effect 1 "Swell"',
    "clear",
  ])
    expect([line, runLine(desk, line)]).toEqual([line, undefined]);
  const { palettes, effects } = desk.world.show;
  return {
    desk,
    palette: { what: "palette", as: "pad", id: Object.keys(palettes)[0]! },
    effect: { what: "effect", as: "pad", id: Object.keys(effects)[0]! },
  };
}
const does = (desk: Desk, ...lines: string[]) =>
  lines.forEach((l) => expect([l, runLine(desk, l)]).toEqual([l, undefined]));
const act = (desk: Desk, intents: Intent[]) => expect(performOn(desk, { intents, events: [] })).toBeUndefined();
const held = ({ world: { hands } }: Desk) => hands.held;

test("a second press ends what the first began, and leaves what is held beside it", () => {
  const { desk, palette } = rigged();
  does(desk, "1 thru 3", "palette 1", "1 at 50");
  expect(heldOf(palette, held(desk)).length).toBeGreaterThan(0);
  act(desk, endings(palette, held(desk)));
  expect(Object.values(held(desk)).map((e) => [e.attribute, e.value])).toEqual([["Dimmer", 50]]);
});

test("an effect ends and the value it plays around stays", () => {
  const { desk, effect } = rigged();
  does(desk, "1 thru 3", "at 40", "effect 1");
  const all = heldOf(effect, held(desk));
  expect(all).toHaveLength(3);
  act(desk, endings(effect, held(desk)));
  expect(heldOf(effect, held(desk))).toEqual([]);
});
