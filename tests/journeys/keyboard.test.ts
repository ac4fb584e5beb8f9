/** Catches a step of a show that the keyboard alone cannot do: patch, group, values, two cues with fades, go, reload, file out and in. */
import { bytesShown, bytesWhen, frames, passes, startApp, untilPlayingKept, untilSaved, word, type App } from "./app";

let app: App;
beforeAll(async () => void (app = await startApp()));
afterAll(() => app?.stop());

const ask = async (...lines: string[]) => {
  for (const line of lines) {
    await app.page.keyboard.type(line);
    await app.page.keyboard.press("Enter");
  }
  // Lines are typed as fast as the browser takes them: none may get lost.
  await app.page.waitForFunction(() => (document.getElementById("ask") as HTMLInputElement).value === "");
};

/** Whether a list stands paused in what storage holds. */
const isPaused = (text: string) => text.includes('"paused":true');

/** Tabs until the focus is on what is named. */
async function tabTo(name: RegExp) {
  for (let i = 0; i < 60; i++) {
    await app.page.keyboard.press("Tab");
    const label = await app.page.evaluate(
      () => `${document.activeElement?.getAttribute("aria-label") ?? ""} ${document.activeElement?.textContent ?? ""}`,
    );
    if (name.test(label)) return;
  }
  throw new Error(`no way by Tab to ${name}`);
}

/** Opens the show's menu and goes down to an item by its name. */
async function menuItem(name: RegExp) {
  await tabTo(/^More for Harbour test/);
  await app.page.keyboard.press("Enter");
  await app.page.getByRole("menuitem", { name }).waitFor();
  for (let i = 0; i < 12; i++) {
    const focused = await app.page.evaluate(() => document.activeElement?.textContent ?? "");
    if (name.test(focused)) return;
    await app.page.keyboard.press("ArrowDown");
    await frames(app.page, 4);
  }
  throw new Error(`no way down to ${name}`);
}

async function exportShow(): Promise<Buffer> {
  await menuItem(/^Save as a file$/);
  const download = app.page.waitForEvent("download");
  await app.page.keyboard.press("Enter");
  const chunks: Buffer[] = [];
  for await (const chunk of await (await download).createReadStream()) chunks.push(chunk as Buffer);
  return Buffer.concat(chunks);
}

test("a new show from patch to playback, kept over a reload and a file", async () => {
  const { page, base } = app;
  await page.goto(base);
  await page.locator("[data-ready=true]").waitFor();
  await tabTo(/^Name of a new show/);
  await page.keyboard.type("Harbour test");
  await page.keyboard.press("Enter");
  await page.getByLabel("Ask bar").waitFor();

  await ask("patch 6 petrel-spot as 1 at 1:1", "patch 6 kelp-wash as 11 at 1:201");
  await ask("1 thru 6", 'record group 1 "Spots"', "11 thru 16", 'record group 2 "Washes"');
  await ask("group 1 at 40 pan at -90 tilt at 45", "group 2 at 80 colour at #ff8000", "record cue 1 fade 0", "clear");
  await ask("group 1 at full pan at 90", "group 2 at 20", 'record cue 2 "Tide" fade 6', "clear");
  await tabTo(/^ Patch$/);
  await page.keyboard.press("ArrowRight");
  await page.keyboard.press("ArrowRight");
  await page.getByTestId("dmx").waitFor();
  // The tab has the focus still: Space goes all the same.
  await page.keyboard.press("Space");
  const first = await bytesWhen(page, (b) => word(b, 5) === Math.round(0.4 * 65535));
  expect(word(first, 1)).toBe(Math.floor(((270 - 90) / 540) * 65535 + 0.5));
  expect(first.slice(204, 211)).toEqual([204, 47, 255, 128, 0, 0, 128]);
  // A press within 150 ms would be the same one.
  await passes(page, 200);

  await page.keyboard.press("Space");
  await bytesWhen(page, (b) => word(b, 5) > 0.45 * 65535);
  await page.keyboard.press(".");
  await untilPlayingKept(page, isPaused);
  await frames(page, 20);
  const middle = await bytesShown(page);
  const progress = (word(middle, 5) / 65535 - 0.4) / 0.6;
  expect(progress).toBeGreaterThan(0.05);
  expect(progress).toBeLessThan(1);
  const pan = -90 + 180 * progress;
  expect(Math.abs(word(middle, 1) - ((pan + 270) / 540) * 65535)).toBeLessThan(2);
  expect(Math.abs(middle[204]! - 255 * (0.8 - 0.6 * progress))).toBeLessThan(1);

  await untilSaved(page);
  await page.reload();
  await page.getByLabel("Ask bar").waitFor();
  await page.getByRole("tab", { name: "Universes" }).click();
  await bytesWhen(page, (b) => b.slice(0, 300).every((byte, i) => byte === middle[i]));

  await page.keyboard.press("Space");
  const last = await bytesWhen(
    page,
    (b) => word(b, 5) === 65535 && word(b, 1) === Math.floor(((270 + 90) / 540) * 65535 + 0.5),
  );
  expect(last[204]).toBe(51);

  await untilSaved(page);
  await page.goto(base);
  await page.locator("[data-ready=true]").waitFor();
  const before = await exportShow();
  await menuItem(/^Delete/);
  await page.keyboard.press("Enter");
  await page.getByText("is deleted").waitFor();
  const chooser = page.waitForEvent("filechooser");
  await tabTo(/^ Import a show file/);
  await page.keyboard.press("Enter");
  await (await chooser).setFiles({ name: "harbour-test.comet.zip", mimeType: "application/zip", buffer: before });
  await page.getByText('"Harbour test" is in').waitFor();
  const after = await exportShow();
  expect(after.equals(before)).toBe(true);
  expect(app.errors).toEqual([]);
});
