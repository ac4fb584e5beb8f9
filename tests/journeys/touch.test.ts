/** Catches work in Build that fingers alone cannot do: choosing, holding, stepping, recording, letting go, to the bytes. */
import { becomes, bytesWhen, passes, startApp, untilStill, type App } from "./app";

let app: App;
beforeAll(async () => void (app = await startApp({ hasTouch: true })));
afterAll(() => app?.stop());

const place = (name: string) => app.page.getByRole("navigation").getByText(name, { exact: true }).tap();
/** Cyan, magenta and yellow of mast spot n. */
const filters = (b: number[], n: number) => b.slice((n - 1) * 23 + 7, (n - 1) * 23 + 10);
async function mast() {
  await place("Rig");
  await app.page.getByRole("tab", { name: "Universes" }).tap();
  await app.page.getByTestId("universe-1").tap();
}

test("a group, a palette, a step of the spread, a colour by hand, and letting go, by touch alone", async () => {
  const { page, base } = app;
  await page.goto(`${base}/show/demo/build`);
  await page.getByTestId("stage").waitFor();
  await page.getByText("Mast spots", { exact: true }).tap();
  await page.getByRole("tab", { name: "Colour", exact: true }).tap();
  await page.getByRole("button", { name: /^49 / }).tap();
  await page
    .getByTestId("held")
    .getByText(/12 fixtures/)
    .waitFor();
  await mast();
  const red = await bytesWhen(page, (b) => filters(b, 1)[1]! > 150 && filters(b, 12)[1]! > 150);
  expect(filters(red, 1)[0]).toBeLessThan(30);
  // One of them at a time: the next takes another colour, the others keep theirs.
  await place("Build");
  await page.getByRole("button", { name: "Next step" }).tap();
  await page.getByRole("button", { name: /^41 / }).tap();
  await mast();
  const blue = await bytesWhen(page, (b) => filters(b, 1)[0]! > 100);
  expect(filters(blue, 2)).toEqual(filters(red, 2));
  // The field, by a finger; then everything is let go of in two touches.
  await place("Build");
  const field = (await page.getByTestId("colour-field").boundingBox())!;
  await page.touchscreen.tap(field.x + field.width * 0.34, field.y + 4);
  await mast();
  await bytesWhen(page, (b) => filters(b, 1).join() !== filters(blue, 1).join());
  await place("Build");
  await page.getByRole("button", { name: "Clear", exact: true }).tap();
  await page.getByRole("button", { name: "Clear", exact: true }).tap();
  await mast();
  await bytesWhen(page, (b) => [1, 2, 12].every((n) => filters(b, n).every((v) => v === 0)));
  expect(app.errors).toEqual([]);
});

test("groups are put in another order by a finger that rests and moves", async () => {
  const { page } = app;
  await place("Build");
  const names = () => page.getByRole("region", { name: "Groups" }).locator("[data-reorder]").allInnerTexts();
  const middle = async (name: string) => {
    const box = (await page
      .getByRole("button", { name: new RegExp(name) })
      .first()
      .boundingBox())!;
    return { x: box.x + 30, y: box.y + box.height / 2 };
  };
  const [from, to] = [await middle("3 Rail port"), await middle("1 Mast spots")];
  const cdp = await page.context().newCDPSession(page);
  const touch = (type: "touchStart" | "touchMove" | "touchEnd", at?: { x: number; y: number }) =>
    cdp.send("Input.dispatchTouchEvent", { type, touchPoints: at ? [at] : [] });
  await touch("touchStart", from);
  await passes(page, 450);
  await touch("touchMove", { x: from.x, y: from.y - 10 });
  await touch("touchMove", to);
  await touch("touchEnd");
  await becomes(names, (rows) => /Rail port/.test(rows[0] ?? "") && /Mast spots/.test(rows[1] ?? ""));
  expect(app.errors).toEqual([]);
});

test("what could be typed is there for a finger: locate, kept out, copied from another, blind, let go of a part", async () => {
  const { page } = app;
  await place("Build");
  const held = () => page.getByTestId("held").textContent();
  const more = async (...path: (RegExp | string)[]) => {
    await page.getByRole("button", { name: "More for what is selected and held" }).tap();
    for (const name of path) await page.getByRole("menuitem", { name, exact: true }).tap();
  };
  await page.getByText("Mast spots", { exact: true }).tap();
  await more(/^Locate/);
  await becomes(held, (text) => /12 fixtures: intensity, position/.test(text!));
  await more("Keep out of recording", "Position");
  await becomes(held, (text) => /kept out/.test(text!));
  await more("Keep out of recording", "Position: record it again");
  await becomes(held, (text) => !/kept out/.test(text!));
  await more("Clear", "Colour");
  await becomes(held, (text) => !/colour/.test(text!));
  await page.getByText("Rail port", { exact: true }).tap();
  await more(/^Copy from another/);
  await page.getByRole("dialog").getByRole("button", { name: "Copy", exact: true }).tap();
  await becomes(held, (text) => /20 fixtures/.test(text!));
  await more(/^Blind/);
  const frame = page.getByTestId("blind");
  await frame.getByText("what is held is on this picture, not on stage").waitFor();
  await frame.getByRole("button", { name: "Go live" }).tap();
  await frame.waitFor({ state: "detached" });
  await page.getByRole("button", { name: "Clear", exact: true }).tap();
  await page.getByRole("button", { name: "Clear", exact: true }).tap();
  await becomes(held, (text) => text === "Nothing is held");
  expect(app.errors).toEqual([]);
});

