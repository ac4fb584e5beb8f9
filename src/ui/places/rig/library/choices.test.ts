/** Catches types of a library that are left out, stand under another heading, or are not found by what is typed. */
import { LIBRARY } from "@/core/fixture/library/library";
import { footprint } from "@/core/fixture/type";
import { isOwn, jumpTo, modesLeft, shelves } from "./choices";

const kelp = LIBRARY.find((t) => t.id === "kelp-wash")!;
const own = { ...kelp, id: "own-kelp", model: "Kelp of our own" };

test("types in the show and the recently patched come first, then each maker", () => {
  const found = shelves({ types: { [kelp.id]: kelp, [own.id]: own } }, ["dimmer", "gone"], "", null);
  expect(found.map((s) => s.title).slice(0, 3)).toEqual(["In this show", "Recently patched", "Barnacle Works"]);
  expect(found[0]!.types.map((t) => t.id)).toEqual(["own-kelp", "kelp-wash"]);
  expect(found[1]!.types.map((t) => t.id)).toEqual(["dimmer"]);
  expect([isOwn(own), isOwn(kelp)]).toEqual([true, false]);
});

test("one search goes over makers, models, modes and kinds; the footprint leaves modes of that many slots", () => {
  expect(shelves({ types: {} }, [], "skerry spot", null).flatMap((s) => s.types.map((t) => t.id))).toEqual(
    expect.arrayContaining(["puffin-spot"]),
  );
  const with23 = shelves({ types: {} }, [], "", 23).flatMap((s) => s.types);
  expect(with23.map((t) => t.id)).toContain("petrel-spot");
  expect(with23.every((t) => modesLeft(t, 23).every((m) => footprint(m) === 23))).toBe(true);
  expect(shelves({ types: {} }, [], "nothing like it", null)).toEqual([]);
});

test("typing jumps to what begins so, and round", () => {
  const names = ["Gannet", "Kelp", "Kite", "Petrel"];
  expect(jumpTo(names, "k", -1)).toBe(1);
  expect(jumpTo(names, "k", 1)).toBe(2);
  expect(jumpTo(names, "k", 2)).toBe(1);
  expect(jumpTo(names, "ki", 1)).toBe(2);
  expect(jumpTo(names, "z", 1)).toBe(-1);
});
