// What hands feel with 2,000 fixtures in motion: frames while the values sheet scrolls, the plan's own pace, and a
// spread dragged over all of them. Needs a build. Usage: node tools/measure-hands.mjs
import { spawn } from "node:child_process";
import { createServer } from "node:net";
import { dirname, join } from "node:path";
import { fileURLToPath } from "node:url";
import { launch } from "./browser.mjs";
import { machinePace } from "./machine-pace.mjs";
import { watchTheEngine } from "./watch-engine.mjs";

const root = join(dirname(fileURLToPath(import.meta.url)), "..");
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
const browser = await launch();
const round = (v) => Math.round(v * 10) / 10;
const at = (values, share) => round([...values].sort((a, b) => a - b)[Math.floor(values.length * share)] ?? NaN);

/** Frames of the page while something goes on: how many a second, and the longest between two. */
const frames = (page, ms) =>
  page.evaluate(
    (ms) =>
      new Promise((resolve) => {
        const start = performance.now();
        const gaps = [];
        let last = start;
        const look = (now) => {
          gaps.push(now - last);
          last = now;
          if (now - start < ms) requestAnimationFrame(look);
          else resolve(gaps);
        };
        requestAnimationFrame(look);
      }),
    ms,
  );

/** Milliseconds from each movement to the next change of the value that came of it. */
const followed = ({ moves, changes }) =>
  moves.flatMap((at, k) => {
    const found = changes.find((c) => c >= at);
    return found === undefined || found > (moves[k + 1] ?? Infinity) + 1000 ? [] : [found - at];
  });

console.log(`a bare loop on both cores: ${await machinePace()} ms`);
try {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 }, bypassCSP: true });
  await page.addInitScript(watchTheEngine);
  const ask = async (...lines) => {
    for (const line of lines) {
      await page.locator("#ask").fill(line);
      await page.keyboard.press("Enter");
      await page.waitForTimeout(600);
    }
  };
  await page.goto(`http://127.0.0.1:${port}`);
  await page.locator("[data-ready=true]").waitFor();
  await page.getByRole("button", { name: "New show" }).click();
  await page.locator("#ask").waitFor();
  await ask(
    "patch 2000 kelp-wash as 1",
    "all at 20 to 80 pan at -40 to 40",
    "record cue 1 fade 0",
    "all at 80 to 20 pan at 40 to -40",
  );
  await ask("record cue 2 fade 300", "clear", "go", "go");
  await page.getByRole("navigation").getByText("Build", { exact: true }).click();
  await page.getByTestId("stage").waitFor();
  await page.waitForTimeout(3000);
  const pace = await page.getByTestId("stage").evaluate((e) => ({ ...e.dataset }));
  console.log("plan alone:", JSON.stringify(pace));
  await page.getByRole("button", { name: "Values", exact: true }).click();
  await page.waitForTimeout(1500);
  const grid = page.getByRole("grid", { name: "Values of fixtures" });
  const box = await grid.boundingBox();
  await page.mouse.move(box.x + 300, box.y + 100);
  const still = await frames(page, 3000);
  console.log(
    `values sheet in sight, all live: ${round((still.length * 1000) / still.reduce((a, b) => a + b))} frames a second`,
  );
  const scrolling = frames(page, 5000);
  for (let k = 0; k < 60; k++) {
    await page.mouse.wheel(0, 160);
    await page.waitForTimeout(60);
  }
  const gaps = await scrolling;
  console.log(
    `scrolled by the wheel: ${round((gaps.length * 1000) / gaps.reduce((a, b) => a + b))} frames a second, p95 ${at(gaps, 0.95)} ms, longest ${round(Math.max(...gaps))} ms`,
  );
  console.log("plan meanwhile:", JSON.stringify(await page.getByTestId("stage").evaluate((e) => ({ ...e.dataset }))));
  await page.getByRole("button", { name: "Values", exact: true }).click();
  await ask("all");
  const number = page.getByRole("button", { name: /^Dimmer .*,/ }).first();
  const from = await number.boundingBox();
  await page.evaluate(() => window.watch(window.engine.layout.keys.find((key) => key.endsWith("Dimmer"))));
  await page.waitForTimeout(300);
  await page.mouse.move(from.x + 40, from.y + 10);
  await page.mouse.down();
  const wag = async (movements) => {
    for (let k = 0; k < movements; k++) {
      const by = 10 + (k % 60);
      await page.mouse.move(from.x + 40 + (k % 2 ? by : -by) / 2, from.y + 10);
      await page.waitForTimeout(40);
    }
  };
  // The first movements begin the drag: until the value is held it changes by itself.
  await wag(10);
  await page.evaluate(() => Object.assign(window.marks, { moves: [], changes: [] }));
  await wag(200);
  const late = followed(await page.evaluate(() => window.marks));
  console.log(
    `from the hand to the stage: ${late.length} movements, p50 ${at(late, 0.5)} ms, p95 ${at(late, 0.95)} ms, longest ${round(Math.max(...late))} ms`,
  );
  console.log("plan meanwhile:", JSON.stringify(await page.getByTestId("stage").evaluate((e) => ({ ...e.dataset }))));
  const dragging = frames(page, 4000);
  await wag(75);
  const drag = await dragging;
  await page.mouse.up();
  console.log(
    `a value dragged over 2,000: frames p50 ${at(drag, 0.5)} ms, p95 ${at(drag, 0.95)} ms, longest ${round(Math.max(...drag))} ms`,
  );
} finally {
  await browser.close();
  server.kill();
  console.log(`a bare loop on both cores: ${await machinePace()} ms`);
}
