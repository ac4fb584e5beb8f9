/** Catches a start that is lost because what was typed was not understood, or that does not come back from its own words. */
import fc from "fast-check";
import { isRefusal, refusalText } from "../show/refusal";
import type { Trigger } from "../show/schema";
import { readStart, startText } from "./startText";

test.each<[string, Trigger]>([
  ["on go", { kind: "go" }],
  ["Go", { kind: "go" }],
  ["", { kind: "go" }],
  ["3", { kind: "auto", after: 3 }],
  ["auto 2.5", { kind: "auto", after: 2.5 }],
  ["AUTO  4 s", { kind: "auto", after: 4 }],
  ["done 0", { kind: "autoDone", after: 0 }],
  ["auto done 7", { kind: "autoDone", after: 7 }],
])("%s", (text, trigger) => expect(readStart(text)).toEqual(trigger));

test.each(["atuo 3", "auto", "done", "-3", "soon", "3 minutes", "99999999", "auto 3 4"])(
  "%s is refused in words, with what would do",
  (text) => {
    const read = readStart(text);
    if (!isRefusal(read)) throw new Error(JSON.stringify(read));
    expect(refusalText(read)).toContain("auto 3");
  },
);

test("what a field shows it also takes", () => {
  const after = fc.integer({ min: 0, max: 8_640_000 }).map((n) => n / 100);
  const trigger: fc.Arbitrary<Trigger> = fc.oneof(
    fc.constant<Trigger>({ kind: "go" }),
    after.map((a): Trigger => ({ kind: "auto", after: a })),
    after.map((a): Trigger => ({ kind: "autoDone", after: a })),
  );
  fc.assert(fc.property(trigger, (t) => expect(readStart(startText(t))).toEqual(t)));
});
