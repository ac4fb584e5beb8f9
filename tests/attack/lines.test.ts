/** Catches typing that hurts: a line that throws, hangs, or takes the show along, at any letter of it. */
import { contextOf, newDesk, runLine, wait } from "@/core/desk/desk";
import { foresee } from "@/core/desk/foresee";
import { complete, COMMANDS } from "@/core/command/read";
import { canonical } from "@/core/exchange/canonical";
import { readShowFile, writeShowFile } from "@/core/exchange/showFile";
import { isRefusal, refusalText } from "@/core/show/refusal";
import { randomOf, report, SEED, times } from "./scale";

const words = [...new Set(COMMANDS.flatMap((c) => c.syntax.match(/[a-z]+/g) ?? []))];
const pieces = [
  "1",
  "2",
  "1 thru 4",
  "21.3",
  "group 1",
  "all",
  "50",
  "-20",
  "+2",
  "1:101",
  "#ff8000",
  '"Rail"',
  '""',
  "127.0.0.1",
  "full",
  "out",
  "to",
  "at",
  "pan",
  "dimmer",
  "kelp-wash",
  "petrel-spot",
  "dimmer",
  "cue 1",
  "cue 2",
  "list 1",
  "list 2",
  "0",
  "00",
  "99999999999",
  "999999999",
  "1000000",
  "50000",
  "63999",
  "64000",
  "86401",
  "1e9",
  "-1",
  "0.0001",
  "1.2.3.4.5",
  "999.999.999.999",
  "224.0.0.1",
  "constructor",
  "__proto__",
  "toString",
  '"constructor"',
  "//",
  "..",
  "@",
  "=>",
  "+",
  "-",
  '"',
  "\u0000",
  "🎭",
  "NaN",
  "Infinity",
  `"${"n".repeat(199)}"`,
  "x".repeat(400),
];
const lines = COMMANDS.map((c) => c.example);

test("fuzzed lines, typed letter by letter or pasted, with what they would do and what could follow at every stop", () => {
  const random = randomOf(SEED + 3);
  const runs = times(250, 30_000);
  let desk = newDesk();
  const begin = () => {
    desk = newDesk();
    for (const line of [
      "patch 4 kelp-wash as 1 at 1:1",
      "patch 1 tide-bar as 21",
      "1 thru 4",
      'record group 1 "Rail"',
      "1 thru 4 at 50",
      "record cue 1",
      "record list 2 cue 1",
      "clear",
    ])
      runLine(desk, line);
  };
  begin();
  let stops = 0;
  let slowest = 0;
  let slowestLine = "";
  let done = 0;
  for (let i = 0; i < runs; i++) {
    const parts = random.next() < 0.4 ? random.pick(lines).split(" ") : [random.pick(words)];
    for (let n = random.below(6); n > 0; n--)
      parts.splice(
        random.below(parts.length + 1),
        random.next() < 0.5 ? 1 : 0,
        random.next() < 0.5 ? random.pick(pieces) : random.pick(words),
      );
    const line = parts.join(" ");
    for (const end of [...new Set([random.below(line.length + 1), random.below(line.length + 1), line.length])]) {
      const typed = line.slice(0, end);
      const since = performance.now();
      const found = foresee(typed, contextOf(desk), { done: null, undone: null });
      const took = performance.now() - since;
      complete(typed, contextOf(desk));
      stops += 1;
      if (took > slowest) [slowest, slowestLine] = [took, typed];
      if (found !== undefined && isRefusal(found) && !/[a-z]{3}/.test(refusalText(found)))
        throw new Error(`refused without words: ${typed}`);
    }
    if (!runLine(desk, line)) done += 1;
    if (i % 7 === 0) wait(desk, 0.7);
    if (i % 200 === 199 || i === runs - 1) {
      const back = readShowFile(writeShowFile(desk.world.show));
      expect(isRefusal(back) ? refusalText(back) : canonical(back)).toBe(canonical(desk.world.show));
    }
    if (i % 400 === 399) begin();
  }
  report("fuzzed lines with previews", {
    lines: runs,
    previews: stops,
    done,
    thrown: 0,
    "slowest preview, ms": `${slowest.toFixed(1)} (${slowestLine.slice(0, 60)})`,
  });
});
