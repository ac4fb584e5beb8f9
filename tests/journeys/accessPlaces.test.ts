/** Catches what keeps people from using a place other than Build, or a dialog. */
import { findings, hands, type Visit } from "./access";
import { startApp, type App } from "./app";

let app: App;
beforeAll(async () => {
  app = await startApp();
  await app.page.goto(`${app.base}/show/demo/build`);
  await app.page.locator("#ask").waitFor();
});
afterAll(() => app?.stop());

const { place, ask, close } = hands(() => app);

const VISITS: Visit[] = [
  ["Cues", () => place("Alt+3")],
  ["Run", () => place("Alt+4")],
  ["Check", () => place("Alt+5")],
  ...["Patch", "Library", "Universes", "Plan", "Outputs", "Wire"].map((tab): [string, () => Promise<unknown>] => [
    `Rig, ${tab}`,
    async () => (await place("Alt+1"), await app.page.getByRole("tab", { name: tab }).click()),
  ]),
  [
    "Patch fixtures",
    async () => (
      await app.page.getByRole("tab", { name: "Patch" }).click(),
      await app.page.getByTestId("patch-open").click()
    ),
    close,
  ],
  ["all keys", () => app.page.evaluate(() => dispatchEvent(new Event("bold-comet-keys"))), close],
  [
    "earlier moments",
    async () => (
      await app.page.getByTestId("show-menu").click(),
      await app.page.getByRole("menuitem", { name: "Earlier moments" }).click()
    ),
    close,
  ],
  [
    "what must not be overlooked",
    async () => (await ask("blind on"), await ask("1 park")),
    async () => (await ask("blind off"), await ask("all unpark")),
  ],
];

test("places and dialogs", async () => {
  const { page, base } = app;
  VISITS.push([
    "the list of shows",
    async () => (await page.goto(base), await page.locator("[data-ready=true]").waitFor()),
  ]);
  expect(await findings(page, VISITS, close)).toEqual({});
});
