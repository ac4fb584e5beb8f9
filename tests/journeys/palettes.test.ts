/** Catches palettes that do not follow: recorded, applied, patched into, excepted, updated, folded in; aimed and hung right, to the bytes. */
import { beamOf, type Vector } from "@/core/patch/room";
import { bytesWhen, handsOn, startApp, word, type App } from "./app";

let app: App;
beforeAll(async () => void (app = await startApp()));
afterAll(() => app?.stop());

const { ask, place, universe } = handsOn(() => app);
/** Green of wash n, 12 slots each: the eighth. */
const green = (b: number[], n: number) => b[(n - 1) * 12 + 7];

test("an amber for a type: applied, patched into, excepted, updated and folded in", async () => {
  const { page, base } = app;
  await page.goto(base);
  await page.locator("[data-ready=true]").waitFor();
  await page.getByRole("button", { name: "New show" }).click();
  await page.getByText("Nothing is patched yet").waitFor();
  await ask("patch 4 kelp-wash as 1 at 1:1", "patch 2 petrel-spot as 11 at 2:1");
  await place("Build");
  // Recorded on one, by the empty place of the shelf.
  await ask("1 colour at #ff8000");
  await page.getByRole("button", { name: /^41 .*record here/ }).click();
  const tile = page.getByRole("button", { name: /^41 / });
  // Its name is offered at once.
  await page.getByLabel("Palette name").fill("Amber");
  await page.keyboard.press("Enter");
  await ask("clear", "1 thru 4");
  await page.getByRole("button", { name: /^41 .*Amber/ }).click();
  await ask("at full", "record cue 1 fade 0", "clear", "go");
  // Two more, patched later, are covered.
  await ask("patch 2 kelp-wash as 5 at 1:101", "5 thru 6 at full palette 41");
  await universe(1);
  const covered = await bytesWhen(page, (b) => b[100 + 7] === 128 && b[112 + 7] === 128);
  expect([1, 2, 3, 4].map((n) => green(covered, n))).toEqual([128, 128, 128, 128]);
  await ask("clear");

  // An exception on one, then the whole type: the exception stays, all else follows.
  await place("Build");
  await ask("4 palette 41", "4 green at 80");
  await page.getByRole("button", { name: "Update the sources of held values" }).click();
  await page.getByText("only these fixtures").first().waitFor();
  await page
    .getByTestId("update-says")
    .getByText(/1 look changes/)
    .waitFor();
  await page.getByRole("button", { name: "Update", exact: true }).click();
  await ask("clear", "1 palette 41", "1 green at 30");
  await page.getByRole("button", { name: "Update the sources of held values" }).click();
  await page.getByText("the whole type").first().click();
  await page.getByRole("button", { name: "Update", exact: true }).click();
  await ask("clear");
  await universe(1);
  const updated = await bytesWhen(page, (b) => green(b, 1) === 77);
  expect([1, 2, 3, 4].map((n) => green(updated, n))).toEqual([77, 77, 77, 204]);

  // Folded in once it is equal again.
  await place("Build");
  await ask("4 palette 41", "4 green at 30", "update palette 41", "clear");
  await tile.click({ button: "right" });
  await page.getByRole("button", { name: /Fold in 1 equal exception/ }).click();
  await page.getByRole("button", { name: /Fold in 0/ }).waitFor();
  await page.keyboard.press("Escape");
  await ask("1 green at 50", "update palette 41 type", "clear");
  await universe(1);
  const folded = await bytesWhen(page, (b) => green(b, 1) === 128);
  expect([1, 2, 3, 4].map((n) => green(folded, n))).toEqual([128, 128, 128, 128]);
  expect(app.errors).toEqual([]);
});

test("positions for any hit their point after the truss has moved; the hang of one is corrected", async () => {
  const { page } = app;
  await ask("11 place -2 4 6", "12 place 2 4 6", "11 thru 12 at full aim at 0 2 0");
  await place("Build");
  await ask(
    'record palette 21 "Middle" any only position',
    "clear",
    "11 thru 12 at full palette 21",
    "record cue 2 fade 0",
    "clear",
    "go",
  );
  const hits = (b: number[], at: readonly [Vector, Vector], correct = 0): number =>
    Math.max(
      ...at.map(([x, y, z], k) => {
        const from = k * 23;
        const pan = -270 + (word(b, from + 1) / 65535) * 540 - (k === 0 ? correct : 0);
        const tilt = -135 + (word(b, from + 3) / 65535) * 270;
        const [dx, dy, dz] = beamOf({ turn: { x: 0, y: 0, z: 0 } }, pan, tilt);
        const along = -z / dz;
        return Math.hypot(x + dx * along, y + dy * along - 2);
      }),
    );
  const here: [Vector, Vector] = [
    [-2, 4, 6],
    [2, 4, 6],
  ];
  const there: [Vector, Vector] = [
    [-2, 4.5, 6],
    [2, 4.5, 6],
  ];
  await universe(2);
  await bytesWhen(page, (b) => hits(b, here) < 0.02);
  await ask("11 place -2 4.5 6", "12 place 2 4.5 6");
  await bytesWhen(page, (b) => hits(b, there) < 0.02);

  // In the palette, steered right by hand, and the hang corrected: cue and palette stay as they are.
  await place("Build");
  await ask("11 palette 21", "11 pan by 3");
  await page.getByRole("button", { name: "Correct the hang" }).click();
  await page.getByRole("button", { name: "Correct the hang" }).waitFor({ state: "detached" });
  await ask("clear");
  await universe(2);
  const corrected = await bytesWhen(page, (b) => hits(b, there, 3) < 0.02);
  expect(hits(corrected, there)).toBeGreaterThan(0.05);
  expect(app.errors).toEqual([]);
});
