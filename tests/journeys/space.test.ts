/** Catches a control that swallows the go key once it was pressed, or a go that comes twice: Space after a click on every kind of control. */
import type { Page } from "playwright-core";
import { becomes, startApp, untilStill, type App } from "./app";

let app: App;
beforeAll(async () => {
  app = await startApp();
  const { page, base } = app;
  // Every go that is told to the engine is counted.
  await page.addInitScript(() => {
    const seen = { goes: 0, at: 0 };
    Object.assign(globalThis, { seen });
    const post = Worker.prototype.postMessage;
    Worker.prototype.postMessage = function (this: Worker, message: unknown, ...rest: never[]) {
      const { kind, event } = (message ?? {}) as { kind?: string; event?: { kind: string } };
      if (kind === "event" && event?.kind === "go") Object.assign(seen, { goes: seen.goes + 1, at: performance.now() });
      return post.call(this, message, ...rest);
    } as typeof post;
  });
  await page.goto(`${base}/show/demo/build`);
  await page.locator("#ask").waitFor();
});
afterAll(() => app?.stop());

const goes = (page: Page) => page.evaluate(() => (globalThis as unknown as { seen: { goes: number } }).seen.goes);
/** A press within 150 ms of the last would be the same one. */
const untilApart = (page: Page) =>
  page.waitForFunction(() => performance.now() - (globalThis as unknown as { seen: { at: number } }).seen.at > 170);

/** Marks one control of each kind that is in sight; returns what they are. What it does is none of this journey's business, as long as it comes back from it. */
const kinds = (page: Page, within: string, done: readonly string[]) =>
  page.evaluate(
    ([root, before]) => {
      const AWAY =
        /delete|remove|close|reload|leave|record|import|export|go\b|back|pause|release|stop|blackout|clear|undo|empty|bring|open .*window|take|new show|file|learn|flash|fold|full/i;
      const of = document.querySelector(root) ?? document.body;
      const found = new Map<string, Element>();
      for (const element of of.querySelectorAll<HTMLElement>(
        "button, label, input, select, summary, a[href], [role=tab], [role=switch], [role=slider], [role=row], [role=gridcell], [role=option], canvas",
      )) {
        const box = element.getBoundingClientRect();
        const seen = document.elementFromPoint(box.x + box.width / 2, box.y + box.height / 2);
        const label = `${element.getAttribute("aria-label") ?? ""} ${element.title} ${element.textContent ?? ""}`;
        const own = element.matches("input") ? (element.closest("label") ?? element.parentElement) : element;
        if (box.width === 0 || !(seen && (own?.contains(seen) || seen.contains(element))) || AWAY.test(label)) continue;
        if (element.matches("textarea, input:not([type=radio]):not([type=checkbox]):not([type=range]):not([readonly])"))
          continue;
        if (element.matches("[disabled], [data-disabled]")) continue;
        const kind = [
          element.tagName,
          element.getAttribute("role"),
          element.getAttribute("type"),
          element.getAttribute("aria-haspopup"),
          element.hasAttribute("aria-pressed"),
          element.className.toString().split(" ").slice(0, 2).join("."),
        ].join(" ");
        if (!before.includes(kind) && !found.has(kind)) found.set(kind, element);
      }
      return [...found].map(([kind, element]) => {
        const { x, y, width, height } = element.getBoundingClientRect();
        return { kind, x: x + width / 2, y: y + height / 2 };
      });
    },
    [within, done] as const,
  );

/** Presses one of each kind by pointer, then Space: one go each time, whatever it opened. */
async function spaceAfterEach(page: Page, within: string, done: string[]): Promise<string[]> {
  const wrong: string[] = [];
  for (const { kind, x, y } of await kinds(page, within, done)) {
    done.push(kind);
    await page.mouse.click(x, y);
    await untilStill(page);
    const focus = await page.evaluate(() =>
      document.activeElement?.matches(
        "input:not([type=radio]):not([type=checkbox]):not([readonly]):not(#ask), textarea",
      ),
    );
    await untilApart(page);
    const before = await goes(page);
    if (!focus) {
      await page.keyboard.press("Space");
      const after = await becomes(
        () => goes(page),
        (n) => n > before,
      ).catch(() => before);
      if (after !== before + 1) wrong.push(`${kind}: ${after - before} goes`);
    }
    if (within === "body") {
      await page.keyboard.press("Escape");
      await page.keyboard.press("Escape");
      await untilStill(page);
    }
  }
  return wrong;
}

