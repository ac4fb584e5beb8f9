/** Catches text that is neither read nor refused with a reason, and offers that cannot follow. */
import fc from "fast-check";
import { canonical } from "../exchange/canonical";
import { isRefusal, refusalText } from "../show/refusal";
import { contextOf, newDesk, runLine } from "./desk";
import { complete, COMMANDS, readLine, SCRIPT_COMMANDS } from "../command/read";
import { runs } from "@tests/setup/runs";

const desk = newDesk();
for (const line of [
  "patch 4 kelp-wash as 1 at 1:1",
  "patch 1 tide-bar as 71",
  "1 thru 4",
  'record group 3 "Rail"',
  "1 thru 4 at 50",
  'record cue 1 "One"',
  "clear",
]) {
  const refusal = runLine(desk, line);
  if (refusal) throw new Error(refusal.what);
}
const context = contextOf(desk);
const words = [...new Set([...COMMANDS, ...SCRIPT_COMMANDS].flatMap((c) => c.syntax.match(/[a-z]+/g) ?? []))];
const piece = fc.oneof(
  {
    weight: 6,
    arbitrary: fc.constantFrom(
      ...words,
      "1",
      "71.4",
      "1 thru 4",
      "3.5",
      "-20",
      "+2",
      "1:101",
      "#ff8000",
      '"Rail"',
      "127.0.0.1",
      "50%",
      "12°",
      "pan",
      "dimmer",
      "full",
    ),
  },
  {
    weight: 1,
    arbitrary: fc.constantFrom(
      '"',
      '""',
      "//",
      "..",
      "@",
      "=>",
      "99999999999999999999",
      "1e9",
      "-",
      "+",
      "1.",
      ".5",
      "#ff",
      "1:999",
      "\u0000",
      "ß",
      "🎭",
      "__proto__",
      "constructor",
      "NaN",
      "Infinity",
    ),
  },
  { weight: 1, arbitrary: fc.string({ maxLength: 8 }) },
);
const text = fc.array(piece, { maxLength: 9 }).map((parts) => parts.join(" "));

test("any text is read or refused in words, in the Ask bar and in scripts", () => {
  fc.assert(
    fc.property(text, fc.boolean(), (typed, script) => {
      const before = desk.world;
      const read = readLine(typed, context, script ? { script: true } : { abbreviate: true });
      if (read !== undefined && isRefusal(read)) {
        const said = refusalText(read);
        expect(said.length).toBeGreaterThan(5);
        expect(said).not.toMatch(/undefined|\[object|NaN is/);
      }
      expect(desk.world).toBe(before);
    }),
    { numRuns: runs(3000) },
  );
});

test("any line, done or refused, leaves a show behind that works", () => {
  fc.assert(
    fc.property(fc.array(text, { maxLength: 6 }), (lines) => {
      const own = newDesk(desk.world);
      for (const typed of lines) expect(() => runLine(own, typed)).not.toThrow();
      while (own.history.undone.length > 0) runLine(own, "redo");
      while (own.history.done.length > 0) expect(runLine(own, "undo")).toBeUndefined();
      expect(canonical(own.world.show)).toBe(canonical(desk.world.show));
    }),
    { numRuns: runs(400) },
  );
});

test("what is offered while typing takes the line further, never to the same text again", () => {
  fc.assert(
    fc.property(text, (typed) => {
      for (const offer of complete(typed, context)
        .filter((o) => o.isWord)
        .slice(0, 5)) {
        expect(offer.line).not.toBe(typed);
        expect(offer.line.trim().length).toBeGreaterThan(0);
      }
    }),
    { numRuns: runs(1000) },
  );
});
