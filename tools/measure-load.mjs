// Measures each place from a warm server: time to ready, and compressed script on first load.
import { spawn } from "node:child_process";
import { dirname, join } from "node:path";
import { fileURLToPath } from "node:url";
import { launch } from "./browser.mjs";

const root = join(dirname(fileURLToPath(import.meta.url)), "..");
const port = 4631;
const base = `http://127.0.0.1:${port}`;
const began = Date.now();
const server = spawn(process.execPath, [join(root, "tools/serve.mjs"), "--port", String(port)], { stdio: ["ignore", "pipe", "inherit"] });
await new Promise((resolve) => server.stdout.once("data", resolve));
console.log(`start to address: ${((Date.now() - began) / 1000).toFixed(2)} s`);
const READY = { build: "[data-testid=stage] canvas", cues: "[data-testid=cue-1]", rig: "[role=row][data-chosen]", run: "[data-testid=lane-1]", check: "article, h1" };
const browser = await launch();
try {
  await (await browser.newPage()).goto(`${base}/show/demo/build`);
  for (const [place, ready] of Object.entries(READY)) {
    const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
    const page = await context.newPage();
    const client = await context.newCDPSession(page);
    await client.send("Network.enable");
    const scripts = new Map();
    client.on("Network.responseReceived", ({ requestId, type }) => type === "Script" && scripts.set(requestId, 0));
    client.on("Network.loadingFinished", ({ requestId, encodedDataLength }) => scripts.has(requestId) && scripts.set(requestId, encodedDataLength));
    await page.goto(base);
    await page.locator("[data-ready=true]").waitFor();
    scripts.clear();
    await client.send("Network.clearBrowserCache");
    const start = Date.now();
    await page.goto(`${base}/show/demo/${place}`);
    await page.locator(ready).first().waitFor();
    const ms = Date.now() - start;
    await page.waitForTimeout(800);
    console.log(`${place}: ready after ${ms} ms, ${Math.round([...scripts.values()].reduce((a, b) => a + b, 0) / 1000)} kB of script`);
    await context.close();
  }
} finally {
  await browser.close();
  server.kill("SIGTERM");
}
