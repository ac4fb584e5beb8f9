// How long the stage stands still when the window that hosts a show closes and another goes on: the longest
// gap between two packets that differ, on the wire, during a fade of 16 bits. Usage: node tools/measure-handover.mjs [times]
import { spawn } from "node:child_process";
import { createSocket } from "node:dgram";
import { createServer } from "node:net";
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { dirname, join } from "node:path";
import { fileURLToPath } from "node:url";
import { chromium } from "playwright-core";

const root = join(dirname(fileURLToPath(import.meta.url)), "..");
const HOST = "127.0.0.62";
const times = Number(process.argv[2] ?? 5);
const port = await new Promise((resolve) => {
  const probe = createServer().listen(0, "127.0.0.1", () => {
    const { port } = probe.address();
    probe.close(() => resolve(port));
  });
});
const server = spawn(process.execPath, [join(root, "tools/serve.mjs"), "--port", String(port)], {
  stdio: ["ignore", "pipe", "inherit"],
});
await new Promise((resolve) => server.stdout.once("data", resolve));
const base = `http://127.0.0.1:${port}`;

let last = "";
const changes = [];
let sequence = 0;
let skipped = 0;
const ear = createSocket("udp4");
ear.on("message", (bytes) => {
  if (bytes[14] !== 7) return;
  const gap = (bytes[12] - sequence + 255) % 255;
  if (sequence && gap !== 1 && gap !== 0) skipped += 1;
  sequence = bytes[12];
  const data = bytes.subarray(18).toString("latin1");
  if (data !== last) changes.push(performance.now());
  last = data;
});
await new Promise((resolve) => ear.bind(6454, HOST, resolve));

const ask = async (page, ...lines) => {
  for (const line of lines) {
    await page.locator("#ask").fill(line);
    await page.keyboard.press("Enter");
    await page.waitForTimeout(150);
  }
};

async function measure(title, prepare) {
  const profile = mkdtempSync(join(tmpdir(), "bold-comet-handover-"));
  const context = await chromium.launchPersistentContext(profile, {
    executablePath: process.env.CHROMIUM ?? "/usr/bin/chromium",
    args: [
      "--no-sandbox",
      "--disable-quic",
      "--no-first-run",
      "--disable-background-networking",
      "--disable-component-update",
      "--disable-sync",
    ],
    viewport: { width: 1280, height: 800 },
  });
  let host = context.pages()[0];
  await prepare(host);
  const address = host.url();
  const gaps = [];
  for (let i = 0; i < times; i++) {
    const guest = await context.newPage();
    await guest.goto(address);
    await guest.locator("#ask").waitFor({ timeout: 60_000 });
    await guest.waitForTimeout(2500);
    await ask(host, "go list 40 cue 1");
    await host.waitForTimeout(800);
    changes.length = 0;
    const closing = performance.now();
    await host.close();
    await guest.waitForTimeout(2500);
    const around = changes.filter((t) => t > closing - 200 && t < closing + 2400);
    gaps.push(Math.max(...around.slice(1).map((t, k) => t - around[k])));
    host = guest;
    await ask(host, "release list 40");
    await host.waitForTimeout(1200);
  }
  await context.close();
  rmSync(profile, { recursive: true, force: true });
  gaps.sort((a, b) => a - b);
  console.log(
    `${title}: stands still for ${gaps[Math.floor(gaps.length / 2)].toFixed(0)} ms (median of ${times}), ${gaps.at(-1).toFixed(0)} ms at most; ${skipped} packets missing in the stream`,
  );
}

const fade = ["1 thru 12 at full pan at 200", "record list 40 cue 1 fade 60", "clear", "set list 40 releasetime 0"];
await measure("demo show", async (page) => {
  await page.goto(`${base}/show/demo/build`);
  await page.locator("#ask").waitFor();
  await ask(page, `output 1 artnet to ${HOST} as 7`, ...fade);
});
await measure("4,000 fixtures", async (page) => {
  await page.goto(base);
  await page.locator("[data-ready=true]").waitFor();
  await page.getByRole("button", { name: "New show" }).click();
  await page.locator("#ask").waitFor();
  for (let i = 0; i < 8; i++) {
    await ask(page, "patch 500 kelp-wash");
    await page.waitForTimeout(700);
  }
  await ask(
    page,
    `output 1 artnet to ${HOST} as 7`,
    "all pan at 200",
    "record list 40 cue 1 fade 60",
    "clear",
    "set list 40 releasetime 0",
  );
  await page.waitForTimeout(2000);
});
ear.close();
server.kill("SIGTERM");
