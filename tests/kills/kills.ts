/**
 * Kills the browser process at random moments during edits and playback and opens the show again: the whole
 * document must be one that was there at or after the last time it was said to be saved, the list must stand
 * where it stood, and the bytes on stage must be those of that document and that cue.
 * Usage: npm run kills -- [kills] [seed]
 */
import { spawn } from "node:child_process";
import { mkdtempSync, readFileSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import type { Page } from "playwright-core";
import { newDesk, runLine, wait, type Desk } from "@/core/desk/desk";
import { makeDemo } from "@/core/demo/saltLantern";
import { canonical } from "@/core/exchange/canonical";
import { writeShowFile } from "@/core/exchange/showFile";
import { applyDiff, readDiff } from "@/core/show/change/diff";
import { cuesOf, listNumbered, newWorld, type World } from "@/core/show/world";
import { freePort, sendsUnasked, standingStored, startBrowser, storageOf } from "./browser";

const kills = Number(process.argv[2] ?? 100);
let seed = Number(process.argv[3] ?? 1);
const random = () => {
  seed = (Math.imul(seed, 1664525) + 1013904223) >>> 0;
  return seed / 4294967296;
};
const below = (n: number) => Math.floor(random() * n);
const pause = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));

/** What must survive: the show and what is held. */
const essence = ({ show, hands }: World): string => canonical({ show, held: hands.held, parked: hands.parked });

/** An edit whose result follows from the document alone. */
function edit(k: number): string {
  const cue = 101 + below(6);
  return [
    `set group 1 name "Edit ${k}"`,
    `${1 + below(12)} thru ${21 + below(10)} at ${below(101)} pan at ${below(90)} to ${-below(90)}`,
    `record cue ${cue} "Kept ${k}" fade 0`,
    `set cue 1 note "note ${k}"`,
    "clear",
    `41 thru 64 colour at #${(4096 + below(1e6)).toString(16).padStart(6, "0")}`,
    `${1 + below(12)} place ${below(8)} ${below(8)} 5`,
    `patch 1 dimmer as ${700 + k}`,
    `record palette ${900 + below(4)} "Kept ${k}" each`,
    `41 thru 64 palette ${900 + below(4)}`,
    `update palette ${900 + below(4)}`,
    `record macro 90 "Two edits" "set group 2 name ""Of a macro ${k}""" "${1 + below(12)} at ${below(101)}"`,
    "macro 90",
    "undo",
    "redo",
  ][below(15)]!;
}

const port = await freePort();
const server = spawn(process.execPath, ["tools/serve.mjs", "--port", String(port)], {
  stdio: ["ignore", "pipe", "inherit"],
});
await new Promise((resolve) => server.stdout.once("data", resolve));
const base = `http://127.0.0.1:${port}`;
const profile = mkdtempSync(join(tmpdir(), "bold-comet-kill-"));

async function open(page: Page): Promise<void> {
  // The app may be on its way back itself.
  for (let tries = 0; tries < 50; tries++) {
    const there = await page.goto(`${base}/show/demo/build`).then(
      () => true,
      () => false,
    );
    if (there) break;
    await pause(200);
  }
  await page.locator("#ask").waitFor();
  await page.getByTestId("lane-1").getByTestId("lane-cue").waitFor();
}
const ask = async (page: Page, line: string) => {
  await page.locator("#ask").fill(line);
  await page.keyboard.press("Enter");
};
/** Ends a process of the app at once; it is started again by whoever started it. */
function killProcess(name: string): void {
  const state = JSON.parse(readFileSync(`build/running-${port}.json`, "utf8")) as {
    processes: { name: string; pid: number }[];
  };
  const found = state.processes.find((p) => p.name === name);
  if (found) process.kill(found.pid, "SIGKILL");
}
/** For a while the storage of the page is closed to it. */
const refuseStorage = (page: Page, ms: number) =>
  page.evaluate((time) => {
    const { transaction } = IDBDatabase.prototype;
    IDBDatabase.prototype.transaction = () => {
      throw new DOMException("closed", "InvalidStateError");
    };
    setTimeout(() => (IDBDatabase.prototype.transaction = transaction), time);
  }, ms);
