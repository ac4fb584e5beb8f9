/** Catches a document that is another one after it was handed on in pieces, or pieces that are too large. */
import fc from "fast-check";
import { demoWorld } from "@tests/setup/demo";
import { runs } from "@tests/setup/runs";
import { gatherPieces, piecesOf, textPieces, type Part } from "./pieces";

const through = (document: unknown, most?: number) => {
  const gather = gatherPieces();
  const pieces = [...piecesOf(document, most)];
  for (const piece of pieces) gather.take(structuredClone(piece) as Part[]);
  return { again: gather.document(), pieces };
};
const values = (value: unknown): number =>
  typeof value === "object" && value !== null ? Object.values(value).reduce((n: number, v) => n + values(v), 1) : 1;

test("any document is the same again, however small the pieces", () => {
  fc.assert(
    fc.property(fc.jsonValue({ maxDepth: 4 }), fc.integer({ min: 1, max: 30 }), (document, most) => {
      fc.pre(!JSON.stringify(document).includes("__proto__"));
      expect(JSON.stringify(through(document, most).again)).toBe(JSON.stringify(document));
    }),
    { numRuns: runs(300) },
  );
});

test("a show is small pieces; what is small is one; what does not fit is refused", () => {
  const world = demoWorld();
  const { again, pieces } = through(world, 500);
  expect(again).toEqual(world);
  expect(pieces.length).toBeGreaterThan(20);
  for (const piece of pieces) expect(piece.reduce((n, [, value]) => n + values(value), 0)).toBeLessThan(1500);
  expect([...piecesOf({ a: 1 })]).toEqual([[[[], { a: 1 }]]]);
  expect(() => gatherPieces().take([[["a"], 1]])).toThrow("does not fit");
});

test("its text in pieces is what it is written as in one", () => {
  const odd = fc.letrec((tie) => ({
    value: fc.oneof(
      { maxDepth: 4 },
      fc.jsonValue(),
      fc.constant(undefined),
      fc.array(tie("value"), { maxLength: 4 }),
      fc.dictionary(fc.string(), tie("value"), { maxKeys: 4 }),
    ),
  })).value;
  fc.assert(
    fc.property(odd, fc.integer({ min: 1, max: 30 }), (document, most) => {
      fc.pre(document !== undefined);
      const pieces = [...textPieces(document, most)];
      expect(pieces.join("")).toBe(JSON.stringify(document));
    }),
    { numRuns: runs(300) },
  );
  const world = demoWorld();
  const pieces = [...textPieces(world, 500)];
  expect(pieces.join("")).toBe(JSON.stringify(world));
  expect(Math.max(...pieces.map((p) => p.length))).toBeLessThan(40_000);
});
