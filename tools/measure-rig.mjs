// Measures the rig with 4,000 fixtures: bringing them in from a table through the interface, and scrolling their table.
// Usage: node tools/measure-rig.mjs
import { spawn } from "node:child_process";
import { writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { dirname, join } from "node:path";
import { fileURLToPath } from "node:url";
import { launch } from "./browser.mjs";

const root = join(dirname(fileURLToPath(import.meta.url)), "..");
const port = 4634;
const base = `http://127.0.0.1:${port}`;
const server = spawn(process.execPath, [join(root, "tools/serve.mjs"), "--port", String(port)], {
  stdio: ["ignore", "pipe", "inherit"],
  env: { ...process.env, BOLD_COMET_NODE_HOST: "127.0.0.6" },
});
await new Promise((resolve) => server.stdout.once("data", resolve));
const browser = await launch();
const file = join(tmpdir(), "bold-comet-4000.csv");
writeFileSync(
  file,
  `Number,Name,Maker,Model,Mode,Address,X,Y,Z\n${Array.from({ length: 4000 }, (_, i) => `${i + 1},Lamp ${i + 1},Saltmarsh,Kelp Wash,standard,${Math.floor(i / 42) + 1}.${(i % 42) * 12 + 1},${(i % 80) / 2 - 20},${Math.floor(i / 80) / 2},5`).join("\n")}\n`,
);
/** Notes the longest wait between two animation frames until told to stop. */
const watchFrames = (page) =>
  page.evaluate(() => {
    globalThis.frames = [];
    globalThis.watching = true;
    let last = performance.now();
    const look = () => {
      const now = performance.now();
      globalThis.frames.push(now - last);
      last = now;
      if (globalThis.watching) requestAnimationFrame(look);
    };
    requestAnimationFrame(look);
  });
const frames = (page) =>
  page.evaluate(() => {
    globalThis.watching = false;
    return globalThis.frames;
  });
try {
  const page = await (await browser.newContext({ viewport: { width: 1280, height: 800 } })).newPage();
  await page.goto(base);
  await page.locator("[data-ready=true]").waitFor();
  await page.getByRole("button", { name: "New show" }).click();
  await page.locator("#ask").waitFor();
  await page.getByRole("navigation").getByText("Rig", { exact: true }).click();
  await page.getByRole("button", { name: "Import" }).click();
  await page.getByRole("menuitem", { name: /from a file/ }).click();
  await watchFrames(page);
  const began = Date.now();
  await page.locator("input[type=file]").setInputFiles(file);
  await page.getByText("4,000 rows ready, 0 left out").waitFor();
  const read = Date.now() - began;
  const reading = await frames(page);
  await watchFrames(page);
  const start = Date.now();
  await page.getByRole("button", { name: "Add 4,000 fixtures" }).click();
  await page.getByTestId("notices").getByText("4,000 fixtures from").waitFor();
  const took = Date.now() - start;
  const importing = await frames(page);
  console.log(
    `4,000 rows read in ${(read / 1000).toFixed(2)} s (longest frame ${Math.max(...reading).toFixed(0)} ms), brought in in ${(took / 1000).toFixed(2)} s (longest frame ${Math.max(...importing).toFixed(0)} ms)`,
  );
  await page.getByRole("grid").waitFor();
  await page.waitForTimeout(3000);
  const box = await page.getByRole("grid").boundingBox();
  await page.mouse.move(box.x + 300, box.y + 300);
  await watchFrames(page);
  for (let i = 0; i < 120; i++) {
    await page.mouse.wheel(0, 260);
    await page.waitForTimeout(16);
  }
  const scrolled = (await frames(page)).slice(2);
  const sum = scrolled.reduce((a, b) => a + b, 0);
  console.log(
    `table of 4,000 rows scrolled at ${((1000 * scrolled.length) / sum).toFixed(1)} frames a second, longest frame ${Math.max(...scrolled).toFixed(0)} ms`,
  );
} finally {
  await browser.close();
  server.kill("SIGTERM");
}
