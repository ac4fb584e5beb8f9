/** Catches a type that nobody chose: what typing finds, the best first. */
import { LIBRARY } from "@/core/fixture/library/library";
import { answers } from "./typeSearch";

const shelves = [
  { title: "Lately used", types: LIBRARY.filter((t) => t.id === "kelp-wash") },
  { title: "All", types: [...LIBRARY] },
];
const found = (typed: string) => answers(shelves, typed).flatMap(({ types }) => types.map((t) => t.id));

test("each type stands once; typing finds by model, maker or both, the closest first", () => {
  expect(found("").filter((id) => id === "kelp-wash")).toHaveLength(1);
  expect(found("petrel spot")[0]).toBe("petrel-spot");
  expect(found("PETREL")[0]).toMatch(/^petrel/);
  expect(found("fathom lantern").slice(0, 2).sort()).toEqual(["lantern-amber", "lantern-par"]);
  expect(found("dimmer")[0]).toBe("dimmer");
  expect(found("no such lamp")).toEqual([]);
});
