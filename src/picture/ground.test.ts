/** Catches light that is laid otherwise than between the points of its field, that wraps around, or that leaves the layer. */
import { readFileSync } from "node:fs";
import { join } from "node:path";
import fc from "fast-check";
import wabt from "wabt";
import { GROUND_WASM } from "./groundWasm";
import { createGround, layLight, layOver, type Ground, type Layer } from "./ground";

const channels = (word: number): number[] => [0, 8, 16].map((at) => (word >>> at) & 255);

/** What is laid over what a layer has, by loops that run one pixel at a time, or four. */
function laid({ layer, field, light, per }: Case, quick: boolean): Int32Array {
  const ground = createGround(layer, field, per, undefined, quick);
  ground.under.set(layer.words);
  ground.light.set(light);
  layLight(ground, field);
  return ground.words;
}

interface Case {
  field: { width: number; height: number; lo: Int32Array; hi: Int32Array };
  light: Int32Array;
  layer: Layer;
  per: number;
}

const cases = fc
  .tuple(
    fc.integer({ min: 1, max: 7 }),
    fc.integer({ min: 1, max: 6 }),
    fc.constantFrom(1, 1.5, 2, 3, 5),
    fc.infiniteStream(fc.integer({ min: 0, max: 0xffffff })),
    fc.infiniteStream(fc.boolean()),
  )
  .map(([width, height, per, colours, lit]): Case => {
    const light = new Int32Array(width * height);
    const [lo, hi] = [new Int32Array(height).fill(width), new Int32Array(height).fill(-1)];
    for (let y = 0; y < height; y++)
      for (let x = 0; x < width; x++) {
        if (!lit.next().value) continue;
        light[y * width + x] = (255 << 24) | colours.next().value!;
        lo[y] = Math.min(lo[y]!, x);
        hi[y] = x;
      }
    const [w, h] = [Math.ceil(width * per), Math.ceil(height * per)];
    const words = Int32Array.from({ length: w * h }, () => (255 << 24) | colours.next().value!);
    return { field: { width, height, lo, hi }, light, layer: { width: w, height: h, words }, per };
  });

/** Plainly: what lies between the four points around, for each colour by itself. */
function plainly({ field: { width, height }, light, per }: Case, x: number, y: number): number[] {
  const along = (k: number, most: number) => Math.min(Math.max((k + 0.5) / per - 0.5, 0), most - 1);
  const [u, v] = [along(x, width), along(y, height)];
  const [left, top] = [Math.floor(u), Math.floor(v)];
  const at = (right: number, down: number) =>
    channels(light[Math.min(top + down, height - 1) * width + Math.min(left + right, width - 1)]!);
  const [s, t] = [u - left, v - top];
  return [0, 1, 2].map(
    (c) => (at(0, 0)[c]! * (1 - s) + at(1, 0)[c]! * s) * (1 - t) + (at(0, 1)[c]! * (1 - s) + at(1, 1)[c]! * s) * t,
  );
}

test("light is added as it lies between the points of its field, and no colour goes beyond its end", () => {
  fc.assert(
    fc.property(cases, (made) => {
      const { layer } = made;
      const after = laid(made, false);
      for (let y = 0; y < layer.height; y++)
        for (let x = 0; x < layer.width; x++) {
          const [was, now] = [layer.words, after].map((words) => channels(words[y * layer.width + x]!)) as [
            number[],
            number[],
          ];
          plainly(made, x, y).forEach((added, c) => {
            const wanted = Math.min(255, was[c]! + added);
            expect(Math.abs(now[c]! - wanted)).toBeLessThanOrEqual(3);
          });
          expect(after[y * layer.width + x]! >>> 24).toBe(255);
        }
    }),
  );
});

test("four pixels at a time give the very same as one", () => {
  fc.assert(fc.property(cases, (made) => expect(laid(made, true)).toEqual(laid(made, false))));
});

test("a ground in the memory of another, smaller or larger, is as one of its own", () => {
  let before: Ground | undefined;
  fc.assert(
    fc.property(cases, (made) => {
      const ground = createGround(made.layer, made.field, made.per, before);
      if (before?.memory) expect(ground.memory).toBe(before.memory);
      ground.under.set(made.layer.words);
      ground.light.set(made.light);
      layLight(ground, made.field);
      expect(ground.words).toEqual(laid(made, false));
      before = ground;
    }),
  );
});

test("the loops are those of ground.wat", async () => {
  const { parseWat } = await wabt();
  const { buffer } = parseWat("ground.wat", readFileSync(join(__dirname, "ground.wat"), "utf8"), {
    simd: true,
  }).toBinary({});
  expect(Buffer.from(buffer).toString("base64")).toBe(GROUND_WASM);
  expect(WebAssembly.validate(new Uint8Array(buffer))).toBe(true);
});

test("where no light fell all is as it is under it", () => {
  const field = { width: 3, height: 3, lo: new Int32Array(3).fill(3), hi: new Int32Array(3).fill(-1) };
  const words = Int32Array.from({ length: 36 }, (_, i) => i);
  for (const quick of [true, false])
    expect(laid({ layer: { width: 6, height: 6, words }, field, light: new Int32Array(9), per: 2 }, quick)).toEqual(
      words,
    );
});

test("a colour laid over another is between the two, all of it at full cover", () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 0, max: 0xffffff }),
      fc.integer({ min: 0, max: 0xffffff }),
      fc.integer({ min: 0, max: 255 }),
      (was, over, alpha) => {
        const words = Int32Array.of((255 << 24) | was);
        layOver(words, 0, over, alpha);
        const now = channels(words[0]!);
        channels(was).forEach((v, c) => {
          const wanted = v + ((channels(over)[c]! - v) * alpha) / 255;
          expect(Math.abs(now[c]! - wanted)).toBeLessThanOrEqual(2);
        });
        if (alpha === 255) expect(now).toEqual(channels(over));
      },
    ),
  );
});
