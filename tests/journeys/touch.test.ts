/** Catches work in Build that fingers alone cannot do: choosing, holding, stepping, recording, letting go, to the bytes. */
import { becomes, bytesWhen, passes, startApp, type App } from "./app";

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
  await more("Let go of", "Colour");
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
