/** Catches hands that cannot find a pattern, spread a colour, aim or delay on the stage: the work of Build, to the bytes. */
import { beamOf } from "@/core/patch/room";
import { becomes, bytesShown, bytesWhen, handsOn, startApp, word, type App } from "./app";

let app: App;
beforeAll(async () => void (app = await startApp()));
afterAll(() => app?.stop());

const { ask, place, universe } = handsOn(() => app);
/** Red, green and blue of lantern n (from 41), 4 slots each. */
const rgb = (bytes: number[], n: number) => bytes.slice((n - 41) * 4, (n - 41) * 4 + 3);
const dimmer = (b: number[], n: number) => word(b, (n - 1) * 23 + 5);

test("a rainbow, a pattern found by trial and kept as cues, delays from the ends, an aim that follows the truss", async () => {
  const { page, base } = app;
  await page.goto(base);
  await page.locator("[data-ready=true]").waitFor();
  await page.getByRole("button", { name: "New show" }).click();
  await page.getByText("Nothing is patched yet").waitFor();
  await ask("patch 24 lantern-par as 41 at 1:1", "patch 12 petrel-spot as 1 at 2:1");
  await ask("41 thru 64 place 6 to -6 2 5", "1 thru 12 place -5.5 to 5.5 4 6");

  // A rainbow over 24 lanterns by where they hang.
  await place("Build");
  await ask("41 thru 64");
  await page.getByRole("button", { name: "Order by place on the plan" }).click();
  await page.getByRole("menuitem", { name: "Left to right" }).click();
  await page.getByTestId("order").getByText("64", { exact: true }).waitFor();
  await ask("at full colour at #ff0000 to #00ff00 to #0000ff");
  await universe(1);
  const rainbow = await bytesWhen(page, (b) => rgb(b, 64)[0] === 255);
  expect(rgb(rainbow, 64)).toEqual([255, 0, 0]);
  expect(rgb(rainbow, 41)).toEqual([0, 0, 255]);
  expect(rgb(rainbow, 52)[1]).toBeGreaterThan(230);

  // A three-fold pattern, tried out on the picture: nothing on the wire moves.
  await place("Build");
  await page.getByRole("button", { name: "three-fold", exact: true }).click();
  await page.getByRole("button", { name: "Trial", exact: true }).click();
  await page.getByText(/^Trial: the steps light up/).waitFor();
  await page.getByRole("button", { name: "four-fold", exact: true }).click();
  await page.getByRole("button", { name: "three-fold", exact: true }).click();
  expect(await page.getByTestId("held").textContent()).toMatch(/24 fixtures/);
  await page.getByRole("button", { name: "Trial", exact: true }).click();
  await page.getByRole("button", { name: "Record steps" }).click();
  await page
    .getByTestId("steps-says")
    .getByText(/8 steps as cue 1 to 8 of list 2/)
    .waitFor();
  await page.getByRole("button", { name: "Record 8 cues" }).click();
  await universe(1);
  expect(await bytesShown(page)).toEqual(rainbow);
  await ask("clear", "go list 2");
  const lit = (b: number[]) => Array.from({ length: 24 }, (_, k) => 41 + k).filter((n) => rgb(b, n).some((v) => v > 0));
  const first = await bytesWhen(page, (b) => lit(b).length === 3);
  expect(lit(first)).toEqual([48, 49, 64]);
  expect(rgb(first, 64)).toEqual([255, 0, 0]);
  await ask("go list 2");
  const second = await bytesWhen(page, (b) => lit(b).length === 3 && lit(b)[0] === 47);
  expect(lit(second)).toEqual([47, 50, 63]);
  expect(rgb(second, 63)).toEqual(rgb(rainbow, 63));
  await ask("release list 2");

  // Eleven delayed from the ends to the middle.
  await ask("1 thru 11 at full delay 0 to 10 to 0 fade 0", "record list 3 cue 1", "clear", "go list 3");
  await universe(2);
  // However seldom a busy machine looks: whatever is there, those nearer to the ends are there too.
  const arrived = new Set<string>();
  await bytesWhen(page, (b) => {
    const there = Array.from({ length: 11 }, (_, k) => dimmer(b, k + 1) === 65535);
    const deep = there.lastIndexOf(true, 5);
    expect(there.map((on, k) => on === Math.min(k, 10 - k) <= deep)).toEqual(Array(11).fill(true));
    arrived.add(there.join());
    return deep === 5;
  });
  expect(arrived.size).toBeGreaterThan(3);
  await ask("release list 3");

  // Twelve spots on one point of the stage; the truss goes half a metre upstage, and they hit it still.
  await place("Build");
  await ask("1 thru 12");
  await page.getByRole("button", { name: "Aim on the stage" }).click();
  const stage = (await page.getByTestId("stage").boundingBox())!;
  await page.mouse.click(stage.x + stage.width * 0.55, stage.y + stage.height * 0.75);
  const said = await page
    .getByTestId("ask-last")
    .getByText(/^aim at/)
    .textContent();
  const [x, y] = said!.split(" ").slice(2).map(Number) as [number, number];
  await page.getByTestId("aim-mark").waitFor();
  await page.keyboard.press("Escape");
  const hits = (b: number[], upstage: number): number =>
    Math.max(
      ...Array.from({ length: 12 }, (_, k) => {
        const pan = -270 + (word(b, k * 23 + 1) / 65535) * 540;
        const tilt = -135 + (word(b, k * 23 + 3) / 65535) * 270;
        const [dx, dy, dz] = beamOf({ turn: { x: 0, y: 0, z: 0 } }, pan, tilt);
        return Math.hypot(-5.5 + k + (dx * 6) / -dz - x, upstage + (dy * 6) / -dz - y);
      }),
    );
  await universe(2);
  await bytesWhen(page, (b) => hits(b, 4) < 0.02);
  const before = await bytesShown(page);
  await ask("1 thru 12 place -5.5 to 5.5 4.5 6");
  const after = await bytesWhen(page, (b) => hits(b, 4.5) < 0.02);
  expect(after.slice(0, 4)).not.toEqual(before.slice(0, 4));

  // A spread typed into a range of the values sheet.
  await place("Build");
  await page.getByRole("button", { name: "Values", exact: true }).click();
  const cells = page.getByRole("grid", { name: "Values of fixtures" }).locator('[data-attribute="Dimmer"]');
  const [from, to] = await Promise.all([cells.nth(0).boundingBox(), cells.nth(3).boundingBox()]);
  await page.mouse.move(from!.x + 20, from!.y + 10);
  await page.mouse.down();
  await page.mouse.move(to!.x + 20, to!.y + 10, { steps: 6 });
  await page.mouse.up();
  await page.keyboard.type("20 to 80");
  await page.keyboard.press("Enter");
  await universe(2);
  const typed = await bytesWhen(page, (b) => dimmer(b, 4) === 52428);
  expect([1, 2, 3, 4].map((n) => dimmer(typed, n))).toEqual([13107, 26214, 39321, 52428]);
  expect(app.errors).toEqual([]);
});

