/** Catches bad input that is not told where it is made, or changes something, and deeds that cannot be undone. */
import { startApp, untilSaved, type App } from "./app";

let app: App;
beforeAll(async () => void (app = await startApp()));
afterAll(() => app?.stop());

const ask = async (line: string) => {
  await app.page.locator("#ask").fill(line);
  await app.page.keyboard.press("Enter");
};
const menu = async (item: string) => {
  await app.page.getByTestId("show-menu").click();
  await app.page.getByRole("menuitem", { name: item }).click();
};

test("files that are no shows are refused with the reason", async () => {
  const { page, base } = app;
  await page.goto(base);
  await page.locator("[data-ready=true]").waitFor();
  for (const [name, content, message] of [
    ["notes.zip", "just text", /notes\.zip: this is not a Bold Comet show file/],
    [
      "cut.comet.zip",
      "PK\u0003\u0004 and then nothing",
      /cut\.comet\.zip: this (show|zip) file (is cut off or damaged|holds no)/,
    ],
  ] as const) {
    const chooser = page.waitForEvent("filechooser");
    await page.getByRole("button", { name: "Import a show file" }).click();
    await (await chooser).setFiles({ name, mimeType: "application/zip", buffer: Buffer.from(content) });
    await page.getByText(message).waitFor();
  }
  expect(await page.getByRole("button", { name: /^Open / }).count()).toBe(1);
});

test("a clash is shown in the patch dialog before it is made", async () => {
  const { page, base } = app;
  await page.goto(`${base}/show/demo/rig`);
  await page.getByTestId("patch-open").click();
  const dialog = page.getByRole("dialog");
  await dialog.getByText("From address").click();
  await dialog.getByLabel("First address").fill("1:1");
  await dialog.getByText(/1:1 is in use by fixture 1/).waitFor();
  expect(await dialog.getByRole("button", { name: /^Patch 1/ }).isDisabled()).toBe(true);
  await dialog.getByLabel("First address").fill("nonsense");
  await dialog.getByText("An address is universe:slot").waitFor();
  await page.keyboard.press("Escape");
});

test("the Ask bar tells what a line would change, keeps looks on request, and why tells the stack", async () => {
  const { page, base } = app;
  await page.goto(`${base}/show/demo/cues`);
  await page.locator("#ask").fill("delete cue 4 track");
  await page
    .getByTestId("ripple")
    .getByText(/Changes the looks of cue 5/)
    .waitFor();
  await page.getByTestId("ripple").getByRole("button", { name: "Keep those looks" }).click();
  // It is done, and the line is gone.
  await page.getByTestId("ask-last").getByText("delete list 1 cue 4 keeplooks").waitFor();
  expect(await page.locator("#ask").inputValue()).toBe("");
  await ask("undo");
  await ask("go list 1");
  await ask("why 21 dimmer");
  await page.getByTestId("why").getByText("1 Main, cue 1 Harbour sleeps").waitFor();
  await page
    .getByTestId("why")
    .getByText(/DMX 2:5 = \d+/)
    .waitFor();
  await page.getByTestId("why").getByRole("button", { name: "Close" }).click();
  // What cannot be read stays to be mended; the reason is below it, and nothing lies over the place.
  await ask("21 at fuzzy");
  await page
    .getByText(/"fuzzy" is not understood/)
    .first()
    .waitFor();
  expect(await page.locator("#ask").inputValue()).toBe("21 at fuzzy");
  expect((await page.getByTestId("notices").allInnerTexts()).join()).not.toMatch(/fuzzy/);
  await page.keyboard.press("Escape");
  await page.keyboard.press("Escape");
});

test("an earlier moment is gone back to, and undo brings back what was", async () => {
  const { page } = app;
  const cues = () => page.locator("table[aria-rowcount]").getAttribute("aria-rowcount").then(Number);
  const before = await cues();
  await menu("Earlier moments");
  await page.getByRole("button", { name: "Keep this moment" }).click();
  await page.getByTestId("moment").first().waitFor();
  await page.keyboard.press("Escape");
  await ask("delete cue 2");
  await ask("delete cue 3");
  await page.waitForFunction(
    (n) => Number(document.querySelector("table[aria-rowcount]")?.getAttribute("aria-rowcount")) === n - 2,
    before,
  );
  await menu("Earlier moments");
  await page.getByTestId("moment").filter({ hasText: "Kept by hand" }).click();
  await page.getByRole("button", { name: "Restore the whole show" }).click();
  await page.waitForFunction(
    (n) => Number(document.querySelector("table[aria-rowcount]")?.getAttribute("aria-rowcount")) === n,
    before,
  );
  await ask("undo");
  await page.waitForFunction(
    (n) => Number(document.querySelector("table[aria-rowcount]")?.getAttribute("aria-rowcount")) === n - 2,
    before,
  );
  await untilSaved(page);
  expect(app.errors).toEqual([]);
});
