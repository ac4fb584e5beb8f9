/** Catches a show that fingers, a surface or timecode cannot play as its lines do: to the bytes. */
import { becomes, frames, handsOn, openWindow, passes, startApp, untilSaved, type App } from "./app";

let app: App;
beforeAll(async () => {
  app = await startApp({ hasTouch: true });
  await app.page.goto(`${app.base}/show/demo/build`);
  await app.page.getByTestId("stage").waitFor();
});
afterAll(() => app?.stop());

const { ask } = handsOn(() => app);
const lane = (number: number) => app.page.getByTestId(`lane-${number}`);
const tap = (testId: string) => app.page.getByTestId(testId).tap();
/** A finger on a page's name, as often as a hand would until it shows. */
const turnTo = (page: number) =>
  becomes(
    async () => {
      const name = app.page.getByTestId(`page-${page}`);
      if ((await name.getAttribute("aria-pressed")) !== "true") await name.tap();
      return name.getAttribute("aria-pressed");
    },
    (pressed) => pressed === "true",
  );
const place = (name: string) => app.page.getByRole("navigation").getByText(name, { exact: true }).tap();

/** What goes out for a fixture's parameter, as Why says it. */
async function sent(what: string): Promise<number> {
  await ask(`why ${what}`);
  const text = await app.page
    .getByTestId("why")
    .getByText(/DMX \d+:\d+ = \d+/)
    .first()
    .textContent();
  await app.page.getByTestId("why").getByRole("button", { name: "Close" }).click();
  return Number(/= (\d+)/.exec(text!)![1]);
}
const sends = (what: string, check: (value: number) => boolean) => becomes(() => sent(what), check);

/** A finger put down somewhere in a lane and drawn up by a share of its height, and lifted. */
async function finger(number: number, by: number) {
  const box = (await lane(number).boundingBox())!;
  const cdp = await app.context.newCDPSession(app.page);
  const [x, y] = [box.x + box.width / 2, box.y + 40];
  const at = (k: number) => [{ x, y: y - (by * box.height * k) / 8 }];
  await cdp.send("Input.dispatchTouchEvent", { type: "touchStart", touchPoints: at(0) });
  for (let k = 1; k <= 8; k++) await cdp.send("Input.dispatchTouchEvent", { type: "touchMove", touchPoints: at(k) });
  await cdp.send("Input.dispatchTouchEvent", { type: "touchEnd", touchPoints: [] });
  await cdp.detach();
  // A tap that follows at once may be taken as the second of two.
  await passes(app.page, 400);
}
const level = (number: number) =>
  lane(number)
    .getByLabel(/^Options of/)
    .textContent()
    .then(Number);

test("the show by touch alone: go, a fader grabbed anywhere, a pad, a chase tapped in, a morph through its looks", async () => {
  const { page } = app;
  await place("Run");
  await page.getByLabel("Go Main").tap();
  await becomes(
    () => lane(1).getByTestId("lane-cue").textContent(),
    (text) => text!.includes("1 Harbour sleeps"),
  );
  // A double press by a nervous finger is one go.
  await page.getByLabel("Go Main").evaluate((button) => {
    for (let k = 0; k < 2; k++) button.dispatchEvent(new PointerEvent("pointerdown", { bubbles: true, button: 0 }));
  });
  await becomes(
    () => lane(1).getByTestId("lane-cue").textContent(),
    (text) => text!.includes("2 Keeper climbs"),
  );
  // Where a finger lands is nothing: only how far it is drawn counts.
  expect(await level(6)).toBe(0);
  await finger(6, 0.5);
  await becomes(
    () => level(6),
    (v) => v > 45 && v < 65,
  );

  await turnTo(2);
  await becomes(
    () => page.getByTestId("elsewhere").textContent(),
    (text) => text!.includes("Booth specials runs on page 1"),
  );
  await becomes(
    async () => {
      await page.getByLabel("Tap Lantern chase").tap();
      await passes(page, 480);
      return Number(/([\d.]+) bpm/.exec((await lane(7).textContent())!)?.[1]);
    },
    // A busy machine taps slower than it means to; after two seconds a tap begins anew.
    (bpm) => bpm >= 30 && bpm < 128 && bpm !== 96,
  );
  await tap("pad-10");
  await becomes(
    () => page.getByTestId("pad-10").getAttribute("data-on"),
    (on) => on === "true",
  );
  await tap("pad-10");
  await becomes(
    () => page.getByTestId("pad-10").getAttribute("data-on"),
    (on) => on === "false",
  );

  await turnTo(1);
  await page.getByLabel("Release Main").tap();
  await turnTo(2);
  expect(await level(9)).toBe(0);
  await finger(9, 1.05);
  await becomes(
    () => level(9),
    (v) => v === 100,
  );
  await sends("71.1 red", (v) => v === 230);
  await finger(9, -1.05);
  await becomes(
    () => level(9),
    (v) => v === 0,
  );
  await ask("level list 9 at 66.66667");
  await sends("71.1 blue", (v) => v > 120 && v < 193);
  await sends("71.1 red", (v) => v < 170);
  await ask("level list 9 at 0", "release all");
  expect(app.errors).toEqual([]);
});