test("blind: what is held is seen and edited on the picture and in numbers, no byte moves, and it comes on stage when told", async () => {
  const { page } = app;
  await ask("clear", "release all", "1 thru 4 at 40", "record list 9 cue 1 fade 0", "clear", "go list 9");
  await universe(2);
  await bytesWhen(page, (b) => dimmer(b, 1) === 26214);
  await place("Build");
  await ask("1 + 2");
  await page.keyboard.press("Alt+n");
  await becomes(
    async () => await page.getByRole("region", { name: "Spread" }).textContent(),
    (text) => text!.includes("1 of 2"),
  );
  await page.keyboard.press("Alt+w");
  await page.keyboard.press("Alt+Shift+L");
  await ask("at 80");
  const frame = page.getByTestId("blind");
  await frame.getByText("what is held is on this picture, not on stage").waitFor();
  const number = page.getByRole("button", { name: /^Dimmer .*,/ }).first();
  await becomes(
    async () => await number.getAttribute("aria-label"),
    (says) => says === "Dimmer 80.0 %, held",
  );
  const cells = page.getByRole("grid", { name: "Values of fixtures" }).locator('[data-attribute="Dimmer"]');
  await becomes(
    async () => (await cells.allTextContents()).slice(0, 3).join(),
    (texts) => texts === "80.0 %,80.0 %,40.0 %",
  );
  // A relative hand goes on from what is held.
  await number.focus();
  await page.keyboard.press("ArrowDown");
  await becomes(
    async () => await number.textContent(),
    (text) => text !== "80.0 %" && Number.parseFloat(text!) > 75,
  );
  // A look at the live stage, and back.
  await page.keyboard.press("Alt+l");
  await becomes(
    async () => await number.textContent(),
    (text) => text === "40.0 %",
  );
  await frame.getByRole("button", { name: "Blind picture" }).click();
  await ask("1 + 2 at 80");
  await universe(2);
  expect(dimmer(await bytesShown(page), 1)).toBe(26214);
  // Run shows the stage as it is, and says why.
  await place("Run");
  await page.getByTestId("truth-blind").waitFor();
  expect(await page.getByTestId("blind").count()).toBe(0);
  await place("Build");
  await page.keyboard.press("Alt+Shift+L");
  await frame.waitFor({ state: "detached" });
  await universe(2);
  await bytesWhen(page, (b) => dimmer(b, 1) === 52428 && dimmer(b, 2) === 52428 && dimmer(b, 3) === 26214);
  await ask("clear", "release all");
  expect(app.errors).toEqual([]);
});

