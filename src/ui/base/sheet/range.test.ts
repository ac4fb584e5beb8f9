/** Catches a hand that leaves the sheet, or takes another range than its keys say. */
import { at, moved, normal } from "./range";

const room = { rows: 10, columns: 4, lead: 1, page: 5 };

test("arrows stay in the sheet and out of its leading column", () => {
  expect(moved(at(0, 1), "ArrowUp", room, false, false)).toEqual(at(0, 1));
  expect(moved(at(0, 1), "ArrowLeft", room, false, false)).toEqual(at(0, 1));
  expect(moved(at(9, 3), "ArrowDown", room, false, false)).toEqual(at(9, 3));
  expect(moved(at(2, 2), "PageDown", room, false, false)).toEqual(at(7, 2));
  expect(moved(at(2, 2), "End", room, false, false)).toEqual(at(2, 3));
});

test("Shift keeps one end, Ctrl goes to the end, all else moves nothing", () => {
  const range = moved(at(4, 2), "ArrowUp", room, true, false)!;
  expect(range).toEqual({ r1: 4, c1: 2, r2: 3, c2: 2 });
  expect(normal(range)).toEqual({ r1: 3, c1: 2, r2: 4, c2: 2 });
  expect(moved(at(4, 2), "ArrowDown", room, true, true)).toEqual({ r1: 4, c1: 2, r2: 9, c2: 2 });
  expect(moved(at(4, 2), "x", room, false, false)).toBeUndefined();
});
