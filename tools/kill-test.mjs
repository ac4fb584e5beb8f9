// Kills the browser process at random moments during edits and playback, opens the show again and checks:
// everything that was said to be saved is there, and the stage comes back as it was.
// Usage: node tools/kill-test.mjs [kills] [seed]
import { spawn } from "node:child_process";
import { mkdtempSync, rmSync } from "node:fs";
import { createServer } from "node:net";
import { tmpdir } from "node:os";
import { dirname, join } from "node:path";
import { fileURLToPath } from "node:url";
import { chromium } from "playwright-core";

const root = join(dirname(fileURLToPath(import.meta.url)), "..");
const kills = Number(process.argv[2] ?? 100);
let seed = Number(process.argv[3] ?? 1);
const random = () => {
  seed = (Math.imul(seed, 1664525) + 1013904223) >>> 0;
  return seed / 4294967296;
};
const freePort = () => new Promise((resolve) => {
  const probe = createServer().listen(0, "127.0.0.1", () => {
    const { port } = probe.address();
    probe.close(() => resolve(port));
  });
});

const port = await freePort();
const server = spawn(process.execPath, [join(root, "tools/serve.mjs"), "--port", String(port)], { stdio: ["ignore", "pipe", "inherit"] });
await new Promise((resolve) => server.stdout.once("data", resolve));
const base = `http://127.0.0.1:${port}`;
const profile = mkdtempSync(join(tmpdir(), "bold-comet-kill-"));

/** A browser of our own, so that it can be killed as a whole. */
async function start() {
  const debug = await freePort();
  const process_ = spawn(process.env.CHROMIUM ?? "/usr/bin/chromium", ["--headless=new", "--no-sandbox", "--disable-quic", "--no-first-run", "--disable-background-networking", "--disable-component-update", "--disable-sync", "--disable-gpu", `--user-data-dir=${profile}`, `--remote-debugging-port=${debug}`, "about:blank"], { stdio: "ignore", detached: true });
  for (let i = 0; ; i++) {
    try {
      const browser = await chromium.connectOverCDP(`http://127.0.0.1:${debug}`);
      const page = browser.contexts()[0].pages()[0] ?? (await browser.contexts()[0].newPage());
      return { kill: () => process.kill(-process_.pid, "SIGKILL"), browser, page };
    } catch (error) {
      if (i > 100) throw error;
      await new Promise((resolve) => setTimeout(resolve, 100));
    }
  }
}

async function open(page) {
  await page.goto(`${base}/show/demo/build`);
  await page.locator("#ask").waitFor();
  await page.getByTestId("lane-1").waitFor();
}
/** What the show says of itself: the last edit, and how list 1 stands. */
async function standing(page) {
  await page.waitForFunction(() => document.querySelector("[data-testid=lane-1] [data-testid=lane-cue]"));
  await page.waitForTimeout(250);
  const cue = await page.getByTestId("lane-1").getByTestId("lane-cue").textContent();
  const name = await page.evaluate(() => [...document.querySelectorAll("section[aria-label=Groups] li")].map((li) => li.textContent).find((t) => t.includes("Edit ")) ?? "Edit 0.");
  return { cue, edit: Number(/Edit (\d+)\./.exec(name)[1]) };
}

let edit = 0;
// The last edit known to be in storage: what was typed but never said to be saved does not count.
let kept = 0;
let failures = 0;
let worst = 0;
let now = await start();
await open(now.page);
for (let k = 1; k <= kills; k++) {
  const { page } = now;
  let saved = kept;
  let cue = (await standing(page)).cue;
  let moving = false;
  const until = Date.now() + 150 + random() * 1200;
  const work = (async () => {
    while (Date.now() < until) {
      edit += 1;
      const mine = edit;
      await page.locator("#ask").fill(`set group 1 name "Edit ${mine}."`);
      await page.keyboard.press("Enter");
      if (random() < 0.4) {
        moving = true;
        await page.locator("#ask").fill(`go list 1 cue ${1 + Math.floor(random() * 5)}`);
        await page.keyboard.press("Enter");
        await page.waitForTimeout(150);
        cue = await page.getByTestId("lane-1").getByTestId("lane-cue").textContent();
        await page.waitForTimeout(150);
        moving = false;
      }
      await page.waitForTimeout(random() * 80);
      const state = await page.evaluate(() => ({ text: document.querySelector("[data-testid=saved]").textContent, name: document.querySelector("section[aria-label=Groups] li").textContent }));
      if (state.text === "saved" && state.name.includes(`Edit ${mine}.`)) saved = mine;
    }
  })().catch(() => undefined);
  await new Promise((resolve) => setTimeout(resolve, until - Date.now() - random() * 150));
  const sure = saved;
  const sureCue = moving ? undefined : cue;
  now.kill();
  await work;
  await now.browser.close().catch(() => undefined);
  const again = Date.now();
  now = await start();
  try {
    await open(now.page);
    const found = await standing(now.page);
    const notices = await now.page.getByTestId("notices").textContent();
    const pages = now.browser.contexts().flatMap((c) => c.pages()).length;
    worst = Math.max(worst, Date.now() - again);
    const lost = found.edit < sure;
    const strayed = sureCue !== undefined && found.cue !== sureCue;
    if (lost || strayed) {
      failures += 1;
      console.log(`kill ${k}: ${lost ? `edit ${sure} was said to be saved, found ${found.edit}` : ""} ${strayed ? `list 1 stood in "${sureCue}", found "${found.cue}"` : ""} (${pages} pages; notices: ${notices || "none"})`);
    }
    kept = found.edit;
    edit = Math.max(edit, found.edit);
  } catch (error) {
    failures += 1;
    console.log(`kill ${k}: the show did not open: ${error.message.split("\n")[0]}`);
  }
}
now.kill();
server.kill("SIGTERM");
await new Promise((resolve) => setTimeout(resolve, 300));
rmSync(profile, { recursive: true, force: true });
console.log(`${kills} kills, ${failures} failures, slowest return ${(worst / 1000).toFixed(1)} s (browser start included)`);
process.exit(failures === 0 ? 0 : 1);