test("two lists fight: the lanes tell who has the stage, and Why tells them apart", async () => {
  const { page } = app;
  await ask("clear", "81 at 30", 'record list 51 cue 1 "Low" fade 0', "clear");
  await ask("81 at 80", 'record list 52 cue 1 "High" fade 0', "clear");
  await ask("put list 51 on page 1 place 8", "put list 52 on page 1 place 9");
  await turnTo(1);
  await lane(52).getByLabel(/^Go/).tap();
  await lane(51).getByLabel(/^Go/).tap();
  await lane(51).locator("[data-has=all]").waitFor();
  await lane(52).locator("[data-has=none]").waitFor();
  await ask("why 81 dimmer");
  const why = page.getByTestId("why");
  await why.getByText(/Low/).first().waitFor();
  await why.getByText(/High/).first().waitFor();
  await why.getByRole("button", { name: "Close" }).click();
  await sends("81 dimmer", (v) => v === 77 || v === 76);
  await lane(51)
    .getByLabel(/^Release/)
    .tap();
  await sends("81 dimmer", (v) => v === 204);
  await ask("release all");
  expect(app.errors).toEqual([]);
});

test("timecode from its source: run, located forth and back, the look of that time each time", async () => {
  await turnTo(2);
  const source = await openWindow(app, `${app.base}/standin/timecode`);
  await source.getByRole("button", { name: "Run", exact: true }).click();
  await becomes(
    () => app.page.getByTestId("timecode").textContent(),
    (text) => text!.startsWith("0:00:0") && text !== "0:00:00:00",
  );
  await source.getByRole("button", { name: "Stop", exact: true }).click();
  const locate = async (to: string) => {
    await source.getByLabel("Locate", { exact: true }).first().fill(to);
    await source.getByRole("button", { name: "Locate" }).click();
  };
  const full = (v: number) => v === 204 || v === 52428;
  for (const [to, cue, first, thunder] of [
    ["0:02.2", "1 First flash", full, (v: number) => v === 0],
    ["0:06", "3 Thunder", (v: number) => v === 0, (v: number) => v > 170 && v < 185],
    ["0:03", "2 Dark again", (v: number) => v === 0, (v: number) => v === 0],
    ["0:20", "4 Rolls away", (v: number) => v === 0, (v: number) => v === 0],
    ["0:02.2", "1 First flash", full, (v: number) => v === 0],
  ] as const) {
    await locate(to);
    await becomes(
      () => lane(11).getByTestId("lane-cue").textContent(),
      (text) => text!.includes(cue),
    );
    await sends("91 dimmer", first);
    await sends("93.1 dimmer", thunder);
  }
  await source.close();
  await ask("timecode stop", "release all");
  expect(app.errors).toEqual([]);
});

test("a surface fader is learned and used, and never makes a level jump; over MIDI and over OSC", async () => {
  const { page } = app;
  await turnTo(1);
  const surface = await openWindow(app, `${app.base}/standin/surface`);
  const fader = (n: number, to: number) => surface.getByLabel(`Fader ${n}`, { exact: true }).fill(String(to));
  const learn = async (move: () => Promise<void>) => {
    await page.getByTestId("show-menu").click();
    await page.getByRole("menuitem", { name: "Control surfaces" }).click();
    await page.getByRole("button", { name: /^Learn/ }).click();
    await lane(2).click({ position: { x: 40, y: 40 } });
    await page.getByTestId("learning").getByText("level of list 2").waitFor();
    await move();
    await page.getByTestId("learning").getByText("Learning: press").waitFor();
    await page.getByRole("button", { name: "Done" }).click();
  };
  await learn(() => fader(1, 90));
  expect(await level(2)).toBe(100);
  await fader(1, 20);
  await frames(surface, 20);
  // It was never where the level is.
  expect(await level(2)).toBe(100);
  await fader(1, 127);
  await fader(1, 64);
  await becomes(
    () => level(2),
    (v) => v === 50,
  );
  await ask("level list 2 at 80");
  await becomes(
    () => level(2),
    (v) => v === 80,
  );
  await fader(1, 60);
  await frames(surface, 20);
  expect(await level(2)).toBe(80);
  await fader(1, 103);
  await becomes(
    () => level(2),
    (v) => v === 81,
  );
  await surface.getByText("OSC", { exact: true }).click();
  // Off until a person turns it on.
  await surface.getByText(/^OSC is not heard/).waitFor();
  await page.getByTestId("show-menu").click();
  await page.getByRole("menuitem", { name: "Control surfaces" }).click();
  await page.getByRole("switch", { name: "Listen for Open Sound Control" }).check();
  await page.getByTestId("osc-in").getByText("Heard at 127.0.0.1").waitFor();
  await page.keyboard.press("Escape");
  await surface.getByText(/^to UDP port/).waitFor();
  await learn(() => fader(2, 30));
  await fader(2, 104);
  await fader(2, 64);
  await becomes(
    () => level(2),
    (v) => v === 50,
  );
  await surface.close();
  await ask("level list 2 at 100");
  expect(app.errors).toEqual([]);
});

test("the beam server from its page: patterns, tap while held, its sequence, blackout", async () => {
  const { page } = app;
  await tap("page-3");
  await page.getByLabel("Go Beam server").tap();
  const pattern = () => sent("95 MediaContent1");
  await tap("pad-6");
  const fan = await pattern();
  await tap("pad-8");
  await becomes(pattern, (v) => v !== fan);
  expect(await page.getByTestId("pad-6").getAttribute("data-on")).toBe("false");
  await tap("pad-11");
  await becomes(pattern, (v) => v === 0);
  await page.getByLabel("Go Beam sequence").tap();
  await becomes(
    () => lane(30).getByTestId("lane-cue").textContent(),
    (text) => text!.includes("Slow turn") || text!.includes("Quick turn"),
  );
  await becomes(
    () => page.getByTestId("pad-11").getAttribute("data-on"),
    (on) => on === "false",
  );
  await page.getByTestId("release-all").tap();
  await untilSaved(page);
  expect(app.errors).toEqual([]);
});
