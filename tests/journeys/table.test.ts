/** Catches a patch table that is no spreadsheet: typing, ranges, filling, copy and paste, clashes and their cures. */
import type { Page } from "playwright-core";
import { becomes, startApp, type App } from "./app";

let app: App;
beforeAll(async () => void (app = await startApp()));
afterAll(() => app?.stop());

const ask = async (page: Page, ...lines: string[]) => {
  for (const line of lines) {
    await page.locator("#ask").fill(line);
    await page.keyboard.press("Enter");
  }
};
/** A cell by its place: the row from 0, the column by its title. */
const cell = async (page: Page, row: number, title: string) => {
  const column = await page
    .locator("[data-title]")
    .evaluateAll((heads, t) => heads.findIndex((h) => h.textContent === t), title);
  return page.locator(`[data-row="${row}"][data-column="${column}"]`);
};
const texts = async (page: Page, title: string, rows: number) =>
  Promise.all(Array.from({ length: rows }, async (_, r) => (await cell(page, r, title)).textContent()));
const shows = (page: Page, title: string, wanted: string[]) =>
  becomes(
    () => texts(page, title, wanted.length),
    (found) => found.every((t, i) => t === wanted[i]),
  );

test("a patch is typed, filled, pasted and put right like a spreadsheet", async () => {
  const { page } = app;
  await page.goto(app.base);
  await page.locator("[data-ready=true]").waitFor();
  await page.getByRole("button", { name: "New show" }).click();
  await page.locator("#ask").waitFor();
  await page.getByRole("navigation").getByText("Rig", { exact: true }).click();
  await ask(page, "patch 6 kelp-wash as 1 unpatched");
  await page.getByRole("grid").waitFor();

  // A start typed over a range counts on: addresses by footprint.
  await (await cell(page, 0, "Address")).click();
  await page.keyboard.press("Shift+ArrowDown");
  await page.keyboard.press("Shift+ArrowDown");
  await page.keyboard.type("1:1");
  await page.keyboard.press("Enter");
  await shows(page, "Address", ["1:1", "1:13", "1:25", "unpatched", "unpatched", "unpatched"]);

  // The range's corner dragged down counts on from there.
  await (await cell(page, 2, "Address")).click();
  const handle = (await page.locator("[data-handle]").boundingBox())!;
  const end = (await (await cell(page, 5, "Address")).boundingBox())!;
  await page.mouse.move(handle.x + 4, handle.y + 4);
  await page.mouse.down();
  await page.mouse.move(handle.x + 4, end.y - 20);
  await page.mouse.move(handle.x + 4, end.y + 10, { steps: 4 });
  await page.mouse.up();
  await shows(page, "Address", ["1:1", "1:13", "1:25", "1:37", "1:49", "1:61"]);

  // A clash is marked, stays out of the show, and is cured by a press.
  await (await cell(page, 5, "Address")).click();
  await page.keyboard.type("1:1");
  await page.keyboard.press("Enter");
  await page
    .getByTestId("draft")
    .getByText(/6: 1:1 is in use by fixture 1/)
    .waitFor();
  await page.getByRole("button", { name: "Next free address" }).click();
  await page.getByTestId("draft").waitFor({ state: "detached" });
  await shows(page, "Address", ["1:1", "1:13", "1:25", "1:37", "1:49", "1:61"]);
  await (await cell(page, 4, "No.")).click();
  await page.keyboard.type("2");
  await page.keyboard.press("Enter");
  await page.getByRole("button", { name: "Number from 5" }).click();
  await shows(page, "No.", ["1", "2", "3", "4", "5", "6"]);

  // Copied to and pasted from a spreadsheet, through the clipboard's own events.
  await (await cell(page, 0, "Name")).click();
  await page.getByRole("grid").evaluate((grid) => {
    const data = new DataTransfer();
    data.setData("text/plain", "Rail A\tX\tstandard\r\nRail B\tY\tstandard\r\n");
    grid.dispatchEvent(new ClipboardEvent("paste", { clipboardData: data, bubbles: true, cancelable: true }));
  });
  await shows(page, "Name", ["Rail A", "Rail B", "Kelp Wash 3"]);
  await page.keyboard.press("Shift+ArrowDown");
  const copied = await page.getByRole("grid").evaluate((grid) => {
    const data = new DataTransfer();
    grid.dispatchEvent(new ClipboardEvent("copy", { clipboardData: data, bubbles: true, cancelable: true }));
    return data.getData("text/plain");
  });
  expect(copied).toBe("Rail A\nRail B");

  // One undo for each of these, whatever it changed.
  await page.keyboard.press("Control+z");
  await shows(page, "Name", ["Kelp Wash 1", "Kelp Wash 2"]);

  // Yes and no are pressed with Enter; sorting and filtering only look.
  await (await cell(page, 1, "swap")).click();
  await page.keyboard.press("Enter");
  await shows(page, "swap", ["·", "✓", "·"]);
  await page.locator("[data-title=addresses]").click({ position: { x: 20, y: 10 } });
  await page.locator("[data-title=addresses]").click({ position: { x: 20, y: 10 } });
  await shows(page, "No.", ["6", "5", "4"]);
  await page.getByLabel("Filter the patch").fill("1:25");
  await becomes(
    () => page.getByRole("row").count(),
    (n) => n === 2,
  );
  expect(app.errors).toEqual([]);
});

