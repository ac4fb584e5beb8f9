import { spawn } from "node:child_process";
import { dirname, join } from "node:path";
import { fileURLToPath } from "node:url";
import { launch } from "./browser.mjs";
const root = join(dirname(fileURLToPath(import.meta.url)), "..");
const port = 4655; const base = `http://127.0.0.1:${port}`;
const server = spawn(process.execPath, [join(root, "tools/serve.mjs"), "--port", String(port)], { stdio: ["ignore", "pipe", "inherit"] });
await new Promise((r) => server.stdout.once("data", r));
const browser = await launch();
try {
  const [w, h] = (process.env.SIZE ?? "1280x800").split("x").map(Number);
  const context = await browser.newContext({ viewport: { width: w, height: h }, colorScheme: process.env.SCHEME ?? "dark", hasTouch: process.env.TOUCH === "1" });
  const page = await context.newPage();
  page.setDefaultTimeout(15000);
  page.on("pageerror", (e) => console.error("page:", e.message));
  const ask = async (...lines) => { for (const line of lines) { await page.locator("#ask").fill(line); await page.keyboard.press("Enter"); } };
  const place = async (name) => { await page.getByRole("navigation").getByText(name, { exact: true }).click(); await page.waitForURL(`**/${name.toLowerCase()}`); await page.waitForTimeout(900); };
  const shot = (name) => page.screenshot({ path: `/tmp/shots/${name}.png` });
  await page.goto(`${base}/show/demo/build`);
  await page.getByTestId("stage").waitFor();
  await page.waitForTimeout(1500);
  const { default: run } = await import(process.argv[2]);
  await run({ page, ask, place, shot, base, context });
} finally { await browser.close(); server.kill(); }
