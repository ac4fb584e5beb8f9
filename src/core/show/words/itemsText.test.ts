/** Catches a selection that is told with other fixtures than it has, or a sum of targets that differs from each item's own. */
import fc from "fast-check";
import { demoWorld } from "@tests/setup/demo";
import { runs } from "@tests/setup/runs";
import { atOnce } from "../../units/steps";
import { plural } from "../../units/plural";
import { item as itemOf, type Item } from "../ids";
import { itemsText } from "./itemsText";
import { itemText, targetsByAttribute, targetsOf } from "../model";

const world = demoWorld();
const fixtures = Object.values(world.show.fixtures).sort((a, b) => a.number - b.number);
const numbered = (number: number): Item => fixtures.find((f) => f.number === number)!.id;
const anyItem = fc
  .tuple(fc.constantFrom(...fixtures), fc.integer({ min: 0, max: 4 }))
  .map(([f, cell]): Item => (cell > 0 && f.number >= 71 && f.number <= 76 ? itemOf(f.id, cell) : f.id));

test.each([
  [[], "nothing"],
  [[1, 2, 3, 5], "1 thru 3, 5"],
  [[1, 2], "1, 2"],
  [[3, 2, 1], "3, 2, 1"],
  [[1, 3, 5, 7, 9, 11], "1, 3, 5, 7, 9, 11"],
  [[1, 3, 5, 7, 9, 11, 21], "1, 3, 5, 7, 9 and more (7)"],
])("%s is told as %s", (numbers, text) => expect(itemsText(world, numbers.map(numbered))).toBe(text));

test("a cell is told by itself, whatever stands beside it", () => {
  expect(itemsText(world, [itemOf(numbered(71), 1), itemOf(numbered(71), 2), numbered(72)])).toBe("71.1, 71.2, 72");
});

test("what is told in full, read again, is the selection", () => {
  fc.assert(
    fc.property(fc.array(anyItem, { minLength: 1, maxLength: 12 }), (items) => {
      const text = itemsText(world, items);
      if (text.includes("more")) return;
      const read = text.split(", ").flatMap((part) => {
        const [from, to] = part.split(" thru ");
        return to ? Array.from({ length: +to - +from! + 1 }, (_, k) => String(+from! + k)) : [from];
      });
      expect(read).toEqual(items.map((i) => itemText(world.show, i)));
    }),
    { numRuns: runs(300) },
  );
});

test("targets gathered for many are those of each item, attribute by attribute", () => {
  fc.assert(
    fc.property(fc.uniqueArray(anyItem, { maxLength: 8 }), (items) => {
      for (const [attribute, { targets, of }] of atOnce(targetsByAttribute(world.show, items))) {
        const each = items.flatMap((item, k) => targetsOf(world.show, item, attribute).map(({ key }) => [key, k]));
        expect(targets.map(({ key }, n) => [key, of[n]])).toEqual(each);
      }
    }),
    { numRuns: runs(60) },
  );
});

test("counts have their noun, and thousands stand apart", () => {
  expect([plural(1, "cue"), plural(0, "cue"), plural(1500, "cue"), plural(2, "look changes", "looks change")]).toEqual([
    "1 cue",
    "0 cues",
    "1,500 cues",
    "2 looks change",
  ]);
});
