/** Catches a list that does not do what it shows: pictures, cells, blind edits and what Check finds, to the bytes. */
import { becomes, bytesShown, bytesWhen, handsOn, startApp, untilSaved, type App } from "./app";

let app: App;
beforeAll(async () => void (app = await startApp()));
afterAll(() => app?.stop());

const { ask, place, universe } = handsOn(() => app);
/** How bright a picture is at the middle of its brightest row, 0 to 255. */
const brightest = (label: string) =>
  app.page
    .getByRole("img", { name: label, exact: true })
    .first()
    .locator("canvas")
    .evaluate((canvas: HTMLCanvasElement) => {
      const copy = document.createElement("canvas");
      [copy.width, copy.height] = [canvas.width, canvas.height];
      const c = copy.getContext("2d")!;
      c.drawImage(canvas, 0, 0);
      return c
        .getImageData(0, 0, canvas.width, canvas.height)
        .data.reduce((most, v, k) => (k % 4 === 3 ? most : Math.max(most, v)), 0);
    });

test("looks as pictures, what a delete changes, ten cells with cue only, and a move by drag", async () => {
  const { page, base } = app;
  await page.goto(base);
  await page.locator("[data-ready=true]").waitFor();
  await page.getByRole("button", { name: "New show" }).click();
  await page.getByText("Nothing is patched yet").waitFor();
  await ask("patch 12 dimmer as 1 at 1:1");
  await ask("1 thru 6 at full", "record cue 1 fade 0", "clear", "1 at 0", "record cue 2 fade 0", "clear");
  await ask("7 at 50", "record cue 3 fade 0", "clear", "1 thru 12 at 0", "record cue 4 fade 0", "clear");
  await place("Cues");
  await becomes(
    () => brightest("Look of cue 1"),
    (v) => v > 200,
  );
  await becomes(
    () => brightest("Look of cue 4"),
    (v) => v < 200,
  );
  // Deleting cue 2 would light fixture 1 in cue 3: said with both pictures, kept by one press.
  await page.locator("#ask").fill("delete cue 2 track");
  const panel = page.getByTestId("ripple-pictures");
  await panel.getByText("1 other look").waitFor();
  await panel.getByRole("button", { name: "Keep that look" }).click();
  await page.locator("#ask").fill("");
  await becomes(
    async () => page.getByTestId("cue-2").count(),
    (n) => n === 0,
  );
  await page.keyboard.press("Escape");
  await universe(1);
  await ask("go list 1 cue 3");
  await bytesWhen(page, (b) => b[0] === 0 && b[1] === 255 && b[6] === 128);
  await ask("undo", "go list 1 cue 2");
  await bytesWhen(page, (b) => b[0] === 0 && b[6] === 0);

  // Named by keys alone: one, then two chosen together; by pointer an edit keeps them together.
  await place("Cues");
  const film = page.getByRole("region", { name: /^Filmstrip/ });
  const name = (cue: number, text: string) => page.getByRole("button", { name: `Name of cue ${cue}: ${text}. ` });
  await film.focus();
  for (const key of ["Home", "Enter", "O", "n", "e", "Enter"]) await page.keyboard.press(key);
  await name(1, "One").waitFor();
  for (const key of ["ArrowDown", "Shift+ArrowDown", "Enter", "T", "w", "o", "Enter"]) await page.keyboard.press(key);
  await name(2, "Two").waitFor();
  await name(3, "Two").waitFor();
  await name(1, "One").click({ modifiers: ["Shift"] });
  await page.getByText("2 of 4 chosen").waitFor();
  await page.getByRole("button", { name: /^Up time of cue 2/ }).click();
  await page.keyboard.type("2");
  await page.keyboard.press("Enter");
  await page.getByRole("button", { name: /^Up time of cue 1: 2\./ }).waitFor();
  // The menu means all that are chosen, and says so.
  await page.getByRole("button", { name: "More for cue 2" }).click();
  await page.getByRole("menuitem", { name: "Delete 2 cues", exact: true }).click();
  await page.getByRole("menuitem", { name: "Delete 2 cues, later looks stay" }).click();
  await name(1, "One").waitFor({ state: "detached" });
  await name(2, "Two").waitFor({ state: "detached" });
  await ask("undo");
  await name(1, "One").waitFor();
  // A start that is not understood is refused, and what was there stays.
  const starts = (text: string) => page.getByRole("button", { name: new RegExp(`^Start of cue 3: .*: ${text}\\.`) });
  await starts("on go").click();
  await page.keyboard.type("auto 7");
  await page.keyboard.press("Enter");
  await starts("auto 7").click();
  await page.keyboard.type("atuo 9");
  await page.keyboard.press("Enter");
  await page.getByText('"atuo 9" is no way for a cue to start').waitFor();
  await starts("auto 7").waitFor();
  await ask("undo", "undo", "undo", "undo");
  await name(1, "no name").waitFor();

  // Ten cells of the sheet: cue only, by keys.
  await place("Cues");
  await page.getByRole("radiogroup", { name: "How the list is seen" }).getByText("Sheet").click();
  await page.getByRole("radiogroup", { name: "What an edit means for later cues" }).getByText("cue only").click();
  const cell = (row: number, column: number) => page.locator(`[data-row="${row}"][data-column="${column}"]`);
  await cell(1, 2).click();
  await page.keyboard.press("Shift+ArrowRight");
  await page.keyboard.press("Shift+ArrowRight");
  await page.keyboard.press("Shift+ArrowRight");
  await page.keyboard.press("Shift+ArrowRight");
  await page.keyboard.type("20");
  await page.keyboard.press("Enter");
  await becomes(
    () => cell(1, 6).textContent(),
    (t) => t === "•20",
  );
  await cell(2, 8).click();
  await page.keyboard.type("35");
  await page.keyboard.press("Enter");
  await universe(1);
  const pct = (v: number) => Math.floor((v / 100) * 255 + 0.5);
  await ask("go list 1 cue 2");
  await bytesWhen(page, (b) => b.slice(1, 6).every((v) => v === pct(20)));
  // The cue after it looks as before.
  await ask("go list 1 cue 3");
  await bytesWhen(page, (b) => b.slice(1, 6).every((v) => v === 255) && b[6] === pct(50) && b[7] === pct(35));

  // Cue 4 dragged before cue 2 by its number: others keep their looks.
  await place("Cues");
  await page.getByRole("radiogroup", { name: "How the list is seen" }).getByText("Filmstrip").click();
  const from = (await page.getByTestId("cue-4").locator("td").first().boundingBox())!;
  const onto = (await page.getByTestId("cue-2").boundingBox())!;
  await page.mouse.move(from.x + 10, from.y + from.height / 2);
  await page.mouse.down();
  await page.mouse.move(from.x + 12, onto.y + 30, { steps: 4 });
  await page.mouse.move(from.x + 12, onto.y + 8, { steps: 4 });
  await page.mouse.up();
  await page.getByTestId("cue-1.5").waitFor();
  await universe(1);
  await ask("go list 1 cue 1.5");
  await bytesWhen(page, (b) => b.slice(0, 12).every((v) => v === 0));
  await ask("go list 1 cue 2");
  await bytesWhen(page, (b) => b.slice(1, 6).every((v) => v === pct(20)));
  expect(app.errors).toEqual([]);
});

