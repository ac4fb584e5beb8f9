// Measures each place from a warm server: time to ready, and compressed script on first load.
import { spawn } from "node:child_process";
import { dirname, join } from "node:path";
import { fileURLToPath } from "node:url";
import { launch } from "./browser.mjs";

const root = join(dirname(fileURLToPath(import.meta.url)), "..");
const port = 4631;
const base = `http://127.0.0.1:${port}`;
const began = Date.now();
const server = spawn(process.execPath, [join(root, "tools/serve.mjs"), "--port", String(port)], {
  stdio: ["ignore", "pipe", "inherit"],
});
await new Promise((resolve) => server.stdout.once("data", resolve));
console.log(`start to address: ${((Date.now() - began) / 1000).toFixed(2)} s`);
const READY = {
  build: "[data-testid=stage] canvas",
  cues: "[data-testid=cue-1]",
  rig: "[role=row][data-chosen]",
  run: "[data-testid=lane-1]",
  check: "article, h1",
};
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
    client.on(
      "Network.loadingFinished",
      ({ requestId, encodedDataLength }) => scripts.has(requestId) && scripts.set(requestId, encodedDataLength),
    );
    await page.goto(base);
    await page.locator("[data-ready=true]").waitFor();
    scripts.clear();
    await client.send("Network.clearBrowserCache");
    const start = Date.now();
    await page.goto(`${base}/show/demo/${place}`);
    await page.locator(ready).first().waitFor();
    const ms = Date.now() - start;
    await page.waitForTimeout(800);
    console.log(
      `${place}: ready after ${ms} ms, ${Math.round([...scripts.values()].reduce((a, b) => a + b, 0) / 1000)} kB of script`,
    );
    await context.close();
  }
  const page = await (await browser.newContext({ viewport: { width: 1280, height: 800 } })).newPage();
  await page.goto(`${base}/show/demo/rig`);
  await page.getByRole("tab", { name: "Universes" }).click();
  await page.getByTestId("dmx").waitFor();
  await page.evaluate(() => {
    globalThis.took = [];
    let pressed = 0;
    addEventListener("keydown", (e) => e.key === "Enter" && (pressed = performance.now()), true);
    new MutationObserver(() => {
      if (pressed > 0) globalThis.took.push(performance.now() - pressed);
      pressed = 0;
    }).observe(document.querySelector("[data-testid=dmx]"), { subtree: true, characterData: true, childList: true });
  });
  for (let i = 0; i < 60; i++) {
    await page.locator("#ask").fill(`1 thru 12 at ${i + 20}`);
    await page.waitForTimeout(150);
    await page.keyboard.press("Enter");
    await page.waitForTimeout(150);
  }
  const took = (await page.evaluate(() => globalThis.took)).sort((a, b) => a - b);
  console.log(
    `Enter pressed to changed bytes on the screen, 12 of the demo's fixtures: ${took[took.length >> 1].toFixed(1)} ms median, ${took.at(-1).toFixed(1)} ms worst of ${took.length}`,
  );
} finally {
  await browser.close();
  server.kill("SIGTERM");
}
