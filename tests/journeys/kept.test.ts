/** Catches a show that cannot be opened, edited or kept while the app's server is not there, and one that does not come back to it. */
import { appendFileSync, existsSync, readFileSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { becomes, startApp, type App } from "./app";
import { start, stateFile, stopAll } from "./setup/ownApp";
import { freePort } from "./setup/places";

let app: App;
beforeAll(async () => void (app = await startApp({ kept: true })));
afterAll(async () => {
  await app?.stop();
  stopAll();
});

test("without its server the app opens, takes edits and keeps them; with it again, it is back by itself", async () => {
  const { page } = app;
  const port = await freePort();
  const base = `http://127.0.0.1:${port}`;
  const server = await start(port);
  await page.goto(base);
  await page.locator("[data-ready=true]").waitFor();
  await page.waitForFunction(() => navigator.serviceWorker.controller !== null);
  await page.getByRole("button", { name: "New show" }).click();
  const ask = async (line: string) => {
    await page.locator("#ask").fill(line);
    await page.keyboard.press("Enter");
    await page.getByTestId("ask-last").getByText(line, { exact: true }).waitFor();
  };
  await ask("patch 3 dimmer as 1");
  await page.getByText("saved").first().waitFor();

  server.child.kill("SIGTERM");
  await becomes(
    async () => existsSync(stateFile(port)),
    (there) => !there,
  );
  await page.reload();
  expect(await page.evaluate(() => crossOriginIsolated)).toBe(true);
  await page.getByTestId("truth-app").waitFor();
  await ask("1 thru 3 at 70");
  await ask('record cue 1 "Without it"');
  await page.getByText("saved").first().waitFor();
  // Another show, never looked at before, by the list of shows.
  await page.goto(base);
  await page.getByRole("button", { name: /^Open The Salt Lantern/ }).click();
  await page.waitForURL("**/show/demo/build");
  await page.getByText("Mast spots").first().waitFor();
  await page.goBack();
  await page.getByRole("button", { name: /^Open New show/ }).click();
  await page.getByRole("navigation").getByText("Cues", { exact: true }).click();
  await page.getByText("Without it").first().waitFor();

  expect((await start(port)).code).toBeNull();
  await page.getByTestId("truth-app").waitFor({ state: "detached" });
  expect(app.errors).toEqual([]);
});

test("a new version is said, and not taken while a window is open", async () => {
  const { page } = app;
  const port = await freePort();
  const base = `http://127.0.0.1:${port}`;
  expect((await start(port)).code).toBeNull();
  await page.goto(base);
  await page.waitForFunction(() => navigator.serviceWorker.controller !== null);
  const worker = join(__dirname, "../../public/worker.js");
  const old = readFileSync(worker);
  try {
    appendFileSync(worker, "\n// newer");
    await page.goto(`${base}/show/demo/build`);
    await page.getByText(/^A new version is here/).waitFor();
    await page.goto(base);
    await page.getByText(/^A new version is here/).waitFor();
    const waits = () =>
      page.evaluate(async () => (await navigator.serviceWorker.getRegistration())?.waiting?.state ?? "none");
    expect(await waits()).toBe("installed");
  } finally {
    writeFileSync(worker, old);
  }
  expect(app.errors).toEqual([]);
});
