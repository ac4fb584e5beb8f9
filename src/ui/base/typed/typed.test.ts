/** Catches a sign that sets where it should add, or adds where it should set. */
import { typedAmounts, typedLine } from "./typed";

test.each([
  ["50", false, "50"],
  ["by 5", true, "5"],
  ["+5", true, "+5"],
  ["- 5", true, "-5"],
  ["-5°", true, "-5°"],
  ["=-5", false, "-5"],
  ["= 20", false, "20"],
  ["-20 to 20", false, "-20 to 20"],
  ["+5 to +10", true, "+5 to +10"],
  ["full", false, "full"],
])("%s", (typed, relative, amounts) => expect(typedAmounts(typed)).toEqual({ relative, amounts }));

test("what Enter will do, as a line", () => {
  expect(typedLine("+5 over 3 s", "pan")).toBe("pan by 5 over 3");
  expect(typedLine("=-5", "pan")).toBe("pan at -5");
  expect(typedLine(" ", "pan")).toBeNull();
});
