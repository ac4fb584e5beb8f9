/** Writes a show with 200 lists on 20 pages as a file. Usage: node tools/run-bundled.mjs tests/bench/writeDeck.ts FILE */
import { writeFileSync } from "node:fs";
import { newDesk, runLine } from "@/core/desk/desk";
import { writeShowFile } from "@/core/exchange/showFile";

const desk = newDesk();
const does = (...lines: string[]) => {
  for (const line of lines) {
    const refusal = runLine(desk, line);
    if (refusal) throw new Error(`${line}: ${refusal.what}`);
  }
};
does("patch 400 kelp-wash as 1");
for (let list = 1; list <= 200; list++) {
  const first = ((list - 1) * 20) % 400;
  for (const [k, level] of [80, 30, 60].entries())
    does(
      `${first + 1} thru ${first + 20} at ${level} pan at ${k * 20 - 20}`,
      `record list ${list} cue ${k + 1} fade ${k === 0 ? 0 : 600}`,
      "clear",
    );
  if (list % 4 === 1) does(`set list ${list} kind chase`, `set list ${list} bpm ${90 + (list % 30)}`);
  const page = Math.floor((list - 1) / 10) + 1;
  if (list % 10 === 1 && page > 1) does(`record page ${page} "Page ${page}"`);
  does(`put list ${list} on page ${page} place ${((list - 1) % 10) + 1}`);
}
writeFileSync(process.argv[2]!, writeShowFile({ ...desk.world.show, name: "Two hundred lists" }));
