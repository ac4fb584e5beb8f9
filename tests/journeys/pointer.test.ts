/** Catches a step of a show that the pointer alone cannot do, from the first patch to playback. */
import { bytesShown, bytesWhen, frames, startApp, untilResting, word, type App } from "./app";

let app: App;
beforeAll(async () => void (app = await startApp()));
afterAll(() => app?.stop());

const place = (name: string) => app.page.getByRole("navigation").getByText(name, { exact: true }).click();

async function drag(from: [number, number], to: [number, number]) {
  const { mouse } = app.page;
  await mouse.move(...from);
  await mouse.down();
  for (let i = 1; i <= 8; i++)
    await mouse.move(from[0] + ((to[0] - from[0]) * i) / 8, from[1] + ((to[1] - from[1]) * i) / 8);
  await mouse.up();
}

async function boxOf(testId: string) {
  const box = await app.page.getByTestId(testId).boundingBox();
  if (!box) throw new Error(`${testId} is not there`);
  return box;
}

/** Patches six of a type in the dialog, by its buttons. */
async function patchSix(model: string) {
  const { page } = app;
  await page
    .getByRole("button", { name: /^Patch (fixtures|the first)/ })
    .first()
    .click();
  const dialog = page.getByRole("dialog");
  await dialog.getByRole("combobox", { name: "Type" }).click();
  await page
    .getByRole("option", { name: new RegExp(`^${model}`) })
    .first()
    .click();
  const up = dialog.locator(".mantine-NumberInput-control").first();
  for (let i = 0; i < 5; i++) await up.click();
  await dialog.getByRole("button", { name: `Patch 6 ${model}` }).click();
  await dialog.waitFor({ state: "hidden" });
}

/** Selects the lamps in a part of the stage, given by its height from the top, 0..1. */
async function marquee(top: number, bottom: number) {
  const box = await boxOf("stage");
  await drag([box.x + 8, box.y + box.height * top], [box.x + box.width - 8, box.y + box.height * bottom]);
}

async function dragNumber(label: string, by: number) {
  const box = await app.page.locator(`[data-attribute="${label}"] [aria-label^="${label}"]`).boundingBox();
  const [x, y] = [box!.x + box!.width / 2, box!.y + box!.height / 2];
  await drag([x, y], [x + by, y]);
}

async function record() {
  const { page } = app;
  await page.getByTestId("record").click();
  await page
    .getByTestId("record-says")
    .getByText(/records a new cue/)
    .waitFor();
  await page.getByRole("dialog").getByRole("button", { name: "Record", exact: true }).click();
  await page.getByTestId("record-says").waitFor({ state: "hidden" });
}

const clock = () => app.page.getByTestId("now-clock");
const untilArrived = async () => {
  await clock()
    .getByText(/of 3 s/)
    .waitFor();
  await clock().getByText(/./).waitFor({ state: "detached" });
  await frames(app.page, 14);
};

/** Gives go and pauses on the way; once more where a busy machine was too late for it. */
async function goHalfWay() {
  const { page } = app;
  for (;;) {
    await page.getByRole("button", { name: /^Go Main/ }).click();
    await clock()
      .getByText(/of 3 s/)
      .waitFor();
    await page.getByRole("button", { name: /^Pause Main/ }).click();
    await page.getByText("paused").first().waitFor();
    if ((await clock().textContent()) !== "") return;
    await page.getByRole("button", { name: /^Release Main/ }).click();
    await page.getByText("Main · released").waitFor();
  }
}

test("patch, group, values, cues and playback without a key", async () => {
  const { page, base } = app;
  await page.goto(base);
  await page.locator("[data-ready=true]").waitFor();
  await page.getByRole("button", { name: "New show" }).click();
  await page.getByText("Nothing is patched yet").waitFor();
  await patchSix("Petrel Spot");
  await patchSix("Kelp Wash");

  await place("Build");
  await untilResting(page.getByTestId("stage"));
  await marquee(0.98, 0.5);
  await page.getByRole("heading", { name: "6 × Petrel Spot" }).waitFor();
  await page.getByRole("button", { name: "Record the selection as a new group" }).click();
  await marquee(0.02, 0.5);
  await page.getByRole("heading", { name: "6 × Kelp Wash" }).waitFor();
  await page.getByRole("button", { name: "Record the selection as a new group" }).click();

  await dragNumber("Dimmer", 110);
  await page.getByTestId("colour-field").click({ position: { x: 4, y: 3 } });
  await page.getByRole("button", { name: "Petrel Spot 1 thru 6" }).click();
  await dragNumber("Dimmer", 110);
  const pad = await boxOf("position-pad");
  await drag(
    [pad.x + pad.width / 2, pad.y + pad.height / 2],
    [pad.x + pad.width / 2 + 30, pad.y + pad.height / 2 - 20],
  );
  // What the hand did stands as the line that does it, ready to be had again.
  await page
    .getByTestId("ask-last")
    .getByText(/^pan at -?[\d.]+ tilt at -?[\d.]+$/)
    .waitFor();
  await record();
  await page.getByRole("button", { name: "Kelp Wash 7 thru 12" }).click();
  await dragNumber("Dimmer", -60);
  await record();
  // First the selection, then what is held.
  await page.getByRole("button", { name: "Clear" }).click();
  await page.getByTestId("held").getByText(/Held/).waitFor();
  await page.getByRole("button", { name: "Clear" }).click();

  await place("Rig");
  await page.getByRole("tab", { name: "Universes" }).click();
  const dark = await bytesShown(page);
  expect(word(dark, 5)).toBe(0);
  await place("Run");
  await goHalfWay();
  await place("Rig");
  await page.getByRole("tab", { name: "Universes" }).click();
  const middle = await bytesWhen(page, (b) => word(b, 5) > 0);
  await place("Run");
  await page.getByRole("button", { name: /^Go Main/ }).click();
  await untilArrived();
  await place("Rig");
  await page.getByRole("tab", { name: "Universes" }).click();
  const first = await bytesShown(page);
  const target = word(first, 5) / 65535;
  expect(target).toBeGreaterThan(0.3);
  const share = word(middle, 5) / word(first, 5);
  expect(share).toBeGreaterThan(0.01);
  expect(share).toBeLessThan(1);
  // Every fixture is as far as the first: the wash's dimmer (8 bit), the spot's pan (16 bit, from its middle).
  const wash = 6 * 23 + 5;
  expect(Math.abs(middle[wash - 1]! - first[wash - 1]! * share)).toBeLessThan(1.01);
  expect(Math.abs(word(middle, 1) - 32767.5 - (word(first, 1) - 32767.5) * share)).toBeLessThan(2);
  expect(first.slice(wash + 1, wash + 5)).toEqual([255, expect.any(Number), expect.any(Number), 0]);

  await place("Run");
  await page.getByRole("button", { name: /^Go Main/ }).click();
  await untilArrived();
  await place("Rig");
  await page.getByRole("tab", { name: "Universes" }).click();
  const second = await bytesShown(page);
  expect(second[wash - 1]!).toBeLessThan(first[wash - 1]! - 20);
  expect(second.slice(0, 138)).toEqual(first.slice(0, 138));
  expect(app.errors).toEqual([]);
});
