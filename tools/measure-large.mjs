// Measures a large show in the app: how long things take, and how long the page is held up by each.
// Usage: node tools/measure-large.mjs [FIXTURES CUES]
import { spawn, spawnSync } from "node:child_process";
import { tmpdir } from "node:os";
import { dirname, join } from "node:path";
import { fileURLToPath } from "node:url";
import { launch } from "./browser.mjs";
import { machinePace } from "./machine-pace.mjs";

const [fixtures = "15000", cues = "5000"] = process.argv.slice(2);
const root = join(dirname(fileURLToPath(import.meta.url)), "..");
const port = 4637;
const base = `http://127.0.0.1:${port}`;
const file = join(tmpdir(), `bold-comet-large-${fixtures}-${cues}.comet.zip`);
spawnSync(
  process.execPath,
  [join(root, "tools/run-bundled.mjs"), "tests/bench/writeLargeShow.ts", file, fixtures, cues],
  {
    stdio: "inherit",
  },
);
console.log(`a bare loop on both cores: ${await machinePace()}`);
const server = spawn(process.execPath, [join(root, "tools/serve.mjs"), "--port", String(port)], {
  stdio: ["ignore", "pipe", "inherit"],
  env: { ...process.env, BOLD_COMET_NODE_HOST: "127.0.0.9" },
});
await new Promise((resolve) => server.stdout.once("data", resolve));
const browser = await launch();
try {
  const page = await (await browser.newContext({ viewport: { width: 1280, height: 800 } })).newPage();
  await page.addInitScript(() => {
    globalThis.gap = { longest: 0 };
    let last = performance.now();
    const beat = new MessageChannel();
    beat.port1.onmessage = () => {
      const now = performance.now();
      globalThis.gap.longest = Math.max(globalThis.gap.longest, now - last);
      last = now;
      setTimeout(() => beat.port2.postMessage(0), 4);
    };
    beat.port2.postMessage(0);
  });
  const measure = async (what, does) => {
    await page.evaluate(() => void (globalThis.gap.longest = 0)).catch(() => undefined);
    const began = Date.now();
    await does();
    const took = Date.now() - began;
    await page.waitForTimeout(1500);
    const gap = await page.evaluate(() => Math.round(globalThis.gap.longest));
    console.log(`${what}: ${(took / 1000).toFixed(1)} s, the page held up ${gap} ms at most`);
  };
  const ask = async (line) => {
    await page.locator("#ask").fill(line);
    await page.keyboard.press("Enter");
  };
  const says = (text) => page.getByTestId("ask-last").getByText(text).waitFor({ timeout: 120_000 });
  await page.goto(base);
  await page.locator("[data-ready=true]").waitFor();
  await measure("import", async () => {
    await page.locator("input[type=file]").setInputFiles(file);
    await page.getByText('"Largest" is in').waitFor({ timeout: 240_000 });
  });
  await measure("open", async () => {
    await page.getByRole("button", { name: "Open Largest" }).click();
    await page.locator("#ask").waitFor({ timeout: 240_000 });
  });
  await measure("its stage", () => page.locator("[data-testid=stage] canvas").first().waitFor({ timeout: 240_000 }));
  for (const line of [
    `patch 5000 kelp-mini mode basic as 30001 at 1001:1`,
    "undo",
    "all at 50",
    "record cue 6000",
    "clear",
    "go list 1 cue 2500",
  ])
    await measure(line, async () => {
      await ask(line);
      await says(line);
    });
} finally {
  await browser.close();
  server.kill("SIGTERM");
}
