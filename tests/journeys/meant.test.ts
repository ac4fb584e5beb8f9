/** Catches hands that get another value, name or deed than they meant: what was typed, pressed, named or let go of. */
import { becomes, bytesWhen, handsOn, startApp, untilStill, type App } from "./app";

let app: App;
beforeAll(async () => {
  app = await startApp();
  const { page, base } = app;
  await page.goto(base);
  await page.locator("[data-ready=true]").waitFor();
  await page.getByRole("button", { name: "New show" }).click();
  await page.getByText("Nothing is patched yet").waitFor();
  await ask("patch 6 dimmer as 1 at 1:1", "1 thru 6 at 20", "record cue 1 fade 0", "record list 6 cue 1", "clear");
  await ask(
    "set list 6 kind submaster",
    "1 thru 3",
    'record group 1 "Port"',
    "1 thru 3 at 90",
    'record palette 1 "Up"',
  );
  await ask("clear");
});
afterAll(() => app?.stop());
const { ask, place, universe } = handsOn(() => app);

test("cells take what they show: +5 keeps differences, units, times in the view of times", async () => {
  const { page } = app;
  await place("Build");
  await ask("1 thru 3 at 20 to 40");
  await page.getByRole("button", { name: "Values", exact: true }).click();
  const cell = (row: number) => page.locator(`[data-row="${row}"][data-column="1"]`);
  await cell(0).click();
  await cell(2).click({ modifiers: ["Shift"] });
  await page.keyboard.type("+5");
  // What Enter will do is said before.
  await page
    .getByText(/dimmer by 5/i)
    .first()
    .waitFor();
  await page.keyboard.press("Enter");
  await becomes(
    () => page.getByTestId("held").textContent(),
    (text) => /3 fixtures/.test(text!),
  );
  await cell(0).getByText("25.0 %").waitFor();
  await cell(2).getByText("45.0 %").waitFor();
  await page.getByRole("radiogroup", { name: "What the cells say" }).getByText("timing").click();
  await cell(0).click();
  await cell(2).click({ modifiers: ["Shift"] });
  await page.keyboard.type("+1 2 s");
  await page.keyboard.press("Enter");
  await cell(1).getByText("+1 2 s").waitFor();
  await page.getByRole("radiogroup", { name: "What the cells say" }).getByText("value").click();
  // Times were typed: no level moved.
  await cell(2).getByText("45.0 %").waitFor();
  await ask("1 dimmer at 50 %");
  await ask("clear");
  await page.getByRole("button", { name: "Shelf", exact: true }).click();
  expect(app.errors).toEqual([]);
});

test("names are offered and typed where they stand, from menus too; nothing of them goes into the Ask bar", async () => {
  const { page } = app;
  await page.getByRole("button", { name: "More for group 1", exact: true }).click();
  await page.getByRole("menuitem", { name: "Rename" }).click();
  const name = page.getByLabel("Group name");
  await name.waitFor();
  await untilStill(page);
  await page.keyboard.type("Starboard");
  await page.keyboard.press("Enter");
  await page.getByText("Starboard", { exact: true }).waitFor();
  await ask("4 thru 6");
  await page.getByRole("button", { name: "Record the selection as a new group" }).click();
  await name.waitFor();
  await page.keyboard.type("Rest");
  await page.keyboard.press("Enter");
  await page.getByText("Rest", { exact: true }).waitFor();
  expect(await page.locator("#ask").inputValue()).toBe("");
  expect(app.errors).toEqual([]);
});

test("release all says what it ends and what stays; levels come down by a second press", async () => {
  const { page } = app;
  await ask("clear", "go list 1", "level list 6 at 60");
  await place("Run");
  const release = page.getByTestId("release-all");
  await release.getByText("Release Main").waitFor();
  await release.click();
  await release.getByText("Level to 0").waitFor();
  await release.click();
  await release.getByText("Release all").waitFor();
  await universe(1);
  await bytesWhen(page, (b) => b.slice(0, 6).every((v) => v === 0));
  expect(app.errors).toEqual([]);
});