const incoming = writeShowFile(newWorld("Brought in").show);
/** Kills the browser while a file is taken in: the show is there and its outputs wait, or there is none. */
async function killDuringImport(page: Page): Promise<string | undefined> {
  await open(page);
  await page.goto(base);
  await page.locator("[data-ready=true]").waitFor();
  await page
    .locator("input[type=file]")
    .setInputFiles({ name: "in.comet.zip", mimeType: "application/zip", buffer: Buffer.from(incoming) });
  await pause(below(400));
  now.kill();
  await now.browser.close().catch(() => undefined);
  now = await startBrowser(profile);
  await now.page.goto(base);
  await now.page.locator("[data-ready=true]").waitFor();
  const free = await sendsUnasked(now.page, "demo");
  return free.length > 0 ? `${free.length} shows from a file would send unasked` : undefined;
}
const cueShown = (page: Page) => page.getByTestId("lane-1").getByTestId("lane-cue").textContent();

/** The document as storage holds it, read by nothing of the app. */
async function stored(page: Page): Promise<string> {
  const { snapshots, journal } = await storageOf(page, "demo");
  let world = JSON.parse(snapshots[0]!.text) as World;
  for (const { seq, text } of journal) if (seq > snapshots[0]!.seq) world = applyDiff(world, readDiff(text)!);
  return essence(world);
}

/** The bytes of universe 1 on stage, once they rest. */
async function bytesAtRest(page: Page): Promise<number[]> {
  await page.keyboard.press("Alt+1");
  await page.getByRole("tab", { name: "Universes" }).click();
  await page.getByTestId("dmx").waitFor();
  const read = () =>
    page
      .getByTestId("dmx")
      .evaluate((grid) => [...grid.children].map((cell) => Number(cell.lastElementChild!.textContent)));
  let last = await read();
  for (let calm = 0, tries = 0; calm < 3 && tries < 80; tries++) {
    await pause(200);
    const now = await read();
    calm = now.join() === last.join() ? calm + 1 : 0;
    last = now;
  }
  return last;
}

/** The bytes of universe 1 that a document and a cue of its main list mean. */
function bytesMeant(world: World, cueText: string | null): number[] {
  const desk = newDesk({ ...world, hands: { ...world.hands, selection: [] } });
  const cue = cuesOf(listNumbered(world.show, 1)!).find((c) => cueText === `${c.number} ${c.name}`.trim());
  if (cue) runLine(desk, `go list 1 cue ${cue.number}`);
  wait(desk, 120);
  const place = desk.player.rig.universes.indexOf(1);
  return [...desk.player.frame.subarray(place * 512, place * 512 + 512)];
}

