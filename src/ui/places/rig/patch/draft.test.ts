/** Catches a draft of the patch table whose clashes are not marked, or not put right in one go. */
import { newDesk, runLine } from "@/core/desk/desk";
import { fixturesByNumber } from "@/core/show/world";
import type { Changes } from "./cells";
import { clashesOf, drafted, sayChanges, together, withFreeAddresses, withFreeNumbers } from "./draft";

const desk = newDesk();
for (const line of [
  "patch 4 kelp-wash as 1 at 1:1",
  "patch 2 dimmer as 11 at 2:1",
  "patch 1 petrel-spot as 21 unpatched",
])
  expect(runLine(desk, line)).toBeUndefined();
const { show } = desk.world;
const id = (number: number) => fixturesByNumber(show).find((f) => f.number === number)!.id;
const at = (universe: number, slot: number) => ({ addresses: [{ universe, slot }] });
const draft = (...changes: [number, object][]): Changes =>
  new Map(changes.map(([number, change]) => [id(number), change]));

test("only what bears on numbers and addresses can clash", () => {
  expect(clashesOf(show, draft([1, { name: "Same" }], [2, { name: "Same" }]))).toEqual([]);
  expect(clashesOf(show, draft([21, at(3, 1)]))).toEqual([]);
  expect(clashesOf(show, draft([11, at(1, 5)])).map((c) => [c.fixture, c.field])).toEqual([[id(11), "addresses"]]);
  expect(clashesOf(show, draft([11, { number: 12 }])).map((c) => [c.fixture, c.field])).toEqual([[id(11), "number"]]);
});

test("two that change places do not clash, nor does one that moves into what another leaves", () => {
  expect(clashesOf(show, draft([11, at(2, 2)], [12, at(2, 1)]))).toEqual([]);
  expect(clashesOf(show, draft([11, { number: 12 }], [12, { number: 11 }]))).toEqual([]);
  expect(clashesOf(show, draft([1, at(5, 1)], [11, at(1, 3)]))).toEqual([]);
});

test("clashing addresses go to the next free runs, clashing numbers count on; the rest of the draft stays", () => {
  const wrong = draft([1, { ...at(2, 1), name: "Kept" }], [12, at(4, 9)]);
  const right = withFreeAddresses(show, wrong, clashesOf(show, wrong));
  expect(clashesOf(show, right)).toEqual([]);
  expect(right.get(id(1))).toMatchObject({ name: "Kept", addresses: [{ universe: 1, slot: 1 }] });
  expect(right.get(id(12))).toEqual(at(4, 9));
  const numbers = draft([1, { number: 11 }], [2, { number: 12 }], [3, { number: 30 }]);
  const counted = withFreeNumbers(show, numbers, clashesOf(show, numbers));
  expect(clashesOf(show, counted.changes)).toEqual([]);
  expect([1, 2, 3].map((n) => drafted(show.fixtures[id(n)]!, counted.changes).number)).toEqual([
    counted.from,
    counted.from + 1,
    30,
  ]);
});

test("of two changes of one cell the later counts, others stay side by side", () => {
  const made = together(draft([1, { name: "a", note: "n" }]), draft([1, { name: "b" }], [2, { scale: 50 }]));
  expect([...made]).toEqual([
    [id(1), { name: "b", note: "n" }],
    [id(2), { scale: 50 }],
  ]);
});

test("a draft says what it would do", () => {
  expect(sayChanges(show, draft([1, at(4, 7)]))).toBe("addresses 1 at 4:7");
  expect(sayChanges(show, draft([1, { addresses: [] }]))).toBe("takes the address from 1");
  expect(sayChanges(show, draft([1, { scale: 5 }], [2, { scale: 5, note: "x" }]))).toBe(
    "sets scale, note of 2 fixtures",
  );
});
