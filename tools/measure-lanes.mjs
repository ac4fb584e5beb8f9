// What Run feels like with 200 lists on 20 pages, 40 of them running. Needs a build. Usage: node tools/measure-lanes.mjs
import { spawn, spawnSync } from "node:child_process";
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { dirname, join } from "node:path";
import { fileURLToPath } from "node:url";
import { launch } from "./browser.mjs";
import { watchTheEngine } from "./watch-engine.mjs";

const root = join(dirname(fileURLToPath(import.meta.url)), "..");
const folder = mkdtempSync(join(tmpdir(), "bold-comet-lanes-"));
const file = join(folder, "deck.comet.zip");
const made = spawnSync(process.execPath, [join(root, "tools/run-bundled.mjs"), "tests/bench/writeDeck.ts", file], {
  stdio: "inherit",
});
if (made.status !== 0) process.exit(1);
const port = 4641;
const server = spawn(process.execPath, [join(root, "tools/serve.mjs"), "--port", String(port)], {
  stdio: ["ignore", "pipe", "inherit"],
});
await new Promise((resolve) => server.stdout.once("data", resolve));
const browser = await launch();
const round = (v) => Math.round(v * 10) / 10;
const at = (values, share) => round([...values].sort((a, b) => a - b)[Math.floor(values.length * share)] ?? NaN);

try {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 }, bypassCSP: true });
  await page.addInitScript(watchTheEngine);
  page.setDefaultTimeout(60_000);
  await page.goto(`http://127.0.0.1:${port}`);
  await page.locator("[data-ready=true]").waitFor();
  await page.locator("input[type=file]").setInputFiles(file);
  await page.getByRole("button", { name: "Open Two hundred lists" }).click();
  await page.locator("#ask").waitFor();
  const ask = async (...lines) => {
    for (const line of lines) {
      await page.locator("#ask").fill(line);
      await page.keyboard.press("Enter");
      await page.waitForTimeout(60);
    }
  };
  for (let list = 1; list <= 200; list += 5) await ask(`go list ${list}`, `go list ${list}`);
  await page.getByRole("navigation").getByText("Run", { exact: true }).click();
  await page.getByTestId("stage").waitFor();
  await page.waitForTimeout(3000);
  const frames = await page.evaluate(
    () =>
      new Promise((resolve) => {
        const gaps = [];
        const start = performance.now();
        let last = start;
        const look = (now) => {
          gaps.push(now - last);
          last = now;
          if (now - start < 6000) requestAnimationFrame(look);
          else resolve(gaps);
        };
        requestAnimationFrame(look);
      }),
  );
  console.log(
    `Run, 40 of 200 running: ${round((frames.length * 1000) / frames.reduce((a, b) => a + b))} frames a second, p95 ${at(frames, 0.95)} ms; plan ${await page.getByTestId("stage").getAttribute("data-pace")}`,
  );
  // A list of its own in fixtures that nothing moves: its go is the next change of their value.
  await ask("release all over 0", "arm list 2", "go list 2 cue 1");
  await page.waitForTimeout(1000);
  for (let list = 1; list <= 200; list += 5) if ((list - 1) % 20 !== 1) await ask(`go list ${list}`, `go list ${list}`);
  await ask("set list 2 cue 1 fade 0", "set list 2 cue 2 fade 0", "set list 2 cue 3 fade 0", "set list 2 end wrap");
  await page.evaluate(() => {
    const { keys } = window.engine.layout;
    window.watch(keys.filter((key) => key.endsWith("Dimmer"))[25]);
  });
  await page.mouse.click(980, 740);
  await page.waitForTimeout(1000);
  await page.evaluate(() => Object.assign(window.marks, { moves: [], changes: [] }));
  for (let k = 0; k < 30; k++) {
    await page.keyboard.press("Space");
    await page.waitForTimeout(300);
  }
  const { moves, changes } = await page.evaluate(() => window.marks);
  const late = moves.flatMap((t) => {
    const found = changes.find((c) => c >= t);
    return found !== undefined && found - t < 280 ? [found - t] : [];
  });
  console.log(
    `a press to the stage: ${late.length} of ${moves.length} presses, median ${at(late, 0.5)} ms, p95 ${at(late, 0.95)} ms`,
  );
} finally {
  await browser.close();
  server.kill();
  rmSync(folder, { recursive: true });
}
