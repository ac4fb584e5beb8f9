// What a list of 2,000 cues with 4,000 fixtures feels like: opening it, scrolling filmstrip and sheet, an edit of one
// cell until it is on screen. Needs a build. Usage: node tools/measure-lists.mjs
import { spawn, spawnSync } from "node:child_process";
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { dirname, join } from "node:path";
import { fileURLToPath } from "node:url";
import { launch } from "./browser.mjs";
import { machinePace } from "./machine-pace.mjs";

const root = join(dirname(fileURLToPath(import.meta.url)), "..");
const folder = mkdtempSync(join(tmpdir(), "bold-comet-lists-"));
const file = join(folder, "large.comet.zip");
const made = spawnSync(process.execPath, [join(root, "tools/run-bundled.mjs"), "tests/bench/writeLargeShow.ts", file], {
  stdio: "inherit",
});
if (made.status !== 0) process.exit(1);
const port = 4640;
const server = spawn(process.execPath, [join(root, "tools/serve.mjs"), "--port", String(port)], {
  stdio: ["ignore", "pipe", "inherit"],
});
await new Promise((resolve) => server.stdout.once("data", resolve));
const browser = await launch();
const round = (v) => Math.round(v * 10) / 10;
const at = (values, share) => round([...values].sort((a, b) => a - b)[Math.floor(values.length * share)] ?? NaN);

/** Scrolls what is under the pointer and tells the frames meanwhile. */
async function scrolled(page, times) {
  await page.evaluate(() => {
    window.gaps = [];
    let last = performance.now();
    const look = (now) => {
      window.gaps.push(now - last);
      last = now;
      requestAnimationFrame(look);
    };
    requestAnimationFrame(look);
  });
  for (let k = 0; k < times; k++) {
    await page.mouse.wheel(0, 160);
    await page.waitForTimeout(50);
  }
  const gaps = await page.evaluate(() => window.gaps);
  return `${round((gaps.length * 1000) / gaps.reduce((a, b) => a + b))} frames a second, p95 ${at(gaps, 0.95)} ms`;
}

console.log(`a bare loop on both cores: ${await machinePace()} ms`);
try {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  page.setDefaultTimeout(60_000);
  await page.goto(`http://127.0.0.1:${port}`);
  await page.locator("[data-ready=true]").waitFor();
  const began = Date.now();
  await page.locator("input[type=file]").setInputFiles(file);
  await page.getByRole("button", { name: "Open Two thousand cues" }).click();
  await page.locator("#ask").waitFor();
  await page.getByTestId("stage").waitFor();
  console.log(`opened from its file in ${round((Date.now() - began) / 1000)} s`);
  await page.getByRole("navigation").getByText("Cues", { exact: true }).click();
  const strip = page.getByRole("region", { name: /^Filmstrip of/ });
  await strip.waitFor();
  await page.waitForTimeout(9000);
  let box = await strip.boundingBox();
  await page.mouse.move(box.x + 300, box.y + 200);
  console.log(`filmstrip: ${await scrolled(page, 80)}`);
  await page.getByText("Sheet", { exact: true }).first().click();
  const grid = page.getByRole("grid").first();
  await grid.waitFor();
  await page.waitForTimeout(4000);
  box = await grid.boundingBox();
  await page.mouse.move(box.x + 400, box.y + 200);
  console.log(`sheet: ${await scrolled(page, 80)}`);
  await page.waitForTimeout(3000);
  // From Enter in a cell to the cell that shows it, and to the frame after which it can be seen.
  await page.mouse.click(box.x + 400, box.y + 200);
  const took = [];
  for (let k = 0; k < 12; k++) {
    await page.keyboard.type(`${11 + k}.7`);
    await page.waitForTimeout(1500);
    await page.evaluate(
      (text) => {
        window.took = new Promise((resolve) => {
          addEventListener("keydown", (event) => (window.pressed = event.timeStamp), { once: true, capture: true });
          const grid = document.querySelector("[role=grid]");
          const watch = new MutationObserver(() => {
            if (!grid.textContent.includes(text) || grid.querySelector("input")) return;
            watch.disconnect();
            requestAnimationFrame(() => setTimeout(() => resolve(performance.now() - window.pressed)));
          });
          watch.observe(grid, { subtree: true, childList: true, characterData: true, attributes: true });
        });
      },
      `${11 + k}.7`,
    );
    await page.keyboard.press("Enter");
    took.push(
      await page.evaluate(() => Promise.race([window.took, new Promise((r) => setTimeout(() => r(NaN), 5000))])),
    );
    await page.waitForTimeout(1500);
  }
  console.log(`an edit of a cell, on screen: ${took.map(round).join(" ")}; median ${at(took, 0.5)} ms`);
} finally {
  await browser.close();
  server.kill();
  console.log(`a bare loop on both cores: ${await machinePace()} ms`);
  rmSync(folder, { recursive: true });
}