test("a mark and an icon explain themselves under a finger that rests, on hover and on focus, and go with it", async () => {
  const { page } = app;
  await place("Build");
  const hint = page.getByRole("tooltip");
  const cdp = await page.context().newCDPSession(page);
  const rest = async (name: RegExp | string) => {
    const box = (await page.getByRole("button", { name, exact: true }).first().boundingBox())!;
    const at = { x: box.x + box.width / 2, y: box.y + box.height / 2 };
    await cdp.send("Input.dispatchTouchEvent", { type: "touchStart", touchPoints: [at] });
  };
  await rest("Farther");
  await hint.getByText("Farther").waitFor();
  await cdp.send("Input.dispatchTouchEvent", { type: "touchEnd", touchPoints: [] });
  await hint.waitFor({ state: "detached" });
  await page.getByRole("button", { name: "More for group 1", exact: true }).hover();
  await hint.getByText("More for group 1").waitFor();
  await page.mouse.move(640, 300);
  await hint.waitFor({ state: "detached" });
  await page.locator("#ask").focus();
  await page.keyboard.press("Tab");
  await hint.getByText("House dim, dark or daylight").waitFor();
  await page.keyboard.press("Escape");
  expect(app.errors).toEqual([]);
});

/** What is pressed, typed into or dragged and is in sight, smaller than a finger: where it is, and its size. */
const small = () =>
  app.page.evaluate(() => {
    const hit = "button, [role=button], [role=tab], [role=slider], [role=menuitem], input, select, label:has(input)";
    return [...document.querySelectorAll<HTMLElement>(hit)].flatMap((el) => {
      // A field or a switch is pressed with all that is around it.
      const whole = el.matches("input") ? (el.closest("label, [class*=Input-wrapper], [class*=-body]") ?? el) : el;
      const { x, y, width, height } = whole.getBoundingClientRect();
      const at = document.elementFromPoint(x + width / 2, y + height / 2);
      if (width < 2 || !at || !(whole.contains(at) || at.contains(whole))) return [];
      const more = getComputedStyle(whole, "::after");
      const around = more.position === "absolute" ? -2 * (parseFloat(more.top) || 0) : 0;
      const least = Math.min(width, height + around);
      const said = el.getAttribute("aria-label") ?? el.textContent ?? "";
      return least < 39.5 ? [`${said.trim().slice(0, 40)}: ${Math.round(width)} x ${Math.round(height)}`] : [];
    });
  });

test("at 1024 x 768 nothing that a finger works on is smaller than one", async () => {
  const { page } = app;
  await page.setViewportSize({ width: 1024, height: 768 });
  await page.goto(`${app.base}/show/demo/build`);
  await page.getByTestId("stage").waitFor();
  await page.getByText("Mast spots", { exact: true }).tap();
  await page.getByRole("region", { name: "Spread" }).waitFor();
  expect(await small()).toEqual([]);
  for (const view of ["Effect", "Values"]) {
    await page.getByRole("button", { name: view, exact: true }).tap();
    await page
      .getByRole(view === "Values" ? "grid" : "region", { name: view === "Values" ? /Values/ : /Effect/ })
      .first()
      .waitFor();
    expect([view, ...(await small())]).toEqual([view]);
  }
  for (const [name, there] of [
    ["Rig", page.getByRole("tab", { name: "Patch" })],
    ["Cues", page.getByText("Harbour sleeps").first()],
    ["Run", page.getByRole("slider", { name: "Grand master" })],
    ["Check", page.getByRole("button", { name: /^Put aside/ }).first()],
  ] as const) {
    await place(name);
    await there.waitFor();
    expect([name, ...(await small())]).toEqual([name]);
    if (name !== "Rig") continue;
    for (const tab of ["Library", "Universes", "Plan", "Outputs", "Wire", "Patch"]) {
      await page.getByRole("tab", { name: tab }).tap();
      await untilStill(page);
      expect([tab, ...(await small())]).toEqual([tab]);
    }
    await page.getByRole("button", { name: "Patch fixtures" }).tap();
    await page.getByRole("dialog").waitFor();
    await untilStill(page);
    expect(await small()).toEqual([]);
    await page.keyboard.press("Escape");
    await page.getByRole("dialog").waitFor({ state: "detached" });
  }
  expect(app.errors).toEqual([]);
});
