/** Catches effects that are not found, made, recorded and ended by the hands as they are by lines: to the bytes. */
import { becomes, bytesShown, bytesWhen, frames, handsOn, startApp, untilPlayingKept, word, type App } from "./app";

let app: App;
beforeAll(async () => void (app = await startApp()));
afterAll(() => app?.stop());

const { ask, place, universe } = handsOn(() => app);
const editor = () => app.page.getByRole("region", { name: "Effect editor" });
async function openEditor() {
  await place("Build");
  const button = app.page.getByRole("button", { name: "Effect", exact: true });
  await button.waitFor();
  if ((await button.getAttribute("aria-pressed")) === "false") await button.click();
  await editor().waitFor();
}
async function number(label: string, value: number) {
  const field = editor().getByLabel(label, { exact: true });
  await field.click();
  await field.fill(String(value));
  await app.page.keyboard.press("Enter");
}
async function choose(label: string, option: string) {
  await editor().getByLabel(label, { exact: true }).first().click();
  await app.page.getByRole("option", { name: option }).click();
}
/** The bytes at several instants, so many frames apart. */
async function seen(times: number, apart = 8): Promise<number[][]> {
  const found: number[][] = [];
  for (let i = 0; i < times; i++) {
    found.push(await bytesShown(app.page));
    await frames(app.page, apart);
  }
  return found;
}
/** The bytes at as many instants as it takes until so many values of what is read were seen. */
async function seenValues(count: number, read: (bytes: number[]) => number): Promise<number[][]> {
  const found = await seen(6);
  await becomes(
    async () => (found.push(...(await seen(1))), new Set(found.map(read)).size),
    (size) => size >= count,
  );
  return found;
}
/** The lanterns of the first of four segments. */
const SEGMENT = [1, 2, 3, 4, 5, 6];
/** Red of lantern n, 4 slots each. */
const red = (b: number[], n: number) => b[(n - 1) * 4]!;
const blue = (b: number[], n: number) => b[(n - 1) * 4 + 2]!;

test("a swell from the gallery: mirrored, slowed, recorded with a fade, left running by a value, ended by a stop", async () => {
  const { page, base } = app;
  await page.goto(base);
  await page.locator("[data-ready=true]").waitFor();
  await page.getByRole("button", { name: "New show" }).click();
  await page.getByText("Nothing is patched yet").waitFor();
  await ask("patch 24 lantern-par as 1 at 1:1", "1 thru 24");
  await openEditor();
  await editor().getByRole("button", { name: "Swell", exact: true }).click();
  await number("mirror", 4);
  await number("Cycles a minute", 30);
  // Its top, grabbed on the picture.
  const line = editor().locator('[data-grip="high"] rect');
  const box = (await line.boundingBox())!;
  await page.mouse.move(box.x + 20, box.y + 9);
  await page.mouse.down();
  await page.mouse.move(box.x + 20, box.y - 60, { steps: 6 });
  await page.mouse.up();
  await editor().getByText("high 100").waitFor();
  await ask("record cue 1 fade 20", "clear", "1 thru 24 red at 50", "record cue 2 fade 0", "clear");
  await ask("1 thru 24 dimmer stop", "record cue 3 fade 0", "clear");
  await universe(1);
  // On its way in it is dimmer than when it is all there; then it runs, the segments alike.
  await ask('record macro 1 "In part" "go" "wait 1" "pause"', "macro 1");
  await untilPlayingKept(page, (text) => text.includes('"paused":true'));
  await frames(page, 20);
  const [part] = await seen(1);
  expect(Math.max(...SEGMENT.map((n) => red(part!, n)))).toBeGreaterThan(0);
  expect(Math.max(...SEGMENT.map((n) => red(part!, n)))).toBeLessThan(200);
  await ask("go", "rate list 1 at 400");
  await bytesWhen(page, (b) => SEGMENT.some((n) => red(b, n) > 245));
  await ask("rate list 1 at 100");
  for (const b of await seenValues(4, (bytes) => red(bytes, 1))) {
    expect(Math.abs(red(b, 1) - red(b, 12))).toBeLessThanOrEqual(1);
    expect(Math.abs(red(b, 1) - red(b, 13))).toBeLessThanOrEqual(1);
  }
  // A value of another attribute leaves it running; the stop ends it.
  await ask("go");
  await bytesWhen(page, (b) => SEGMENT.some((n) => blue(b, n) > 200) && SEGMENT.every((n) => red(b, n) <= 128));
  await ask("go");
  await bytesWhen(page, (b) => [1, 2, 3, 4].every((n) => blue(b, n) === 0));
  await ask("release list 1");
  expect(app.errors).toEqual([]);
});

