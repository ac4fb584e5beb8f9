/** Catches a copy that brings another look than was promised, and a version of a cue that brings back more than itself. */
import { becomes, bytesWhen, handsOn, startApp, untilSaved, type App } from "./app";

let app: App;
beforeAll(async () => void (app = await startApp()));
afterAll(() => app?.stop());

const { ask, place, universe } = handsOn(() => app);
const full = 255;
const half = 128;
async function looks(cue: number, six: number[]) {
  await ask(`go list 1 cue ${cue}`);
  await universe(1);
  await bytesWhen(app.page, (b) => six.every((v, i) => Math.abs(b[i]! - v) <= 1));
}

test("a cue copied three ways comes as its picture promised, each with what it says of other looks", async () => {
  const { page, base } = app;
  await page.goto(base);
  await page.locator("[data-ready=true]").waitFor();
  await page.getByRole("button", { name: "New show" }).click();
  await page.getByText("Nothing is patched yet").waitFor();
  await ask("patch 6 dimmer as 1 at 1:1");
  await ask("1 thru 3 at full", "record cue 1 fade 0", "clear", "4 at 50", "record cue 2 fade 0", "clear");
  await ask("1 thru 4 at 0", "5 + 6 at full", "record cue 3 fade 0", "clear");
  const dialog = page.getByRole("dialog");
  async function copy(to: number, ...picks: string[]) {
    await place("Cues");
    await page.getByRole("button", { name: "More for cue 2", exact: true }).click();
    await page.getByRole("menuitem", { name: "Copy", exact: true }).click();
    await page.getByRole("menuitem", { name: /^Copy .*to/ }).click();
    await dialog.getByLabel("To cue", { exact: true }).fill(String(to));
    await page.keyboard.press("Tab");
    for (const pick of picks) await dialog.getByText(pick, { exact: true }).click();
    await dialog.getByRole("img", { name: "The copy" }).waitFor();
    await dialog.getByTestId("copy-says").getByText("No other look changes.").waitFor();
    await dialog.getByRole("button", { name: "Copy", exact: true }).click();
    await dialog.waitFor({ state: "hidden" });
  }
  await copy(4, "what it stores");
  await copy(5, "what is seen");
  await copy(6, "everything in force", "released");
  await looks(3, [0, 0, 0, 0, full, full]);
  await looks(4, [0, 0, 0, half, full, full]);
  await looks(5, [full, full, full, half, 0, 0]);
  await looks(6, [full, full, full, half, 0, 0]);
  // Seen is out where it was out; released is nothing at all.
  await ask("why 5 dimmer");
  await page.getByTestId("why").getByText("Default of the type").waitFor();
  expect(await page.getByTestId("why").getByText("1 Main").count()).toBe(0);
  await page.getByTestId("why").getByRole("button", { name: "Close" }).click();
  expect(app.errors).toEqual([]);
});

test("yesterday's version of one cue comes back, and nothing else does", async () => {
  const { page } = app;
  const menu = async () => {
    await page.getByTestId("show-menu").click();
    await page.getByRole("menuitem", { name: "Earlier moments" }).click();
  };
  await menu();
  await page.getByLabel("Name of this moment").fill("Yesterday");
  await page.getByRole("button", { name: "Keep this moment" }).click();
  await page.getByTestId("moment").filter({ hasText: "Yesterday" }).waitFor();
  await page.keyboard.press("Escape");
  await ask("4 at 10", "record cue 2 fade 0 merge", "clear", "1 at 20", "record cue 1 fade 0 merge", "clear");
  await menu();
  await page.getByTestId("moment").filter({ hasText: "Yesterday" }).click();
  const row = page.getByTestId("since-cue").filter({ hasText: "cue 2" });
  await row.getByRole("img", { name: "Cue 2 then" }).waitFor();
  await row.getByRole("button", { name: "Restore it" }).click();
  await page.keyboard.press("Escape");
  await becomes(
    () => page.getByRole("dialog").count(),
    (n) => n === 0,
  );
  await looks(1, [51, full, full, 0, 0, 0]);
  await looks(2, [51, full, full, half, 0, 0]);
  await untilSaved(page);
  expect(app.errors).toEqual([]);
});
