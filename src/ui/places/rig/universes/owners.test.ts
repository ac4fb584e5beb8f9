/** Catches a slot on the universe map that belongs to another fixture than shown. */
import { newDesk, runLine } from "@/core/desk/desk";
import { fixturesByNumber } from "@/core/show/world";
import { moveAddress, ownersOf, universeCards } from "./owners";

const desk = newDesk();
for (const line of [
  "patch 2 kelp-wash as 1 at 1:1",
  "patch 1 dimmer as 9 at 2:512",
  "9 also at 1:40",
  "output 5 artnet to 127.0.0.1",
])
  expect(runLine(desk, line)).toBeUndefined();
const { show } = desk.world;
const [first, , nine] = fixturesByNumber(show);

test("each slot has its owner and what it does", () => {
  const owners = ownersOf(show, 1);
  expect(owners[0]!.text).toBe("1 Kelp Wash 1: Pan, coarse");
  expect(owners[1]!.text).toBe("1 Kelp Wash 1: Pan, fine");
  expect([owners[12]!.start, owners[12]!.number]).toEqual([13, 2]);
  expect(owners[24]).toBeNull();
  expect(owners[39]!.number).toBe(9);
});

test("all universes that are patched or sent, with their runs", () => {
  expect(universeCards(show)).toEqual([
    {
      universe: 1,
      used: 25,
      fixtures: 3,
      runs: [
        [1, 12],
        [13, 12],
        [40, 1],
      ],
    },
    { universe: 2, used: 1, fixtures: 1, runs: [[512, 1]] },
    { universe: 5, used: 0, fixtures: 0, runs: [] },
  ]);
});

test("moving one address leaves the others, and says what is in the way", () => {
  expect(moveAddress(show, nine!.id, { universe: 1, slot: 40 }, { universe: 3, slot: 7 })).toEqual({
    size: 1,
    why: undefined,
    change: {
      addresses: [
        { universe: 2, slot: 512 },
        { universe: 3, slot: 7 },
      ],
    },
  });
  expect(moveAddress(show, first!.id, { universe: 1, slot: 1 }, { universe: 1, slot: 20 }).why).toBe(
    "1:20 is in use by fixture 2",
  );
  expect(moveAddress(show, first!.id, { universe: 1, slot: 1 }, { universe: 1, slot: 505 }).why).toBe(
    "12 channels do not fit at 1:505",
  );
  // Onto slots of its own it may go.
  expect(
    moveAddress(show, fixturesByNumber(show)[1]!.id, { universe: 1, slot: 13 }, { universe: 1, slot: 15 }).why,
  ).toBeUndefined();
});
