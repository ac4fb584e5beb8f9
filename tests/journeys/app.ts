/** The built app and a browser, for journeys. */
import { spawn, type ChildProcess } from "node:child_process";
import { mkdtempSync, rmSync } from "node:fs";
import { createServer } from "node:net";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { chromium, type BrowserContext, type Page } from "playwright-core";

const root = join(__dirname, "../..");
const FLAGS = [
  "--no-sandbox",
  "--disable-quic",
  "--no-first-run",
  "--disable-background-networking",
  "--disable-component-update",
  "--disable-sync",
];

export interface App {
  base: string;
  context: BrowserContext;
  page: Page;
  /** What the page complained of. */
  errors: string[];
  stop(): Promise<void>;
}

export const freePort = (): Promise<number> =>
  new Promise((resolve) => {
    const probe = createServer().listen(0, "127.0.0.1", () => {
      const { port } = probe.address() as { port: number };
      probe.close(() => resolve(port));
    });
  });

/** Starts the app on a free port and a browser with an empty profile. */
export async function startApp(
  surroundings: Record<string, string> = {},
  screen: { hasTouch?: boolean } = {},
): Promise<App> {
  const port = await freePort();
  const server: ChildProcess = spawn(process.execPath, [join(root, "tools/serve.mjs"), "--port", String(port)], {
    stdio: ["ignore", "pipe", "inherit"],
    env: {
      ...process.env,
      BOLD_COMET_OSC_PORT: String(53_100 + Number(process.env.JEST_WORKER_ID ?? 1)),
      BOLD_COMET_NODE_HOST: `127.0.0.${20 + Number(process.env.JEST_WORKER_ID ?? 1)}`,
      ...surroundings,
    },
  });
  await new Promise<void>((resolve, reject) => {
    server.stdout!.once("data", () => resolve());
    server.once("exit", () => reject(new Error("the app did not start; build it first")));
  });
  const profile = mkdtempSync(join(tmpdir(), "bold-comet-profile-"));
  const context = await chromium.launchPersistentContext(profile, {
    executablePath: process.env.CHROMIUM ?? "/usr/bin/chromium",
    args: FLAGS,
    viewport: { width: 1280, height: 800 },
    acceptDownloads: true,
    // The stage is painted ten times a second: there is more than one app on two cores.
    reducedMotion: "reduce",
    ...screen,
  });
  const page = context.pages()[0] ?? (await context.newPage());
  const errors: string[] = [];
  page.on("pageerror", (error) => errors.push(error.message));
  return {
    base: `http://127.0.0.1:${port}`,
    context,
    page,
    errors,
    async stop() {
      await context.close();
      server.kill("SIGTERM");
      await new Promise((resolve) => server.once("exit", resolve));
      rmSync(profile, { recursive: true, force: true });
    },
  };
}

/** The bytes the DMX view shows, 512 of the universe it stands on. */
export async function bytesShown(page: Page): Promise<number[]> {
  // As one text, and without a locator's waiting: asked for over and over, it is to take little from the app.
  const read = () =>
    page.evaluate(() => {
      const cells = document.querySelector("[data-testid=dmx]")?.children;
      return cells && [...cells].map((cell) => cell.lastElementChild!.textContent).join();
    });
  let text = await read();
  while (!text) {
    await page.getByTestId("dmx").waitFor();
    text = await read();
  }
  return text.split(",").map(Number);
}

/** Waits until the bytes shown pass a check; returns them. */
export async function bytesWhen(page: Page, check: (bytes: number[]) => boolean, ms = 5000): Promise<number[]> {
  const end = Date.now() + ms;
  for (let pause = 25; ; pause = Math.min(pause + 15, 120)) {
    const bytes = await bytesShown(page);
    if (check(bytes)) return bytes;
    if (Date.now() > end) throw new Error(`these bytes did not come: ${bytes.slice(0, 48).join(" ")}`);
    await page.waitForTimeout(pause);
  }
}

export const word = (bytes: number[], slot: number): number => bytes[slot - 1]! * 256 + bytes[slot]!;

/** Waits until everything done so far is on the disk. */
export async function untilSaved(page: Page): Promise<void> {
  await page.waitForTimeout(80);
  await page.waitForFunction(() => document.querySelector("[data-testid=saved]")?.textContent === "saved");
}

/** Waits until what is read passes a check. */
export async function becomes<T>(read: () => Promise<T>, check: (value: T) => boolean, ms = 8000): Promise<void> {
  let last: T | undefined;
  for (const end = Date.now() + ms; Date.now() < end;) {
    last = await read();
    if (check(last)) return;
    await new Promise((resolve) => setTimeout(resolve, 50));
  }
  throw new Error(`it stayed ${String(last)}`);
}

/** What hands do in every journey: type lines, go to a place, look at a universe. @param now the app, once it has started. */
export const handsOn = (now: () => App) => {
  const place = (name: string) => now().page.getByRole("navigation").getByText(name, { exact: true }).click();
  return {
    place,
    async ask(...lines: string[]) {
      const { page } = now();
      for (const line of lines) {
        await page.locator("#ask").fill(line);
        await page.keyboard.press("Enter");
        await page.getByTestId("ask-last").waitFor();
      }
    },
    async universe(number: number) {
      await place("Rig");
      await now().page.getByRole("tab", { name: "Universes" }).click();
      await now().page.getByTestId(`universe-${number}`).click();
    },
  };
};
