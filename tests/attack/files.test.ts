/** Catches files that crash what reads them, open as something else, or open as a show that does not work. */
import { spawnSync } from "node:child_process";
import { existsSync, mkdtempSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { strToU8, zipSync } from "fflate";
import { newDesk, runLine, wait } from "@/core/desk/desk";
import { demoWorld } from "@tests/setup/demo";
import { canonical } from "@/core/exchange/canonical";
import { readShowFile, writeShowFile } from "@/core/exchange/showFile";
import { isRefusal, refusalText } from "@/core/show/refusal";
import type { Show } from "@/core/show/schema";
import { newHands } from "@/core/show/world";
import { mutateBytes, mutateDocument } from "./mutate";
import { randomOf, report, SEED, times } from "./scale";

const desk = newDesk();
for (const line of [
  "patch 3 dimmer as 1 at 1:1",
  "patch 2 kelp-wash as 11",
  "patch 1 tide-bar as 21",
  "1 thru 21",
  "record group 1",
  "1 thru 11 at 50",
  "record cue 1 fade 2",
  "clear",
  "1 at 80 delay 0 to 2",
  "record cue 2 auto 1",
  "set cue 1 reach +1",
  "output 1 artnet to 127.0.0.1",
  'draw truss from -6 7 to 6 7 name "Mast"',
  "clear",
])
  if (runLine(desk, line)) throw new Error(line);
const small = desk.world.show;
const demo = demoWorld().show;
const zipOf = (document: unknown) => zipSync({ "show.json": strToU8(JSON.stringify(document)) });

/** Opens a show that was let in, works with it, and saves it: nothing may throw, and what is saved must open the same. */
function use(show: Show): void {
  const own = newDesk({ show, hands: newHands(show) });
  for (const line of [
    "all",
    "group 1",
    "all at 50",
    "1 pan at 20",
    "all colour at #ff8000",
    "record cue 1",
    "record cue 7",
    "block cue 2",
    "delete cue 1",
    "go",
    "go",
    "next list 1 cue 7",
    "release all",
    "1 park",
    "remove 1",
    "patch 2 dimmer",
    "universe 1 copy to 9",
    "undo",
    "undo",
    "undo",
    "redo",
    "1 thru 11 unpatch",
    "all locate",
    "record list 3 cue 1",
    "go list 3",
  ]) {
    runLine(own, line);
    wait(own, 0.5);
  }
  const back = readShowFile(writeShowFile(own.world.show));
  if (isRefusal(back)) throw new Error(`saved, it does not open: ${refusalText(back)}`);
  expect(canonical(back)).toBe(canonical(own.world.show));
}

test("damaged files are refused in words, or are still the same show", () => {
  const random = randomOf(SEED);
  const bases = [small, demo].map((show) => ({ bytes: writeShowFile(show), text: canonical(show) }));
  const runs = times(80, 2000);
  let same = 0;
  for (let i = 0; i < runs; i++) {
    const base = random.pick(bases);
    const read = readShowFile(mutateBytes(base.bytes, random));
    if (isRefusal(read)) expect(refusalText(read).length).toBeGreaterThan(20);
    else {
      same += 1;
      expect(canonical(read)).toBe(base.text);
    }
  }
  report("damaged files, by module", {
    tried: runs,
    refused: runs - same,
    "still the same": same,
    "opened as something else": 0,
  });
});

test("hostile documents are refused in words, or are shows that work", () => {
  const random = randomOf(SEED + 1);
  const runs = times(40, 1000);
  let opened = 0;
  for (let i = 0; i < runs; i++) {
    let document: unknown = random.next() < 0.9 ? small : demo;
    for (let n = 1 + random.below(2); n > 0; n--) document = mutateDocument(document, random);
    const read = readShowFile(zipOf(document));
    if (isRefusal(read)) {
      expect(refusalText(read).length).toBeGreaterThan(20);
      continue;
    }
    opened += 1;
    try {
      use(read);
    } catch (error) {
      throw new Error(`document ${i}: ${(error as Error).stack?.slice(0, 900)}`);
    }
  }
  report("hostile documents, by module", {
    tried: runs,
    refused: runs - opened,
    "opened and worked with": opened,
    crashes: 0,
  });
});

test("through the command line neither crashes nor hangs", () => {
  const program = join(__dirname, "../../build/script.mjs");
  if (!existsSync(program)) throw new Error("build the scripts first: ./bold-comet script");
  const random = randomOf(SEED + 2);
  const folder = mkdtempSync(join(tmpdir(), "bold-comet-attack-"));
  const runs = times(6, 200);
  const scripts = Array.from({ length: runs }, (_, i) => {
    const bytes =
      random.next() < 0.5 ? mutateBytes(writeShowFile(small), random) : zipOf(mutateDocument(small, random));
    writeFileSync(join(folder, `${i}.comet.zip`), bytes);
    writeFileSync(
      join(folder, `${i}.comet`),
      `open "${i}.comet.zip"\nall at 50\ngo\nwait 2\nsave "${i}.saved.zip"\nopen "${i}.saved.zip"\nall\n`,
    );
    return `${i}.comet`;
  });
  for (let i = 0; i < scripts.length; i += 20) {
    const { status, stdout, stderr, signal } = spawnSync(process.execPath, [program, ...scripts.slice(i, i + 20)], {
      cwd: folder,
      encoding: "utf8",
      timeout: 60_000,
    });
    expect({
      signal,
      status: status === 0 || status === 1,
      last: /^\d+ passed, \d+ failed$/.test(stdout.trim().split("\n").at(-1)!),
      stderr,
    }).toEqual({ signal: null, status: true, last: true, stderr: "" });
  }
  report("files through the command line", { tried: runs, crashes: 0, hangs: 0 });
});
