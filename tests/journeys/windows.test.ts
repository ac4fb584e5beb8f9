/** Catches two windows of one show out of step, and a second that does not go on when the first closes. */
import { bytesShown, bytesWhen, frames, openWindow, startApp, untilPlayingKept, word, type App } from "./app";
import type { Page } from "playwright-core";

let app: App;
beforeAll(async () => void (app = await startApp()));
afterAll(() => app?.stop());

const ask = async (page: Page, line: string) => {
  await page.locator("#ask").fill(line);
  await page.keyboard.press("Enter");
};

test("what one window does the other shows, and the stage goes on when the host closes", async () => {
  const host = app.page;
  await host.goto(`${app.base}/show/demo/rig`);
  await host.getByLabel("Ask bar").waitFor();
  await host.getByRole("tab", { name: "Universes" }).click();
  const guest = await openWindow(app, `${app.base}/show/demo/rig`);
  const errors: string[] = [];
  guest.on("pageerror", (e) => errors.push(e.message));
  await guest.getByLabel("Ask bar").waitFor();
  await guest.getByRole("tab", { name: "Universes" }).click();

  await ask(host, "1 at 60");
  await bytesWhen(guest, (b) => word(b, 5) === Math.round(0.6 * 65535));
  await ask(guest, "1 thru 2 at full");
  await bytesWhen(host, (b) => word(b, 5) === 65535 && word(b, 28) === 65535);
  await ask(guest, "99999");
  await guest.getByText("There is no fixture 99999").first().waitFor();
  await ask(guest, "undo");
  await bytesWhen(host, (b) => word(b, 5) === Math.round(0.6 * 65535));
  await ask(guest, "clear");
  await ask(guest, "go list 1 cue 3");
  await bytesWhen(guest, (b) => word(b, 5) > 1000);
  await ask(guest, "pause list 1");
  await untilPlayingKept(guest, (text) => text.includes('"paused":true'));
  await frames(guest, 20);
  const before = await bytesShown(guest);

  await host.close();
  await ask(guest, "12 at 5");
  const after = await bytesWhen(guest, (b) => word(b, 11 * 23 + 5) === Math.floor(0.05 * 65535 + 0.5));
  // But for that, nothing has changed on stage.
  const others = (bytes: number[]) => bytes.filter((_, i) => i !== 11 * 23 + 4 && i !== 11 * 23 + 5);
  expect(others(after)).toEqual(others(before));
  await ask(guest, "go list 1");
  await bytesWhen(guest, (b) => word(b, 5) > word(before, 5));

  const third = await openWindow({ ...app, page: guest }, `${app.base}/show/demo/rig`);
  await third.getByLabel("Ask bar").waitFor();
  await third.getByRole("tab", { name: "Universes" }).click();
  await bytesWhen(third, (b) => word(b, 11 * 23 + 5) === Math.floor(0.05 * 65535 + 0.5));
  expect(errors).toEqual([]);
});
