/** A page of the app in a browser with nothing kept in it, for journeys. */
import { mkdirSync } from "node:fs";
import { join } from "node:path";
import { chromium, type BrowserContext, type Locator, type Page } from "playwright-core";
import { myPlace } from "./setup/places";

export interface App {
  base: string;
  context: BrowserContext;
  page: Page;
  /** Loopback address of the stand-in node. */
  node: string;
  /** What the page complained of. */
  errors: string[];
  stop(): Promise<void>;
}

/** Every limit of time in a journey: only there to end what hangs. */
const PATIENCE_MS = 100_000;
/** How often a condition is looked at. */
const LOOK_MS = 40;

const pause = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));

/** Where no picture is looked at nobody paints the stage: two cores have other work. */
function withoutPainter(): void {
  const { Worker: Real } = globalThis;
  globalThis.Worker = new Proxy(Real, {
    construct: (_, [url, options]: [string, WorkerOptions?]) =>
      options?.name === "painter"
        ? Object.assign(new EventTarget(), { postMessage: () => undefined, terminate: () => undefined })
        : new Real(url, options),
  });
}

/** A person who has closed the paths for beginners. */
function withoutPaths(): void {
  for (const path of ["first-steps", "worth-trying"])
    if (localStorage.getItem(`bold-comet-${path}`) === null)
      localStorage.setItem(`bold-comet-${path}`, JSON.stringify("closed"));
}

/**
 * Opens a page with an empty profile in this worker's browser.
 * @param screen painted: whether the picture of the stage is looked at; paths: whether the paths for beginners are open; kept: whether the browser keeps the app.
 */
export async function startApp({ hasTouch = false, painted = false, paths = false, kept = false } = {}): Promise<App> {
  const { base, browser: address, node } = myPlace();
  const browser = await chromium.connect(address);
  const context = await browser.newContext({
    viewport: { width: 1280, height: 800 },
    acceptDownloads: true,
    // As in a dark house; daylight is asked for where it is looked at.
    colorScheme: "dark",
    // The stage is painted ten times a second: there is more than one app on two cores.
    reducedMotion: "reduce",
    hasTouch,
    // Keeping the app in the browser copies all of it: only where that is what is tested.
    serviceWorkers: kept ? "allow" : "block",
  });
  context.setDefaultTimeout(PATIENCE_MS);
  if (!painted) await context.addInitScript(withoutPainter);
  if (!paths) await context.addInitScript(withoutPaths);
  const said: string[] = [];
  context.on("console", (message) => void said.push(`${message.type()}: ${message.text()}`));
  const page = await context.newPage();
  const errors: string[] = [];
  page.on("pageerror", (error) => errors.push(error.message));
  (globalThis as { showFailure?: unknown }).showFailure = (test: string) => showFailure(test, context, said, errors);
  return {
    base,
    context,
    page,
    node,
    errors,
    async stop() {
      await context.close();
      await browser.close();
    },
  };
}

