/** Catches an output taken unasked, a bridge that stays dead, a damaged show without a way out, and anything sent unasked. */
import { createSocket } from "node:dgram";
import { readFileSync } from "node:fs";
import { createServer } from "node:http";
import { join } from "node:path";
import type { Page } from "playwright-core";
import { readArtNet } from "@/core/dmx/artnet";
import { newDesk, runLine } from "@/core/desk/desk";
import { writeShowFile } from "@/core/exchange/showFile";
import { becomes, frames, openWindow, startApp, untilSaved, type App } from "./app";

const HOST = "127.0.0.61";
let app: App;
/** The slots last received, by port-address. */
const arrived = new Map<number, Uint8Array>();
let packets = 0;
const ear = createSocket("udp4");
beforeAll(async () => {
  ear.on("message", (bytes) => {
    const packet = readArtNet(bytes);
    if (packet?.kind !== "dmx") return;
    packets += 1;
    arrived.set(packet.number, Uint8Array.from(packet.data));
  });
  await new Promise<void>((resolve) => ear.bind(6454, HOST, () => resolve()));
  app = await startApp();
});
afterAll(async () => {
  ear.close();
  await app?.stop();
});

const ask = async (page: Page, ...lines: string[]) => {
  for (const line of lines) {
    await page.locator("#ask").fill(line);
    await page.keyboard.press("Enter");
  }
};
const slot = (number: number, at: number) => async () => arrived.get(number)?.[at - 1] ?? -1;
const running = () =>
  JSON.parse(readFileSync(join(__dirname, `../../build/running-${new URL(app.base).port}.json`), "utf8")) as {
    processes: { name: string; pid: number }[];
  };
const newShow = async (page: Page, name: string) => {
  await page.goto(app.base);
  await page.locator("[data-ready=true]").waitFor();
  await page.getByLabel("Name of a new show").fill(name);
  await page.getByRole("button", { name: "New show" }).click();
  await page.locator("#ask").waitFor();
};

test("two shows in two tabs: the second asks, the first is told what it lost, takes it back, and has it again when it is free", async () => {
  const one = app.page;
  await newShow(one, "First");
  await ask(one, "patch 3 dimmer", `output 1 artnet to ${HOST} as 40`, "1 at full");
  await becomes(slot(40, 1), (v) => v === 255);
  const two = await openWindow(app, app.base);
  await newShow(two, "Second");
  await ask(two, "patch 3 dimmer", `output 1 artnet to ${HOST} as 41`, "2 at full");
  await two.getByTestId("truth-held").getByText('The output is held by "First"').waitFor();
  await ask(one, "1 at 20");
  await becomes(slot(40, 1), (v) => v === 51);
  expect(arrived.has(41)).toBe(false);

  await two.getByRole("button", { name: "Take the output" }).click();
  await becomes(slot(41, 2), (v) => v === 255);
  await one.getByTestId("truth-lost").getByText('The output was taken by "Second"').waitFor();
  await one.getByTestId("truth-lost").getByRole("button", { name: "Take it back" }).click();
  await one.getByTestId("truth-lost").waitFor({ state: "detached" });
  await ask(one, "1 at 60");
  await becomes(slot(40, 1), (v) => v === 153);
  await two.getByTestId("truth-lost").waitFor();
  // Free again, it goes to the one who waits, without a hand.
  await one.goto(app.base);
  await two.getByTestId("truth-lost").waitFor({ state: "detached" });
  await ask(two, "2 at 40");
  await becomes(slot(41, 2), (v) => v === 102);
  await two.close();
});

test("the bridge is killed in mid-show: it is said, it is back by itself, and the output resumes", async () => {
  const { page } = app;
  await page.getByRole("button", { name: "Open First" }).click();
  await page.locator("#ask").waitFor();
  await ask(page, "1 at 30");
  await becomes(slot(40, 1), (v) => v === 77);
  const { pid } = running().processes.find((p) => p.name === "bridge")!;
  process.kill(pid, "SIGKILL");
  await ask(page, "1 at 90");
  await becomes(slot(40, 1), (v) => v === 230);
  expect(running().processes.find((p) => p.name === "bridge")!.pid).not.toBe(pid);
  await becomes(
    () => page.getByTestId("wire-state").textContent(),
    (text) => text === "1 universe",
  );
});

