// Frames a second of the room in three dimensions, in a window of its own fed by the wire: 100 movers at full with
// colours, gobos and moving beams. Needs a build. Usage: node tools/measure-room.mjs [picture.png]
import { spawn } from "node:child_process";
import { dirname, join } from "node:path";
import { fileURLToPath } from "node:url";
import { launch } from "./browser.mjs";

const root = join(dirname(fileURLToPath(import.meta.url)), "..");
const port = 4637;
const node = "127.0.0.7";
const base = `http://127.0.0.1:${port}`;
const server = spawn(process.execPath, [join(root, "tools/serve.mjs"), "--port", String(port)], {
  stdio: ["ignore", "pipe", "inherit"],
  env: { ...process.env, BOLD_COMET_NODE_HOST: node },
});
await new Promise((resolve) => server.stdout.once("data", resolve));
const browser = await launch();
try {
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
  const page = await context.newPage();
  await page.goto(base);
  await page.locator("[data-ready=true]").waitFor();
  await page.getByRole("button", { name: "New show" }).click();
  await page.locator("#ask").waitFor();
  for (const line of [
    "patch 100 petrel-spot as 1",
    "all at full gobo at 3",
    "1 thru 50 cyan at 80",
    "51 thru 100 magenta at 70",
    "all pan wave sine low -60 high 60 bpm 10 across 360",
    "all tilt wave sine low 10 high 50 bpm 7 across 720",
    `output 1 thru 5 artnet to ${node} as 0`,
  ]) {
    await page.locator("#ask").fill(line);
    await page.keyboard.press("Enter");
    await page.waitForTimeout(500);
  }
  const id = /show\/([^/]+)/.exec(page.url())[1];
  const room = await context.newPage();
  await room.goto(`${base}/standin/room/${id}`);
  await room
    .getByTestId("visualiser-state")
    .getByText(/from the wire alone: \d+ universes/)
    .waitFor({ timeout: 30_000 });
  await room.waitForTimeout(15_000);
  const paces = [];
  for (let k = 0; k < 8; k++) {
    await room.waitForTimeout(1500);
    const { pace, level } = await room.getByTestId("room").evaluate((e) => ({ ...e.dataset }));
    const canvas = await room.locator("canvas").evaluate((c) => `${c.width} x ${c.height}`);
    paces.push(Number(pace));
    console.log(`${pace} frames a second, ${level} given up, ${canvas} points`);
  }
  paces.sort((a, b) => a - b);
  console.log(`median ${paces[4]} frames a second`);
  if (process.argv[2]) await room.screenshot({ path: process.argv[2] });
} finally {
  await browser.close();
  server.kill("SIGTERM");
}
