/** Catches a handbook whose first page promises lines that are taken for others, or for none. */
import { contextOf, newDesk, runLine } from "@/core/desk/desk";
import { meantBy } from "@/core/desk/foresee";
import { PLAIN } from "./plain";

test("each plain line is taken for the one beside it, one after the other in a new show", () => {
  const desk = newDesk();
  expect(runLine(desk, "patch 6 petrel-spot as 1")).toBeUndefined();
  for (const { typed, means } of PLAIN) {
    expect([typed, ...meantBy(typed, contextOf(desk))]).toEqual([typed, means]);
    expect([means, runLine(desk, means)]).toEqual([means, undefined]);
  }
});