test("the app's process is killed in mid-show: the stage goes on, places change, it is said, and the app is back by itself", async () => {
  const { page } = app;
  const answers = () =>
    fetch(`${app.base}/api/hello`).then(
      (answer) => answer.ok,
      () => false,
    );
  const { pid } = running().processes.find((p) => p.name === "app")!;
  process.kill(pid, "SIGSTOP");
  await page.getByTestId("truth-app").waitFor();
  for (const name of ["Cues", "Run", "Check", "Build"]) {
    await page.getByRole("navigation").getByText(name, { exact: true }).click();
    await page.waitForURL(new RegExp(`/${name.toLowerCase()}$`));
  }
  await page.locator("#ask").waitFor();
  await ask(page, "1 at 35");
  await becomes(slot(40, 1), (v) => v === 89);
  // Leaving would lose the window: it is refused in words.
  await page.getByTestId("show-menu").click();
  await page.getByRole("menuitem", { name: "All shows" }).click();
  await page
    .getByTestId("notices")
    .getByText(/does not answer, so this page stays/)
    .waitFor();
  await ask(page, "1 at 55");
  await becomes(slot(40, 1), (v) => v === 140);
  process.kill(pid, "SIGKILL");
  await becomes(answers, (there) => there);
  expect(running().processes.find((p) => p.name === "app")!.pid).not.toBe(pid);
  await page.getByTestId("truth-app").waitFor({ state: "detached" });
  await ask(page, "1 at 90");
  await becomes(slot(40, 1), (v) => v === 230);
});

test("a show from a file sends nothing until a person agrees; then it does, and is not asked again", async () => {
  const { page } = app;
  const desk = newDesk();
  for (const line of ["patch 2 dimmer at 1:1", `output 1 artnet to ${HOST} as 50`, 'set show name "Brought in"'])
    expect(runLine(desk, line)).toBeUndefined();
  await page.goto(app.base);
  await page.locator("[data-ready=true]").waitFor();
  const chooser = page.waitForEvent("filechooser");
  await page.getByRole("button", { name: "Import a show file" }).click();
  await (
    await chooser
  ).setFiles({
    name: "in.comet.zip",
    mimeType: "application/zip",
    buffer: Buffer.from(writeShowFile(desk.world.show)),
  });
  await page.getByText('"Brought in" is in').waitFor();
  await page.getByRole("button", { name: "Open Brought in" }).click();
  await page.getByTestId("truth-consent").waitFor();
  await ask(page, "1 at full");
  // It is on stage, and has had the time to go out.
  await ask(page, "why 1 dimmer");
  await page.getByTestId("why").getByText("DMX 1:1 = 255").waitFor();
  await frames(page, 30);
  expect(arrived.has(50)).toBe(false);
  await page.getByRole("button", { name: "See and decide" }).click();
  const sheet = page.getByRole("dialog");
  await sheet.getByText(HOST).waitFor();
  await sheet.getByRole("button", { name: "Send to 1 place" }).click();
  await becomes(slot(50, 1), (v) => v === 255);
  await untilSaved(page);
  await page.reload();
  await page.locator("#ask").waitFor();
  await ask(page, "1 at 40");
  await becomes(slot(50, 1), (v) => v === 102);
  expect(await page.getByTestId("truths").count()).toBe(0);
  // Another place that nobody has typed waits; typing one is agreeing to it.
  await ask(page, "output 2 sacn to multicast");
  await frames(page, 20);
  expect(await page.getByTestId("truths").count()).toBe(0);
});

test("a damaged show opens at an earlier moment, to look at first, and goes on as a show of its own", async () => {
  const { page } = app;
  await newShow(page, "Hurt");
  const id = new URL(page.url()).pathname.split("/")[2]!;
  await ask(page, "patch 5 dimmer as 1", "1 thru 5 at 50", "record cue 1");
  await page.getByTestId("show-menu").click();
  await page.getByRole("menuitem", { name: "Earlier moments" }).click();
  await page.getByRole("button", { name: "Keep this moment" }).click();
  await page.getByTestId("moment").first().waitFor();
  await page.keyboard.press("Escape");
  await untilSaved(page);
  await page.goto(app.base);
  await page.locator("[data-ready=true]").waitFor();
  await page.evaluate(
    (show) =>
      new Promise<void>((resolve, reject) => {
        const open = indexedDB.open("bold-comet");
        open.onerror = reject;
        open.onsuccess = () => {
          const store = open.result.transaction("snapshots", "readwrite").objectStore("snapshots");
          for (const key of [show, `${show} before`]) store.put({ text: "{}", check: 1, seq: 3 }, key);
          store.transaction.oncomplete = () => (open.result.close(), resolve());
        };
      }),
    id,
  );
  await page.goto(`${app.base}/show/${id}/build`);
  await page.getByText("this show's storage is damaged").waitFor();
  await page.getByTestId("version").first().getByRole("link", { name: "Look at it" }).click();
  await page.getByTestId("truth-version").waitFor();
  await ask(page, "1 at 70", "record cue 2");
  await page
    .getByTestId("notices")
    .getByText(/earlier version, to look at/)
    .waitFor();
  await page.getByRole("navigation").getByText("Cues", { exact: true }).click();
  await page.locator("tr[data-testid^=cue-]").first().waitFor();
  expect(await page.locator("tr[data-testid^=cue-]").count()).toBe(1);
  await page.getByTestId("truth-version").getByRole("button", { name: "Keep as a show of its own" }).click();
  await page.waitForURL((url) => !url.pathname.includes(id) && !url.search);
  await page.getByTestId("truth-version").waitFor({ state: "detached" });
  await ask(page, "1 at 70", "record cue 2");
  await page.getByRole("navigation").getByText("Cues", { exact: true }).click();
  await becomes(
    () => page.locator("tr[data-testid^=cue-]").count(),
    (n) => n === 2,
  );
  await untilSaved(page);
  // The picker offers the same, and says what is wrong with it.
  await page.goto(app.base);
  await page.locator("[data-ready=true]").waitFor();
  await page.getByRole("button", { name: "More for Hurt", exact: true }).click();
  await page.getByRole("menuitem", { name: "Earlier versions" }).click();
  const dialog = page.getByRole("dialog", { name: "Earlier versions of Hurt" });
  await dialog
    .getByRole("alert")
    .getByText(/damaged/)
    .waitFor();
  await dialog.getByRole("button", { name: "Keep as a show" }).first().click();
  await dialog.waitFor({ state: "detached" });
  await becomes(
    () => page.getByRole("button", { name: /^Open Hurt \(earlier\)/ }).count(),
    (n) => n === 2,
  );
});