test("a cue edited blind during a fade leaves every byte as it is, and is there when it comes", async () => {
  const { page } = app;
  await ask(
    "release all",
    "9 at full",
    "record list 2 cue 1 fade 40",
    "clear",
    "9 at 10",
    "record list 2 cue 2 fade 0",
    "clear",
  );
  await universe(1);
  await ask("go list 2");
  await bytesWhen(page, (b) => b[8]! > 2);
  await place("Cues");
  await page.getByTestId("lists").click();
  await page.getByTestId("list-2").getByRole("button", { name: "2", exact: true }).click();
  await page.getByRole("button", { name: "More for cue 2", exact: true }).click();
  await page.getByRole("menuitem", { name: /Edit blind/ }).click();
  await page
    .getByTestId("blind")
    .getByText(/Blind: cue 2/)
    .waitFor();
  await universe(1);
  const others = (b: number[]) => b.filter((_, i) => i !== 8).join();
  const before = await bytesShown(page);
  await ask("10 at 80", "9 at 60");
  const after = await bytesShown(page);
  expect(others(after)).toBe(others(before));
  // The fade goes on as it was: about 6.4 of a byte a second.
  expect(after[8]! - before[8]!).toBeLessThan(60);
  expect(after[8]!).toBeGreaterThanOrEqual(before[8]!);
  await place("Cues");
  await page.getByTestId("blind").getByRole("button", { name: "Write into the cue" }).click();
  await page.getByTestId("blind").getByRole("button", { name: "Leave" }).click();
  await universe(1);
  expect(others(await bytesShown(page))).toBe(others(before));
  await ask("go list 2");
  await bytesWhen(page, (b) => b[8] === 153 && b[9] === 204);
  await ask("release all");
  expect(app.errors).toEqual([]);
});