test("a pad of a palette ends what it began, and a held one lets go with the hand", async () => {
  const { page } = app;
  await ask("put palette 1 on page 1 place 1", "put palette 1 on page 1 place 2 pad held", "1 thru 3");
  await universe(1);
  await place("Run");
  const pad = (n: number) => page.getByTestId(`pad-${n}`);
  await pad(1).click();
  await becomes(
    () => pad(1).getAttribute("data-on"),
    (on) => on === "true",
  );
  await pad(1).click();
  await becomes(
    () => pad(1).getAttribute("data-on"),
    (on) => on === "false",
  );
  const box = (await pad(2).boundingBox())!;
  await page.mouse.move(box.x + 20, box.y + 20);
  await page.mouse.down();
  await becomes(
    () => pad(2).getAttribute("data-on"),
    (on) => on === "true",
  );
  await page.mouse.up();
  await becomes(
    () => pad(2).getAttribute("data-on"),
    (on) => on === "false",
  );
  expect(app.errors).toEqual([]);
});

test("a line in plain words is said as the line it means; of two the hand takes one", async () => {
  const { page } = app;
  await place("Build");
  await ask("clear");
  await page.locator("#ask").fill("1 thru 3 full");
  await page
    .getByTestId("ask-says")
    .getByText(/^1 thru 3 at full: /)
    .waitFor();
  await page.keyboard.press("Enter");
  await page.getByTestId("ask-last").getByText("1 thru 3 at full").waitFor();
  await universe(1);
  await bytesWhen(page, (bytes) => bytes[0] === 255 && bytes[2] === 255);
  await page.locator("#ask").fill("go 1");
  const offer = (name: string) => page.getByRole("option", { name, exact: true });
  await offer("go cue 1").waitFor();
  await page.keyboard.press("Enter");
  await page.keyboard.press("ArrowDown");
  await page.keyboard.press("Enter");
  await becomes(
    () => page.locator("#ask").inputValue(),
    (line) => line === "go list 1",
  );
  await page.keyboard.press("Enter");
  await page.getByTestId("ask-last").getByText("go list 1").waitFor();
  // A number alone is a fixture; with something selected it is offered as a level too.
  await ask("clear", "release list 1", "1 thru 2");
  await page.locator("#ask").fill("50");
  await offer("at 50").click();
  await page.keyboard.press("Enter");
  await bytesWhen(page, (bytes) => bytes[0] === 128 && bytes[2] === 0);
  // A time right after a record is the cue's, or own time of what is held: both stand there.
  await ask("record cue 7");
  await page.locator("#ask").fill("fade 3");
  await offer("set list 1 cue 7 fade 3").waitFor();
  await page.keyboard.press("Enter");
  await page.keyboard.press("Enter");
  await becomes(
    () => page.locator("#ask").inputValue(),
    (line) => line === "set list 1 cue 7 fade 3",
  );
  await page.keyboard.press("Enter");
  await page.getByTestId("ask-last").getByText("set list 1 cue 7 fade 3").waitFor();
  await ask("undo", "undo", "clear");
  expect(app.errors).toEqual([]);
});

test("a macro is made of presses too, stays open, and says before its first line what it cannot do", async () => {
  const { page } = app;
  await ask("clear");
  await page.keyboard.press("Space");
  await page.getByTestId("ask-last").getByText("go list 1").waitFor();
  await page.getByTestId("show-menu").click();
  await page.getByRole("menuitem", { name: "Macros" }).click();
  const dialog = page.getByRole("dialog");
  await dialog.getByRole("button", { name: "From recent actions" }).click();
  await dialog.getByLabel("go list 1", { exact: true }).last().check();
  await dialog.getByRole("button", { name: "Insert these lines" }).click();
  await dialog.getByRole("button", { name: "line", exact: true }).click();
  await dialog.getByLabel("Line 2", { exact: true }).fill("go list 77");
  await dialog.getByRole("button", { name: /^Record as macro 1/ }).click();
  await dialog
    .getByTestId("macro-sure")
    .getByText(/Line 2 cannot/)
    .waitFor();
  await dialog.getByRole("button", { name: / anyway$/ }).click();
  await dialog.getByRole("button", { name: "Run", exact: true }).click();
  await page
    .getByText(/Macro 1 is not begun: it could not do "go list 77"/)
    .first()
    .waitFor();
  expect(app.errors).toEqual([]);
});
