/** Catches what is cut off, laid over or pushed out of sight in any place, at the sizes people work at. */
import { frames, handsOn, startApp, untilStill, type App } from "./app";

let app: App;
beforeAll(async () => void (app = await startApp({ paths: true })));
afterAll(() => app?.stop());

const { ask, place } = handsOn(() => app);

/** What may be scrolled across: tables, and rows of things that are many. */
const ACROSS = ["Deck", "Patch", "Pages", "Ready effects", "Values of fixtures", "Values through the list"];

/** Controls that lie under something, and whatever has to be scrolled across to be seen. */
const faults = () =>
  app.page.evaluate((across) => {
    const nameOf = (e: Element) =>
      (e.getAttribute("aria-label") ?? (e as HTMLElement).innerText ?? "").trim().slice(0, 40) ||
      e.outerHTML.slice(0, 80);
    const scrolls = (e: Element) => /auto|scroll/.test(getComputedStyle(e).overflowY);
    const found: string[] = [];
    for (const control of document.querySelectorAll("button, input, a[href], [role=tab]")) {
      const { left, top, width, height } = control.getBoundingClientRect();
      if (width < 2 || height < 2 || control.closest(".mantine-VisuallyHidden-root")) continue;
      const [x, y] = [left + width / 2, top + height / 2];
      const at = document.elementFromPoint(x, y);
      if (at && (control.contains(at) || at.contains(control))) continue;
      // What a list or table holds beyond its edge is scrolled to.
      let holder = control.parentElement;
      while (holder && !scrolls(holder)) holder = holder.parentElement;
      const box = holder?.getBoundingClientRect();
      const isInside = box && x > box.left + 1 && x < box.right - 1 && y > box.top + 1 && y < box.bottom - 1;
      if (!holder || isInside)
        found.push(`${nameOf(control)} lies under ${at ? nameOf(at) : "the edge of the window"}`);
    }
    for (const area of document.querySelectorAll("main *, [data-testid=truths] *")) {
      const { overflowX } = getComputedStyle(area);
      const isWider = area.clientWidth > 30 && area.scrollWidth > area.clientWidth + 2;
      if (isWider && /auto|scroll/.test(overflowX) && !across.includes(area.getAttribute("aria-label") ?? ""))
        found.push(`${nameOf(area)} is ${area.scrollWidth} wide, ${area.clientWidth} are shown`);
    }
    return found;
  }, ACROSS);

async function fits(...places: string[]) {
  for (const name of places) {
    await place(name);
    await frames(app.page, 3);
    expect([name, await faults()]).toEqual([name, []]);
  }
}

test("every place fits, with all that is to be told", async () => {
  const { page, base } = app;
  await page.setViewportSize({ width: 1024, height: 768 });
  await page.goto(`${base}/show/demo/build`);
  await page.getByTestId("stage").waitFor();
  await ask("1 thru 12 at full", "park", "highlight on", "grand at 60", "blind on");
  await fits("Rig", "Cues", "Check");
  // All of what is told, in a row of its own.
  await page.getByTestId("wire-state").click();
  await page.getByTestId("truth-grand").waitFor();
  await fits("Run", "Build");
  for (const tab of ["Effect", "Values", "Shelf"]) {
    await page.getByText(tab, { exact: true }).first().click();
    await frames(page, 3);
    expect([tab, await faults()]).toEqual([tab, []]);
  }
  await page.getByRole("tab", { name: "Waves" }).click();
  expect(await page.getByRole("region", { name: "Palettes" }).evaluate((e) => e.parentElement!.scrollLeft)).toBe(0);
  await page.setViewportSize({ width: 1280, height: 800 });
  await fits("Build", "Rig", "Cues", "Run", "Check");
  await page.setViewportSize({ width: 1920, height: 1080 });
  await fits("Run", "Build");
  await ask("blind off", "unpark", "clear", "highlight off", "grand at 100");
});

test("the last cue of a long list is reached and named by keys, though its row was not drawn", async () => {
  const { page } = app;
  await place("Cues");
  await page.setViewportSize({ width: 1024, height: 768 });
  await page.getByRole("region", { name: /^Filmstrip/ }).focus();
  for (const key of ["Home", "End", "Enter"]) await page.keyboard.press(key);
  const field = page.getByRole("textbox", { name: "Name of cue 26" });
  await field.waitFor();
  await page.keyboard.type("Last of all");
  await page.keyboard.press("Enter");
  await page.getByRole("button", { name: /^Name of cue 26: Last of all/ }).waitFor();
  await ask("undo");
  await place("Build");
});

test("a text without room is said in full on hover, and Escape closes help that does not hold the focus", async () => {
  const { page } = app;
  await page.setViewportSize({ width: 1024, height: 768 });
  const name = page.getByText("Foghorn Beam Server", { exact: true }).first();
  await name.hover();
  expect(await name.getAttribute("title")).toBe("Foghorn Beam Server");
  await ask("1 thru 3");
  await page.getByRole("button", { name: "House dim" }).click();
  await page.getByText("Dark or daylight", { exact: true }).first().waitFor();
  await untilStill(page);
  await page.keyboard.press("Escape");
  await page.getByRole("radiogroup", { name: "Dark or daylight" }).waitFor({ state: "hidden" });
  // It closed that, and nothing was deselected.
  await page.getByText("3 × Petrel Spot").first().waitFor();
  expect(app.errors).toEqual([]);
});