test("drifts found, explained and cleaned at once; a late move mended; a signed look broken, found and brought back", async () => {
  const { page } = app;
  await ask("patch 3 petrel-spot as 21 at 2:1", "21 thru 23 at full pan at 0", "record list 3 cue 1 fade 0", "clear");
  await ask(
    "21 thru 23 at 0 pan at 40",
    "record list 3 cue 2 fade 1",
    "clear",
    "21 thru 23 tilt at 30",
    "record list 3 cue 3 fade 2",
  );
  await ask("clear", "21 thru 23 at full", "record list 3 cue 4 fade 0", "clear", "sign off list 3 cue 4");
  await place("Check");
  const drift = page.getByRole("region", { name: "Drift" });
  await drift.getByText(/In cue 2 of list 3 fixtures 21, 22, 23 change while fading out: pan/).waitFor();
  await drift.getByText(/In cue 3 of list 3 fixtures 21, 22, 23 change in the dark: tilt/).waitFor();
  await drift.getByRole("button", { name: "Clean the list" }).first().click();
  await becomes(
    () => drift.count(),
    (n) => n === 0,
  );
  // What was signed off still looks as it did: that is the proof.
  await becomes(
    () => page.getByRole("region", { name: "Looks that were signed off" }).count(),
    (n) => n === 0,
  );
  // They light up again at once: too late for a move of 5 s. A dark moment before it mends that.
  await ask("set list 3 blacktime 5");
  const late = page.getByRole("region", { name: "Moves in the dark" });
  await late.getByText(/In cue 4 of list 3 fixtures 21, 22, 23 come up changing/).waitFor();
  await ask("22 at 0", "record list 3 cue 3 fade 6 merge", "clear");
  await becomes(
    () => late.getByText(/cue 4 of list 3/).count(),
    (n) => n === 0,
  );
  // A signed look broken from afar.
  await ask("21 pan at 10", "update list 3 cue 4 all", "clear");
  const signed = page.getByRole("region", { name: "Looks that were signed off" });
  await signed.getByText(/Cue 4 of list 3 does not look as it was signed off/).waitFor();
  await signed.getByRole("button", { name: "Restore it" }).click();
  await becomes(
    () => signed.count(),
    (n) => n === 0,
  );
  await untilSaved(page);
  await page.reload();
  await place("Check");
  await page
    .getByTestId("check-count")
    .getByText(/to look at/)
    .waitFor();
  expect(await signed.count()).toBe(0);
  expect(app.errors).toEqual([]);
});

test("the timeline tells why a fixture is late, and mends it", async () => {
  const { page } = app;
  await ask("release all", "1 thru 3 at 0", "record list 4 cue 1 fade 0", "clear");
  await ask("1 thru 2 at full", "3 at full delay 6", "record list 4 cue 2 fade 1", "clear");
  await place("Cues");
  await page.getByTestId("lists").click();
  await page.getByTestId("list-4").getByRole("button", { name: "4", exact: true }).click();
  // What a row opens gives the focus back to its button, the first time as every time.
  for (const [name, role] of [
    ["More for cue 1", "menu"],
    ["All times of cue 1", "dialog"],
  ] as const) {
    const button = page.getByRole("button", { name, exact: true });
    await button.focus();
    for (let k = 0; k < 2; k++) {
      await page.keyboard.press("Enter");
      await page.getByRole(role).waitFor();
      // The keys go into it a moment after it is drawn.
      await becomes(
        () => page.getByRole(role).evaluate((e) => e.contains(document.activeElement)),
        (inside) => inside,
      );
      await page.keyboard.press("Escape");
      await page.getByRole(role).waitFor({ state: "hidden" });
      await becomes(
        () => button.evaluate((e) => e === document.activeElement),
        (back) => back,
      );
    }
  }
  await page.getByRole("button", { name: "More for cue 2", exact: true }).click();
  await page.getByRole("menuitem", { name: /Timeline/ }).click();
  const table = page.getByRole("table", { name: "What each fixture does" });
  const row = (name: string) => table.getByRole("row").filter({ has: page.getByRole("button", { name, exact: true }) });
  await row("3").getByText("6 to 7 s").waitFor();
  await row("1 + 2").getByText("0 to 1 s").waitFor();
  // The picture goes along with the instant.
  await becomes(
    () => brightest("The stage 0 s after the go"),
    (v) => v > 0,
  );
  await row("3")
    .getByLabel(/^Own delay of 3/)
    .click();
  await page.keyboard.type("0.5");
  await page.keyboard.press("Enter");
  await row("3").getByText("0.5 to 1.5 s").waitFor();
  // Both rows at once: a fade dragged to its half, and delays spread over them.
  await row("1 + 2").getByRole("cell").nth(2).click();
  await row("3")
    .getByRole("cell")
    .nth(2)
    .click({ modifiers: ["Shift"] });
  const grip = (await page.locator('[data-grip="1 + 2 fade"]').boundingBox())!;
  const track = (await page.locator("[data-track]", { has: page.locator('[data-grip="1 + 2 fade"]') }).boundingBox())!;
  await page.mouse.move(grip.x + grip.width / 2, grip.y + 8);
  await page.mouse.down();
  await page.mouse.move(grip.x + grip.width / 2 - track.width / 3, grip.y + 8, { steps: 5 });
  await page.mouse.up();
  await row("1 + 2").getByText("0 to 0.5 s").waitFor();
  await row("3").getByText("0.5 to 1 s").waitFor();
  await row("3")
    .getByLabel(/^Own delay of 3/)
    .click();
  await page.keyboard.type("0 to 2");
  await page.keyboard.press("Enter");
  await row("2").getByText("1 to 1.5 s").waitFor();
  await row("3").getByText("2 to 2.5 s").waitFor();
  await page.keyboard.press("Escape");
  await universe(1);
  await ask("go list 4 cue 1", "go list 4");
  await bytesWhen(page, (b) => b[0] === 255 && b[2] === 255);
  expect(app.errors).toEqual([]);
});
