/** Catches what keeps people from using Build or its dialogs. */
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
  ["Build", () => place("Alt+2")],
  [
    "Build with held values",
    async () => (await ask("1 thru 12 at 50 pan at 20 to -20"), await ask("21 thru 30 colour at #2ad1c9")),
  ],
  [
    "the Ask bar's list",
    () => app.page.locator("#ask").fill("1 thru 12 pa"),
    async () => (await close(), await close()),
  ],
  [
    "the Ask bar's refusal",
    () => app.page.locator("#ask").fill("999 at 50"),
    async () => (await close(), await close()),
  ],
  ...(
    [
      ["a palette in full", "Record a palette in full"],
      ["starter palettes", "Starter palettes"],
      ["the update", "Update the sources of held values"],
    ] as const
  ).map(([what, label]): [string, () => Promise<unknown>, () => Promise<unknown>] => [
    what,
    () => app.page.getByRole("button", { name: label }).click(),
    close,
  ]),
  ["inside a palette", () => app.page.getByRole("button", { name: /^43 / }).click({ button: "right" }), close],
  [
    "own times, and the values sheet",
    async () => (
      await ask("1 thru 12"),
      await app.page.getByLabel("Own times of intensity").click(),
      await app.page.getByRole("button", { name: "Values", exact: true }).click()
    ),
    () => app.page.getByRole("button", { name: "Shelf", exact: true }).click(),
  ],
  [
    "effects on the shelf, and their editor",
    async () => (
      await app.page.getByRole("tab", { name: "Effects" }).click(),
      await app.page.getByRole("button", { name: "More for effect 10" }).click(),
      await app.page.getByRole("menuitem", { name: "Edit" }).click(),
      await app.page.getByRole("region", { name: "Effect editor" }).waitFor()
    ),
    () => app.page.getByRole("button", { name: "Close the editor" }).click(),
  ],
  [
    "stops",
    async () => (
      await app.page.getByRole("button", { name: "More for effect 2", exact: true }).click(),
      await app.page.getByRole("menuitem", { name: "Edit" }).click(),
      await app.page.getByRole("region", { name: "Effect editor" }).waitFor()
    ),
    () => app.page.getByRole("button", { name: "Close the editor" }).click(),
  ],
  [
    "a wave drawn",
    async () => (
      await app.page.getByRole("tab", { name: "Waves" }).click(),
      await app.page.getByRole("button", { name: "draw a wave" }).click()
    ),
    async () => (await close(), await app.page.getByRole("tab", { name: "Colour" }).click()),
  ],
  [
    "a group's own plan",
    async () => (
      await app.page.getByLabel("More for group 3").click(),
      await app.page.getByRole("menuitem", { name: "Spreads over places go by" }).click(),
      await app.page.getByText("laid by hand").click()
    ),
    close,
  ],
  ["Record", () => app.page.getByTestId("record").click(), close],
  ["Why", () => ask("why 1 dimmer"), () => app.page.getByTestId("why").getByRole("button", { name: "Close" }).click()],
];

test("Build and its dialogs", async () => {
  expect(await findings(app.page, VISITS, close)).toEqual({});
});