test("in every place, Space gives one go after whatever was pressed", async () => {
  const { page } = app;
  const done: string[] = [];
  const wrong: Record<string, string[]> = {};
  for (const key of ["Alt+2", "Alt+3", "Alt+4", "Alt+5", "Alt+1"]) {
    await page.keyboard.press(key);
    await page.getByLabel("Opening the place").waitFor({ state: "detached" });
    await untilStill(page);
    const found = await spaceAfterEach(page, "body", done);
    if (found.length > 0) wrong[key] = found;
  }
  expect(done.length).toBeGreaterThan(20);
  expect(wrong).toEqual({});
});

test("in dialogs too; what Tab has led to is pressed instead", async () => {
  const { page } = app;
  const wrong: Record<string, string[]> = {};
  const dialogs: [string, () => Promise<unknown>][] = [
    ["all keys", () => page.evaluate(() => dispatchEvent(new Event("bold-comet-keys")))],
    ["patch", () => page.getByTestId("patch-open").click()],
    ["record", () => page.getByTestId("record").click()],
  ];
  await page.getByRole("tab", { name: "Patch" }).click();
  for (const [name, open] of dialogs) {
    await open();
    await page.getByRole("dialog").first().waitFor();
    await untilStill(page);
    const found = await spaceAfterEach(page, "[role=dialog]", []);
    if (found.length > 0) wrong[name] = found;
    if (await page.getByRole("dialog").first().isVisible()) await page.keyboard.press("Escape");
    await page.getByRole("dialog").first().waitFor({ state: "hidden" });
  }
  expect(wrong).toEqual({});

  await page.getByTestId("record").click();
  const cueOnly = page.getByRole("radio", { name: "Cue only" });
  await untilStill(page);
  for (let i = 0; i < 20 && !(await page.evaluate(() => document.activeElement?.matches("[type=radio]"))); i++)
    await page.keyboard.press("Tab");
  await page.keyboard.press("ArrowRight");
  await untilApart(page);
  const before = await goes(page);
  await page.keyboard.press("Space");
  expect(await cueOnly.isChecked()).toBe(true);
  expect(await goes(page)).toBe(before);
  await page.keyboard.press("Escape");
});

test("a text field takes it, says so in the Ask bar, and Escape leaves it", async () => {
  const { page } = app;
  await page.keyboard.press("Alt+1");
  await page.getByRole("tab", { name: "Patch" }).click();
  await page.getByLabel("Filter the patch").click();
  await page.locator("#ask[placeholder^='Space types']").waitFor();
  const before = await goes(page);
  await page.keyboard.type("a b");
  expect(await page.getByLabel("Filter the patch").inputValue()).toBe("a b");
  expect(await goes(page)).toBe(before);
  await page.keyboard.press("Escape");
  await page.locator("#ask[placeholder*='Space to go']").waitFor();
  await untilApart(page);
  await page.keyboard.press("Space");
  expect(
    await becomes(
      () => goes(page),
      (n) => n > before,
    ),
  ).toBe(before + 1);
});

test("a drag over the plan has it while it lasts, and switches are pressed with Enter", async () => {
  const { page } = app;
  await page.keyboard.press("Alt+2");
  const fit = page.getByRole("button", { name: "Fit all" });
  await fit.waitFor();
  const box = (await page.getByTestId("stage").boundingBox())!;
  const [x, y] = [box.x + box.width / 2, box.y + box.height * 0.8];
  expect(await fit.isDisabled()).toBe(true);
  await untilApart(page);
  const before = await goes(page);
  await page.mouse.move(x, y);
  await page.mouse.down();
  await page.mouse.move(x + 40, y);
  await page.keyboard.press("Space");
  await page.mouse.move(x + 80, y + 20);
  await page.mouse.up();
  await becomes(
    () => fit.isDisabled(),
    (disabled) => !disabled,
  );
  expect(await goes(page)).toBe(before);

  await page.keyboard.press("Alt+4");
  const learns = page.getByRole("switch", { name: "learn on go" });
  const was = await learns.isChecked();
  await learns.focus();
  await page.keyboard.press("Enter");
  await becomes(
    () => learns.isChecked(),
    (on) => on !== was,
  );
  await page.keyboard.press("Enter");
  await becomes(
    () => learns.isChecked(),
    (on) => on === was,
  );
  expect(app.errors).toEqual([]);
});
