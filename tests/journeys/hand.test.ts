/** Catches numbers that do not follow the hand: drawn orders, scrubbed times, the wheel that changes nothing by accident. */
import type { Locator } from "playwright-core";
import { fitStage, toPixels } from "@/picture/plan";
import { becomes, frames, startApp, untilRecalled, untilResting, untilSaved, type App } from "./app";

let app: App;
beforeAll(async () => void (app = await startApp()));
afterAll(() => app.stop());

const place = (name: string) => app.page.getByRole("navigation").getByText(name, { exact: true }).click();
const type = async (line: string) => {
  await app.page.locator("#ask").fill(line);
  await app.page.keyboard.press("Enter");
};
async function drag(from: [number, number], ...through: [number, number][]): Promise<void> {
  const { mouse } = app.page;
  await mouse.move(...from);
  await mouse.down();
  for (const point of through) await mouse.move(...point, { steps: 12 });
  await mouse.up();
}
const middle = async (of: Locator): Promise<[number, number]> => {
  const box = (await of.boundingBox())!;
  return [box.x + box.width / 2, box.y + box.height / 2];
};

test("an order is drawn, times are scrubbed, and scrolling over a number leaves it alone", async () => {
  const { page } = app;
  await page.goto(app.base);
  await page.locator("[data-ready=true]").waitFor();
  await page.getByRole("button", { name: "New show" }).click();
  await page.locator("#ask").waitFor();
  await type("patch 3 kelp-wash as 1");
  const hang = [-3, 0, 3].map((x, i) => ({ x, y: i === 1 ? 1 : -1 }));
  for (const [i, { x, y }] of hang.entries()) await type(`${i + 1} place ${x} ${y} 5`);
  await type("1 thru 3 at 60");
  await type("record cue 1 up 3");
  await place("Build");
  await page.getByTestId("stage").waitFor();
  await untilResting(page.getByTestId("stage"));

  const stage = (await page.getByTestId("stage").boundingBox())!;
  const view = fitStage(hang, stage.width, stage.height);
  const [one, two, three] = hang.map(({ x, y }): [number, number] => {
    const [px, py] = toPixels(view, x, y);
    return [stage.x + px, stage.y + py];
  }) as [[number, number], [number, number], [number, number]];
  const order = () => page.getByTestId("order").textContent();
  await type("none");
  await drag(three, two, one);
  await becomes(order, (text) => text === "3 2 1");
  // From a lamp that is selected, those passed come first.
  await drag(one, two);
  await becomes(order, (text) => text === "1 2 3");
  await page.mouse.click(...two);
  await becomes(order, (text) => text === "2");
  await drag([stage.x + 8, stage.y + 60], [stage.x + stage.width - 8, stage.y + stage.height - 60]);
  await becomes(order, (text) => text === "1 2 3");

  // A spread over the plan, its settings by wheel and by choice.
  await page.locator('input[aria-label="Spread over"]').click();
  await page.getByRole("option", { name: /from the centre/ }).click();
  const mirror = page.getByRole("textbox", { name: "mirror" });
  await drag(await middle(mirror), [(await middle(mirror))[0] + 5, (await middle(mirror))[1]]);
  await becomes(
    () => mirror.inputValue(),
    (text) => text === "2",
  );
  // A press takes it to be typed.
  await page.mouse.click(...(await middle(mirror)));
  await page.keyboard.type("1");
  await becomes(
    () => mirror.inputValue(),
    (text) => text === "1",
  );
  await type("at 0 to 100");
  await becomes(
    () => page.locator("[data-attribute=Dimmer]").textContent(),
    (text) => text!.includes("0 … 100"),
  );
  await type("clear");

  await place("Cues");
  const up = page.getByRole("button", { name: /^Up time of cue 1:/ });
  const before = await up.textContent();
  await page.mouse.move(...(await middle(up)));
  await page.mouse.wheel(0, 120);
  await frames(page, 20);
  expect(await page.getByRole("button", { name: /^Up time of cue 1:/ }).textContent()).toBe(before);
  await page.mouse.wheel(0, -400);
  await untilResting(up);
  const from = await middle(up);
  await drag(from, [from[0] + 40, from[1]]);
  await becomes(
    () => up.textContent(),
    (text) => Number(text) === Number(before) + 1,
  );
  await up.focus();
  await page.keyboard.press("ArrowDown");
  await becomes(
    () => up.textContent(),
    (text) => text === String(Number(before) + 0.9),
  );
  await page.keyboard.press("Shift+ArrowDown");
  await becomes(
    () => up.textContent(),
    (text) => text === String(Number(before) + 0.89),
  );
  await page.locator("#ask").focus();
  for (let i = 0; i < 3 && (await up.textContent()) !== before; i++) {
    await page.keyboard.press("Control+z");
    await frames(page, 20);
  }
  await becomes(
    () => up.textContent(),
    (text) => text === before,
  );
  await page.mouse.click(...(await middle(up)));
  await page.keyboard.type("7.5");
  await page.keyboard.press("Enter");
  await becomes(
    () => up.textContent(),
    (text) => text === "7.5",
  );
  await page.locator("#ask").focus();
  await page.keyboard.press("Control+z");
  await becomes(
    () => up.textContent(),
    (text) => text === before,
  );

  // What was done before a reload can be undone after it, and done again.
  await drag(from, [from[0] + 40, from[1]]);
  await becomes(
    () => up.textContent(),
    (text) => Number(text) === Number(before) + 1,
  );
  await untilSaved(page);
  await page.reload();
  await up.waitFor();
  await untilRecalled(page, "undo");
  await page.keyboard.press("Control+z");
  await becomes(
    () => up.textContent(),
    (text) => text === before,
  );
  await untilSaved(page);
  await page.reload();
  await up.waitFor();
  await untilRecalled(page, "redo");
  await page.keyboard.press("Control+Shift+z");
  await becomes(
    () => up.textContent(),
    (text) => Number(text) === Number(before) + 1,
  );
  expect(app.errors).toEqual([]);
});

test("places divided by hand stay so when the window is opened again", async () => {
  const { page } = app;
  for (const [name, grip, panel] of [
    ["Cues", "Width of the list", "cues-across-first"],
    ["Run", "Width of the deck", "run-across-first"],
    ["Check", "Width of what is found", "check-across-first"],
  ] as const) {
    await place(name);
    const wide = async () => Math.round((await page.locator(`#${panel}`).boundingBox())!.width);
    const line = (await page.getByRole("separator", { name: grip }).boundingBox())!;
    const before = await wide();
    await drag([line.x, line.y + 300], [line.x - 60, line.y + 300]);
    await becomes(wide, (now) => now < before - 40);
    const after = await wide();
    await page.reload();
    await page.locator("#ask").waitFor();
    await becomes(wide, (now) => Math.abs(now - after) <= 1);
  }
  expect(app.errors).toEqual([]);
});