test("a fixture is dragged to another address on the universe map, and the rig is arranged on the plan", async () => {
  const { page } = app;
  await page.getByLabel("Filter the patch").fill("");
  await page.getByRole("tab", { name: "Universes" }).click();
  const slot = (n: number) => page.locator(`[data-testid=dmx] [data-slot="${n}"]`);
  const drag = async (from: { x: number; y: number }, to: { x: number; y: number }) => {
    await page.mouse.move(from.x, from.y);
    await page.mouse.down();
    await page.mouse.move((from.x + to.x) / 2, (from.y + to.y) / 2);
    await page.mouse.move(to.x, to.y, { steps: 5 });
    await page.mouse.up();
  };
  const middle = async (n: number) => {
    const box = (await slot(n).boundingBox())!;
    return { x: box.x + box.width / 2, y: box.y + box.height / 2 };
  };
  // Taken by its third slot, fixture 6 goes so that this slot is where it is let go.
  await drag(await middle(63), await middle(203));
  await becomes(
    () => slot(201).locator("i").textContent(),
    (t) => t === "6",
  );
  await drag(await middle(203), await middle(5));
  await page
    .getByTestId("notices")
    .getByText(/fixture 6 stays: 1:3 is in use by fixture 1/i)
    .waitFor();

  await page.getByRole("tab", { name: "Plan" }).click();
  await ask(page, "1 thru 6");
  await page.getByText("Row", { exact: true }).click();
  const stage = (await page.getByTestId("stage").boundingBox())!;
  await drag({ x: stage.x + 100, y: stage.y + 200 }, { x: stage.x + 500, y: stage.y + 200 });
  await ask(page, "1 + 6");
  const place = page.getByRole("button", { name: /^Metres across/ });
  await becomes(
    () => place.textContent(),
    (t) => /-?\d.* to -?\d/.test(t ?? ""),
  );
  await page.getByRole("button", { name: "Align x" }).click();
  await becomes(
    () => place.textContent(),
    (t) => !/ to /.test(t ?? ""),
  );
  await page.getByText("Truss", { exact: true }).click();
  await page.getByLabel("Its name").fill("Front truss");
  await drag({ x: stage.x + 100, y: stage.y + 300 }, { x: stage.x + 500, y: stage.y + 300 });
  await page.getByRole("button", { name: "Erase Front truss" }).waitFor();
  expect(app.errors).toEqual([]);
});
