/** Catches a cell of the patch table that reads, fills or pastes something else than was typed. */
import { newDesk, runLine } from "@/core/desk/desk";
import { fixturesByNumber } from "@/core/show/world";
import { copyCells, fillDown, pasteCells, typeInto, type Changes } from "./cells";
import { columnOf, COLUMNS } from "./columns";
import { clashesOf, drafted, sayChanges, together, withFreeAddresses, withFreeNumbers } from "./draft";

const desk = newDesk();
for (const line of ["patch 4 kelp-wash as 1 at 1:1", "patch 2 dimmer as 11 at 2:1"]) runLine(desk, line);
const { show } = desk.world;
const rows = fixturesByNumber(show);
const after = (changes: Changes) => rows.map((f) => drafted(f, changes));
const column = (id: string) => columnOf(id)!;
const put = (text: string, id: string, count = 4) => typeInto(text, column(id), rows.slice(0, count), show);

test("a start typed over several rows counts on: numbers by one, addresses by footprint, names by their number", () => {
  expect(after(put("101", "number").changes).map((f) => f.number)).toEqual([101, 102, 103, 104, 11, 12]);
  expect(
    after(put("3:500", "addresses").changes)
      .slice(0, 4)
      .map((f) => f.addresses[0]),
  ).toEqual([
    { universe: 3, slot: 500 },
    { universe: 4, slot: 1 },
    { universe: 4, slot: 13 },
    { universe: 4, slot: 25 },
  ]);
  expect(
    after(put("Rail 7", "name").changes)
      .slice(0, 4)
      .map((f) => f.name),
  ).toEqual(["Rail 7", "Rail 8", "Rail 9", "Rail 10"]);
  expect(
    after(put("-3 to 3", "placeX").changes)
      .slice(0, 4)
      .map((f) => f.place.x),
  ).toEqual([-3, -1, 1, 3]);
  expect(after(put("4.013", "addresses", 1).changes)[0]!.addresses).toEqual([{ universe: 4, slot: 13 }]);
  expect(after(put("5:1 6:1", "addresses", 1).changes)[0]!.addresses).toHaveLength(2);
  expect(after(put("", "addresses", 1).changes)[0]!.addresses).toEqual([]);
});

test("what makes no sense in a column is refused in words", () => {
  for (const [text, id] of [
    ["x", "number"],
    ["0", "number"],
    ["1.5", "number"],
    ["here", "addresses"],
    ["maybe", "swap"],
    ["900", "scale"],
    ["a to b", "placeX"],
    ["Other", "type"],
  ] as const)
    expect(put(text, id).trouble).toBeTruthy();
});

test("cells go to a spreadsheet and back, quotes and line ends in them too", () => {
  const text = copyCells(rows, COLUMNS, show);
  expect(text.split("\n")).toHaveLength(6);
  expect(text.split("\n")[0]!.split("\t").slice(0, 2)).toEqual(["1", "Kelp Wash 1"]);
  const odd = together(new Map(), new Map([[rows[0]!.id, { note: 'a "b"\tc\nd' }]]));
  const copied = copyCells([drafted(rows[0]!, odd)], [column("note")], show);
  const pasted = pasteCells(copied, { r1: 1, c1: 0, r2: 1, c2: 0 }, rows, [column("note")], show);
  expect(after(pasted.changes)[1]!.note).toBe('a "b"\tc\nd');
});

test("a pasted block goes from the first cell as far as there are rows; one cell fills the range", () => {
  const columns = [column("number"), column("name"), column("swap")];
  const block = pasteCells("21\tA\tyes\n22\tB\tno\r\n", { r1: 4, c1: 0, r2: 4, c2: 0 }, rows, columns, show);
  expect(
    after(block.changes)
      .slice(4)
      .map((f) => [f.number, f.name, f.swap]),
  ).toEqual([
    [21, "A", true],
    [22, "B", false],
  ]);
  expect(pasteCells("1\n2\n3", { r1: 5, c1: 0, r2: 5, c2: 0 }, rows, columns, show).trouble).toMatch(
    /2 pasted rows have no fixture/,
  );
  expect(
    after(pasteCells("301", { r1: 0, c1: 0, r2: 5, c2: 0 }, rows, columns, show).changes).map((f) => f.number),
  ).toEqual([301, 302, 303, 304, 305, 306]);
});

test("filling down counts on, goes on evenly, or repeats", () => {
  const from = (id: string, r1: number, r2: number, changes: Changes = new Map()) =>
    after(fillDown({ r1, c1: 0, r2, c2: 0 }, 3, after(changes), [column(id)], show).changes);
  expect(
    from("number", 0, 0)
      .map((f) => f.number)
      .slice(0, 4),
  ).toEqual([1, 2, 3, 4]);
  expect(
    from("addresses", 0, 0, put("9:1", "addresses", 1).changes)
      .slice(1, 4)
      .map((f) => f.addresses[0]!.slot),
  ).toEqual([13, 25, 37]);
  expect(
    from("placeX", 0, 1, put("1 to 1.5", "placeX", 2).changes)
      .slice(2, 4)
      .map((f) => f.place.x),
  ).toEqual([2, 2.5]);
  expect(
    from("note", 0, 1, put("front", "note", 1).changes)
      .slice(2, 4)
      .map((f) => f.note),
  ).toEqual(["front", ""]);
});

test("a draft that clashes is marked, and its cures put it right", () => {
  const numbers = put("3", "number", 2).changes;
  const clashes = clashesOf(show, numbers);
  expect(clashes.map((c) => [c.field, c.text])).toEqual([
    ["number", "number 3 is taken"],
    ["number", "number 4 is taken"],
  ]);
  const cured = withFreeNumbers(show, numbers, clashes);
  expect(cured.from).toBe(5);
  expect(clashesOf(show, cured.changes)).toEqual([]);
  const addresses = put("1:20", "addresses", 2).changes;
  const bad = clashesOf(show, addresses);
  expect(bad.every((c) => c.field === "addresses")).toBe(true);
  expect(clashesOf(show, withFreeAddresses(show, addresses, bad))).toEqual([]);
  expect(clashesOf(show, put("a note", "note").changes)).toEqual([]);
  // Two fixtures that change places do not clash.
  expect(
    clashesOf(
      show,
      new Map([
        [rows[0]!.id, { number: 2 }],
        [rows[1]!.id, { number: 1 }],
      ]),
    ),
  ).toEqual([]);
  expect(sayChanges(show, put("1:20", "addresses", 1).changes)).toBe("addresses 1 at 1:20");
});