/** Every state the document went through since the last time it was opened, the first as it was found. */
let states: { world: World; text: string; line: string }[] = [];
const remember = (world: World, line: string) => states.push({ world, text: essence(world), line });
let desk: Desk = newDesk(makeDemo());
let edits = 0;
let failures = 0;
let worst = 0;
let now = await startBrowser(profile);
await open(now.page);
remember(desk.world, "");
let others = 0;
for (let k = 1; k <= kills; k++) {
  if (random() < 0.15) {
    const wrong = await killDuringImport(now.page);
    if (wrong) console.log(`kill ${k}: ${wrong}`);
    if (wrong) failures += 1;
    await open(now.page);
  }
  const { page } = now;
  if (random() < 0.3) {
    others += 1;
    const ends = [
      async () => killProcess("app"),
      async () => killProcess("bridge"),
      () => refuseStorage(page, 300 + below(900)),
    ];
    await ends[below(3)]!();
  }
  let saved = 0;
  let cue = await cueShown(page);
  let moving = false;
  const until = Date.now() + 200 + random() * 1300;
  const work = (async () => {
    while (Date.now() < until) {
      const line = edit(edits);
      // The edits of a macro are one step to undo and several to keep: it may be killed between them.
      if (line === "macro 90") {
        const half = newDesk(desk.world);
        const [first] = Object.values(half.world.show.macros).filter((m) => m.number === 90);
        if (first && runLine(half, first.lines[0]!) === undefined) remember(half.world, `half of ${line}`);
      }
      if (runLine(desk, line) === undefined) {
        remember(desk.world, line);
        edits += 1;
        await ask(page, line);
      }
      const mine = states.length - 1;
      if (random() < 0.4) {
        moving = true;
        const to = 1 + below(4);
        await ask(page, `go list 1 cue ${to}`);
        // On a busy machine it takes a moment until it is shown.
        await page
          .getByTestId("lane-1")
          .getByTestId("lane-cue")
          .getByText(new RegExp(`^${to} `))
          .waitFor();
        cue = await cueShown(page);
        // How the lists stand is never said to be saved: it counts from when storage has it.
        const main = listNumbered(desk.world.show, 1)!;
        const wanted = cuesOf(main).find((c) => c.number === to)!.id;
        while ((await standingStored(page, "demo", main.id).catch(() => null)) !== wanted)
          await page.waitForTimeout(20);
        moving = false;
      }
      await page.waitForTimeout(random() * 90);
      if ((await page.getByTestId("saved").textContent()) === "saved") saved = mine;
    }
  })().catch(() => undefined);
  await pause(until - Date.now() - random() * 150);
  const [sure, sureCue] = [saved, moving ? undefined : cue];
  now.kill();
  await work;
  await now.browser.close().catch(() => undefined);
  const again = Date.now();
  now = await startBrowser(profile);
  try {
    await open(now.page);
    await pause(250);
    worst = Math.max(worst, Date.now() - again);
    const text = await stored(now.page);
    const found = states.findLastIndex((s) => s.text === text);
    const shown = await cueShown(now.page);
    const wrong: string[] = [];
    if (found < 0) wrong.push(`the document is none that there was, of ${states.map((s) => s.line).join(" | ")}`);
    else if (found < sure) wrong.push(`state ${sure} of ${states.length - 1} was said to be saved, found ${found}`);
    if (sureCue !== undefined && shown !== sureCue) wrong.push(`list 1 stood in "${sureCue}", found "${shown}"`);
    if (found >= 0) {
      const [is, meant] = [
        await bytesAtRest(now.page),
        bytesMeant(
          states[found]!.world,
          await (async () => (
            await now.page.keyboard.press("Alt+2"),
            now.page.getByTestId("lane-1").getByTestId("lane-cue").textContent()
          ))(),
        ),
      ];
      const differs = is.findIndex((byte, i) => byte !== meant[i]);
      if (differs >= 0) wrong.push(`slot ${differs + 1} is ${is[differs]}, the document means ${meant[differs]}`);
    }
    if (wrong.length > 0) {
      failures += 1;
      console.log(
        `kill ${k}: ${wrong.join("; ")} (notices: ${(await now.page.getByTestId("notices").allTextContents()).join("; ") || "none"})`,
      );
    }
    const kept = states[Math.max(0, found)]!;
    states = [kept];
    desk = newDesk(kept.world);
  } catch (error) {
    failures += 1;
    console.log(`kill ${k}: the show did not open: ${(error as Error).message.split("\n")[0]}`);
    break;
  }
}
now.kill();
server.kill("SIGTERM");
await pause(300);
rmSync(profile, { recursive: true, force: true });
if (edits === 0) {
  console.log("no edit was made, so nothing was shown");
  failures += 1;
}
console.log(
  `${kills} kills, ${edits} edits, ${others} of the app, the bridge or the storage alone, ${failures} failures, slowest return ${(worst / 1000).toFixed(1)} s (browser start included)`,
);
process.exit(failures === 0 ? 0 : 1);