/** The last picture of each page of a test that failed, and what its pages said. */
async function showFailure(test: string, context: BrowserContext, said: string[], errors: string[]): Promise<void> {
  const folder = join(__dirname, "../../build/journeys");
  mkdirSync(folder, { recursive: true });
  const told = [`The journey failed: ${test}`];
  for (const [i, page] of context.pages().entries()) {
    const picture = join(folder, `${test.replace(/\W+/g, "-").slice(0, 80)}-${i + 1}.png`);
    const seen = await page.screenshot({ path: picture, timeout: 10_000 }).then(
      () => picture,
      (error: Error) => `no picture: ${error.message.split("\n")[0]}`,
    );
    const text = await Promise.race([
      page.evaluate(() =>
        ["truths", "notices", "ask-last", "saved", "wire-state"]
          .map((id) => [id, document.querySelector<HTMLElement>(`[data-testid=${id}]`)?.innerText])
          .concat([...document.querySelectorAll<HTMLElement>("[role=dialog]")].map((d) => ["dialog", d.innerText]))
          .concat([["focus", document.activeElement?.outerHTML.slice(0, 200)]])
          .filter(([, words]) => words)
          .map(([what, words]) => `    ${what}: ${words!.replace(/\s+/g, " ").slice(0, 400)}`)
          .join("\n"),
      ),
      pause(5000).then(() => "    the page does not answer"),
    ]).catch((error: Error) => `    ${error.message}`);
    told.push(`  ${page.url()}\n    picture: ${seen}\n${text}`);
  }
  told.push(...errors.map((error) => `  error in the page: ${error}`), ...said.slice(-15).map((line) => `  ${line}`));
  process.stderr.write(`${told.join("\n")}\n`);
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
export async function bytesWhen(page: Page, check: (bytes: number[]) => boolean): Promise<number[]> {
  const end = Date.now() + PATIENCE_MS;
  for (let ms = LOOK_MS; ; ms = Math.min(ms + 15, 120)) {
    const bytes = await bytesShown(page);
    if (check(bytes)) return bytes;
    if (Date.now() > end) throw new Error(`these bytes did not come: ${bytes.slice(0, 48).join(" ")}`);
    await pause(ms);
  }
}

export const word = (bytes: number[], slot: number): number => bytes[slot - 1]! * 256 + bytes[slot]!;

/** Opens an address in a window of its own: a tab behind another is drawn once a second. */
export async function openWindow({ context, page }: Pick<App, "context" | "page">, address: string): Promise<Page> {
  const coming = context.waitForEvent("page");
  await page.evaluate((to) => void window.open(to, "_blank", "popup,noopener,width=1280,height=800"), address);
  return coming;
}

/** Waits until everything done so far is on the disk. */
export async function untilSaved(page: Page): Promise<void> {
  // What was just done is counted as unsaved by the frame after it.
  await frames(page, 3);
  await page.waitForFunction(() => document.querySelector("[data-testid=saved]")?.textContent === "saved");
}

/** Waits until the page has drawn so many frames. */
export const frames = (page: Page, count: number): Promise<void> =>
  page.evaluate(
    (n) =>
      new Promise<void>((resolve) => {
        const next = () => (n-- > 0 ? requestAnimationFrame(next) : resolve());
        next();
      }),
    count,
  );

/** Waits until nothing on the page is on its way: menus and dialogs have opened or closed. */
export const untilStill = (page: Page): Promise<unknown> =>
  page.waitForFunction(() =>
    document
      .getAnimations()
      .every((a) => a.playState !== "running" || a.effect?.getComputedTiming().endTime === Infinity),
  );

/** Waits until what is read passes a check; returns it. */
export async function becomes<T>(read: () => Promise<T>, check: (value: T) => boolean): Promise<T> {
  for (const end = Date.now() + PATIENCE_MS; ;) {
    const last = await read();
    if (check(last)) return last;
    if (Date.now() > end) throw new Error(`it stayed ${String(last)}`);
    await pause(LOOK_MS);
  }
}

/** Lets so much of the page's own time pass, where the app itself measures it: a second press, a finger that rests. */
export const passes = (page: Page, ms: number): Promise<void> =>
  page.evaluate((wait) => new Promise((resolve) => setTimeout(resolve, wait)), ms);

/** Waits until an element stays where it is and says the same. */
export const untilResting = (locator: Locator): Promise<void> =>
  locator.evaluate(
    (element) =>
      new Promise<void>((resolve) => {
        const RESTING = 12;
        let [last, calm] = ["", 0];
        const look = () => {
          const { x, y, width, height } = element.getBoundingClientRect();
          const now = [x, y, width, height, element.textContent].join();
          calm = now === last ? calm + 1 : 0;
          last = now;
          if (calm < RESTING) requestAnimationFrame(look);
          else resolve();
        };
        look();
      }),
  );

/** Waits until what was done before the show was opened can be undone, or done again. */
export async function untilRecalled(page: Page, line: "undo" | "redo"): Promise<void> {
  await page.locator("#ask").fill(line);
  await page.getByText(/^Enter: /).waitFor();
  await page.locator("#ask").fill("");
}

/** Waits until storage holds how the lists of the open show stand. @param check of the text that is kept. */
export async function untilPlayingKept(page: Page, check: (text: string) => boolean): Promise<void> {
  await becomes(
    () =>
      page.evaluate(
        (id) =>
          new Promise<string>((resolve, reject) => {
            const open = indexedDB.open("bold-comet");
            open.onerror = () => reject(open.error!);
            open.onsuccess = () => {
              const got = open.result.transaction("playing", "readonly").objectStore("playing").get(id);
              got.onsuccess = () => (open.result.close(), resolve((got.result as { text: string })?.text ?? ""));
            };
          }),
        new URL(page.url()).pathname.split("/")[2]!,
      ),
    check,
  );
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
