/** Catches signs of a crowd that leave their layer, lie over each other wrongly or have another colour. */
import { putSign, shadesOf, type Mask } from "./crowd";
import type { Layer } from "./ground";

const layer = (): Layer => ({ width: 10, height: 8, words: new Int32Array(80) });
/** Four pixels square without its corners: full in its middle, half at its edge. */
const places = [1, 2, 4, 5, 6, 7, 8, 9, 10, 11, 13, 14];
const within = new Set([5, 6, 9, 10]);
const mask: Mask = {
  size: 4,
  wide: 1,
  x: Uint8Array.from(places, (i) => i % 4),
  y: Uint8Array.from(places, (i) => i >> 2),
  cover: Int32Array.from(places, (i) => (within.has(i) ? 255 << 24 : (128 << 24) | 3)),
};
const RED = 0x0000ff;
const at = ({ words, width }: Layer, x: number, y: number) => words[y * width + x]! >>> 0;

test("a sign is its body's colour within and its edge's around", () => {
  const made = layer();
  putSign(made, mask, 3, 2, shadesOf(255, 0, 0, 255, 255, 255));
  expect(at(made, 4, 3)).toBe((0xff000000 | RED) >>> 0);
  expect(at(made, 4, 2)).toBe(0xff808080);
  expect(at(made, 3, 2)).toBe(0);
  expect(made.words.filter((w) => w !== 0).length).toBe(12);
});

test("the middle of a sign lies over what was there, its edge lets it show through", () => {
  const made = layer();
  putSign(made, mask, 2, 2, shadesOf(255, 0, 0, 255, 0, 0));
  putSign(made, mask, 4, 2, shadesOf(0, 0, 255, 0, 0, 255));
  expect(at(made, 5, 3)).toBe(0xffff0000);
  expect(at(made, 4, 3)).toBe(0xff80007e);
});

test("at the rim of the layer a sign is cut, and nothing is written beside it", () => {
  for (const [x, y, seen] of [
    [-2, -2, 3],
    [8, 6, 3],
    [-4, 0, 0],
    [10, 0, 0],
    [0, 8, 0],
    [-1, 3, 10],
  ] as const) {
    const made = layer();
    putSign(made, mask, x, y, shadesOf(1, 1, 1, 1, 1, 1));
    expect([x, y, made.words.filter((w) => w !== 0).length]).toEqual([x, y, seen]);
  }
});