test("what is drawn fails and says so while the show runs on; leaving with something not written asks", async () => {
  const { page } = app;
  await page.goto(app.base);
  await page.getByRole("button", { name: "Open First" }).click();
  await page.locator("#ask").waitFor();
  await ask(page, "clear", "1 thru 3 at full", "record list 7 cue 1 fade 40", "clear", "go list 7");
  await becomes(slot(40, 3), (v) => v > 3 && v < 200);
  await page.evaluate(() => {
    const whole = globalThis as unknown as { kept: typeof Number.prototype.toLocaleString };
    whole.kept = Number.prototype.toLocaleString;
    Number.prototype.toLocaleString = () => {
      throw new Error("broken on purpose");
    };
  });
  await page.keyboard.press("Alt+5");
  await page
    .getByText(/could not be shown: broken on purpose. The show runs on/)
    .first()
    .waitFor();
  const before = arrived.get(40)![2]!;
  await becomes(slot(40, 3), (v) => v > before + 5);
  await page.evaluate(
    () =>
      void (Number.prototype.toLocaleString = (
        globalThis as unknown as { kept: typeof Number.prototype.toLocaleString }
      ).kept),
  );
  while ((await page.getByRole("button", { name: "Show it again" }).count()) > 0)
    await page.getByRole("button", { name: "Show it again" }).first().click();
  await ask(page, "release list 7");
  await untilSaved(page);
  app.errors.length = 0;

  await page.evaluate(() => {
    IDBObjectStore.prototype.put = () => {
      throw new DOMException("full", "QuotaExceededError");
    };
  });
  await ask(page, "1 at 15");
  await page.getByTestId("saved").getByText("not saved, trying again").waitFor();
  await page.getByTestId("truth-unsaved").getByRole("button", { name: "Save as a file" }).waitFor();
  const asked = page.waitForEvent("dialog");
  await page.close({ runBeforeUnload: true });
  const dialog = await asked;
  expect(dialog.type()).toBe("beforeunload");
  await dialog.dismiss();
  await ask(page, "1 at 16");
  await becomes(slot(40, 1), (v) => v === 41);
});

test("no other page can put the app into a frame, and its policy lets in no script but its own", async () => {
  const { page } = app;
  const trap = createServer((_, answer) =>
    answer
      .setHeader("content-type", "text/html")
      .end(`<iframe src="${app.base}/show/demo/build" width="800" height="600"></iframe>`),
  );
  await new Promise<void>((resolve) => trap.listen(0, "127.0.0.1", () => resolve()));
  const other = await openWindow(app, `http://127.0.0.1:${(trap.address() as { port: number }).port}`);
  // The browser puts a page of its own into a frame that was denied.
  await becomes(
    async () => other.frames().at(-1)!.url(),
    (url) => url.startsWith("chrome-error:"),
  );
  expect(await other.frames().at(-1)!.locator("#ask").count()).toBe(0);
  await other.close();
  trap.close();
  const { headers } = await fetch(`${app.base}/show/demo/build`);
  expect(headers.get("content-security-policy")).toMatch(
    /script-src 'self' 'nonce-[0-9a-f]{32}';.*frame-ancestors 'none'/,
  );
  expect([
    headers.get("x-frame-options"),
    headers.get("x-content-type-options"),
    headers.get("referrer-policy"),
  ]).toEqual(["DENY", "nosniff", "no-referrer"]);
  // Later, outside of the debugger's own leave to do so.
  await page.evaluate(
    () =>
      void setTimeout(() => {
        const script = document.createElement("script");
        script.textContent = "globalThis.injected = true";
        document.body.append(script);
        try {
          new Function("globalThis.made = true")();
        } catch {
          // As it should be.
        }
      }, 0),
  );
  await frames(page, 20);
  expect(
    await page.evaluate(() => Object.keys(globalThis).filter((key) => key === "injected" || key === "made")),
  ).toEqual([]);
  expect(packets).toBeGreaterThan(10);
  expect(app.errors).toEqual([]);
});