test("the colour panels point at what the selection shows, whoever set it", async () => {
  const { page } = app;
  await place("Build");
  await ask("clear", "41 thru 46 at 50 colour at 3200K");
  const panel = page.getByRole("region", { name: "Colour" });
  await panel.getByText("White", { exact: true }).first().click();
  const kelvin = panel.getByRole("slider", { name: "Colour temperature" });
  const shown = () => kelvin.getAttribute("aria-valuenow");
  await becomes(shown, (text) => text === "3200");
  await kelvin.focus();
  await page.keyboard.press("ArrowRight");
  await becomes(shown, (text) => text === "3250");
  await ask("colour at 5600K");
  await becomes(shown, (text) => text === "5600");
  await ask("41 colour at #ff0000");
  await ask("41 thru 46");
  await panel.getByText("several", { exact: true }).waitFor();
  await ask("clear");
  expect(app.errors).toEqual([]);
});

test("a word is asked of the handbook, its picture is there, and its example stands in the Ask bar", async () => {
  const { page } = app;
  await page.locator("#ask").fill("tracking");
  await page.getByRole("option", { name: "handbook: Tracking" }).waitFor();
  await page.keyboard.press("ArrowDown");
  await page.keyboard.press("Enter");
  const page1 = page.getByRole("region", { name: "Tracking" });
  await page1.getByRole("cell", { name: "↧ 40" }).first().waitFor();
  expect(await page.locator("#ask").inputValue()).toBe("");
  await page1.getByTitle("Put it into the Ask bar").click();
  expect(await page.locator("#ask").inputValue()).toBe("set cue 4 1 intensity released");
  await page.locator("#ask").fill("");
  // A word that is a command goes on as one.
  await page.locator("#ask").fill("spr");
  await page.getByRole("option", { name: "handbook: Spread" }).waitFor();
  await page.keyboard.press("Tab");
  await becomes(
    async () => await page.locator("#ask").inputValue(),
    (text) => text.startsWith("spread"),
  );
  await page.locator("#ask").fill("");
  await page.keyboard.press("F1");
  expect(app.errors).toEqual([]);
});
