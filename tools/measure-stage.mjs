// Measures the live plan in headless chromium: lamps with beams, every one changing.
// Usage: node tools/measure-stage.mjs [lamps ...]
import { spawn } from "node:child_process";
import { dirname, join } from "node:path";
import { fileURLToPath } from "node:url";
import { launch } from "./browser.mjs";

const root = join(dirname(fileURLToPath(import.meta.url)), "..");
const port = 4632;
const base = `http://127.0.0.1:${port}`;
const server = spawn(process.execPath, [join(root, "tools/serve.mjs"), "--port", String(port)], {
  stdio: ["ignore", "pipe", "inherit"],
});
await new Promise((resolve) => server.stdout.once("data", resolve));
const browser = await launch();
try {
  for (const lamps of process.argv.length > 2 ? process.argv.slice(2).map(Number) : [500, 2000]) {
    const page = await (await browser.newContext({ viewport: { width: 1280, height: 800 } })).newPage();
    await page.goto(base);
    await page.locator("[data-ready=true]").waitFor();
    await page.getByRole("button", { name: "New show" }).click();
    await page.locator("#ask").waitFor();
    const ask = async (...lines) => {
      for (const line of lines) {
        await page.locator("#ask").fill(line);
        await page.keyboard.press("Enter");
        await page.waitForTimeout(400);
      }
    };
    await ask(
      `patch ${lamps} kelp-wash as 1`,
      "all at 20 pan at -200 to 200 tilt at 50 colour at #ff4000",
      "record cue 1 fade 0",
      "all at full pan at 200 to -200 tilt at 30 colour at #0040ff",
      "record cue 2 fade 60",
      "clear",
      "go list 1",
    );
    await page.waitForTimeout(500);
    await page.getByRole("navigation").getByText("Run", { exact: true }).click();
    await page.getByTestId("stage").waitFor();
    await ask("go list 1");
    await page.waitForTimeout(4000);
    const paces = [];
    const hands = [];
    for (let i = 0; i < 6; i++) {
      await page.waitForTimeout(1050);
      paces.push(await page.getByTestId("stage").getAttribute("data-pace"));
      const from = Date.now();
      await page.keyboard.press("Alt+4");
      await page.evaluate(() => new Promise((resolve) => setTimeout(resolve, 0)));
      hands.push(Date.now() - from);
    }
    const frames = paces.map((p) => Number(p?.split(" ")[0])).sort((a, b) => a - b);
    const ms = paces.map((p) => Number(p?.split(" ")[1])).sort((a, b) => a - b);
    console.log(
      `${lamps} lamps with beams: ${frames[3]} frames a second, ${ms[3]} ms each; a key answered in ${hands.sort((a, b) => a - b)[3]} ms`,
    );
    await page.context().close();
  }
} finally {
  await browser.close();
  server.kill("SIGTERM");
}