test("a walk between two palettes without mud; a movement that stays between its ends; a wave that was drawn", async () => {
  const { page } = app;
  await ask("1 thru 24 colour at #ff0000", 'record palette 1 "Ember" any only colour', "clear");
  await ask("1 thru 24 colour at #0000ff", 'record palette 2 "Deep" any only colour', "clear");
  await ask("1 thru 24 at full");
  await openEditor();
  await editor().getByRole("button", { name: "Two colours" }).click();
  await choose("Palette of the stop", "1 Ember");
  await editor()
    .getByRole("button", { name: /^#ff7d08/ })
    .click();
  await choose("Palette of the stop", "2 Deep");
  // Kept a while, then at once into the other: nothing lies between.
  for (const stop of [/◇ Ember/, /◇ Deep/]) {
    await editor().getByRole("button", { name: stop }).click();
    await editor().getByRole("radiogroup", { name: "Transition to the next stop" }).getByText("snap").click();
  }
  await number("Cycles a minute", 40);
  await universe(1);
  for (const b of await seenValues(2, (bytes) => red(bytes, 1)))
    expect([
      [255, 0],
      [0, 255],
    ]).toContainEqual([red(b, 1), blue(b, 1)]);

  await ask("clear", "patch 4 kelp-wash as 31 at 2:1", "31 thru 34 pan at -60 tilt at 20");
  await ask(
    'record palette 21 "Port" any only position',
    "31 thru 34 pan at 40",
    'record palette 22 "Starboard" any only position',
    "clear",
  );
  await ask("31 thru 34 at full");
  await page.getByRole("navigation").getByText("Build", { exact: true }).click();
  await ask("31 thru 34 pan wave sine low 0 high 10 bpm 40");
  await openEditor();
  await choose("High as a palette", "22 Starboard");
  await choose("Low as a palette", "21 Port");
  await universe(2);
  // -270 to 270 degrees over 16 bits.
  const at = (degrees: number) => Math.round(((degrees + 270) / 540) * 65535);
  const pans = new Set<number>();
  await becomes(
    async () => {
      const pan = word(await bytesShown(page), 1);
      expect(pan).toBeGreaterThanOrEqual(at(-60) - 1);
      expect(pan).toBeLessThanOrEqual(at(40) + 1);
      pans.add(pan);
      return Math.max(...pans) - Math.min(...pans);
    },
    (width) => width > at(20) - at(-20),
  );

  // Drawn on the shelf, with a point added by a press, then run.
  await place("Build");
  await page.getByRole("button", { name: "Close the editor" }).click();
  await page.getByRole("tab", { name: "Waves" }).click();
  await page.getByRole("button", { name: "draw a wave" }).click();
  await page.getByLabel("Name").fill("Limp");
  await page.getByLabel("The wave: press to add a point, drag to move one").click({ position: { x: 300, y: 40 } });
  await page.getByRole("radiogroup", { name: "How points are joined" }).getByText("stepped").click();
  await page.getByRole("button", { name: "Record the wave" }).click();
  await ask("clear", "1 thru 24 dimmer wave sine low 0 high 100 bpm 60 across 0");
  await openEditor();
  await choose("Wave", "“Limp”");
  await universe(1);
  // A step each: at most as many values as points.
  const steps = [...(await seenValues(2, (b) => red(b, 1))), ...(await seen(12))];
  expect(new Set(steps.map((b) => red(b, 1))).size).toBeLessThanOrEqual(4);
  await ask("clear");
  expect(app.errors).toEqual([]);
});

test("a voice muted and alone, a trial that is never recorded, before and after by a key, a lane's speed", async () => {
  const { page } = app;
  await ask("clear", "release all", "31 thru 34 at full", "31 thru 34 pan wave sine low -20 high 20 bpm 60");
  await ask("31 thru 34 dimmer wave sine low 20 high 100 bpm 60", 'record effect 9 "Nod" cast', "clear");
  await place("Build");
  await page.getByRole("button", { name: "Close the editor" }).click();
  await page.getByRole("tab", { name: "Effects" }).click();
  await page.getByRole("button", { name: "More for effect 9", exact: true }).click();
  await page.getByRole("menuitem", { name: "Edit" }).click();
  await editor().waitFor();
  // A trial: on stage, but kept out of recording.
  await ask("31 thru 34");
  await editor().getByRole("button", { name: "Trial", exact: true }).click();
  await universe(2);
  const moving = async (slot: number) => new Set((await seen(6)).map((b) => word(b, slot))).size > 2;
  const moves = () =>
    becomes(
      () => moving(1),
      (on) => on,
    );
  await moves();
  await page.locator("#ask").fill("record cue 77");
  await page
    .getByText(/kept out of recording/)
    .first()
    .waitFor();
  await page.keyboard.press("Escape");
  await place("Build");
  await editor()
    .getByRole("button", { name: /^Mute pan/i })
    .click();
  await universe(2);
  await becomes(
    () => moving(1),
    (on) => !on,
  );
  await place("Build");
  await editor()
    .getByRole("button", { name: /^Solo pan/i })
    .click();
  await universe(2);
  await moves();
  await place("Build");
  await editor()
    .getByRole("button", { name: /^Solo pan/i })
    .click();
  // By keys: another speed, then as it was when it was opened, and back.
  await ask("set effect 9 voice 1 bpm 20");
  const speed = () => editor().getByLabel("Cycles a minute", { exact: true }).first().inputValue();
  await becomes(speed, (v) => parseFloat(v) === 20);
  await page.keyboard.press("Alt+b");
  await becomes(speed, (v) => parseFloat(v) === 60);
  await page.keyboard.press("Alt+b");
  await becomes(speed, (v) => parseFloat(v) === 20);
  await editor().getByRole("button", { name: "Trial", exact: true }).click();
  await ask("clear", "set list 9 kind effect 9", "go list 9");
  // Its lane at no speed stands still.
  await place("Run");
  const rate = page.getByTestId("lane-9").getByLabel(/^Speed of Nod/);
  await rate.click();
  await page.keyboard.type("0");
  await page.keyboard.press("Enter");
  await universe(2);
  await becomes(
    () => moving(1),
    (on) => !on,
  );
  await ask("release list 9");
  expect(app.errors).toEqual([]);
});
