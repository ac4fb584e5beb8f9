/** Catches what keeps people from using a place or a dialog: axe-core over all of them, nothing serious. */
import { source } from "axe-core";
import { startApp, untilStill, type App } from "./app";

let app: App;
beforeAll(async () => {
  app = await startApp();
  await app.page.goto(`${app.base}/show/demo/build`);
  await app.page.locator("#ask").waitFor();
});
afterAll(() => app?.stop());

interface Finding {
  id: string;
  impact: string;
  where: string[];
}

async function serious(): Promise<Finding[]> {
  const { page } = app;
  await untilStill(page);
  await page.evaluate(source);
  return page.evaluate(async () => {
    const { axe } = globalThis as unknown as {
      axe: {
        run(): Promise<{
          violations: { id: string; impact: string; nodes: { target: string[]; failureSummary: string }[] }[];
        }>;
      };
    };
    const { violations } = await axe.run();
    return violations
      .filter((v) => v.impact === "serious" || v.impact === "critical")
      .map(({ id, impact, nodes }) => ({
        id,
        impact,
        where: nodes
          .slice(0, 3)
          .map((n) => `${n.target.join(" ")}: ${n.failureSummary.split("\n").slice(1, 2).join(" ").trim()}`),
      }));
  });
}

const place = (key: string) => app.page.keyboard.press(key);
const ask = async (line: string) => {
  await app.page.locator("#ask").fill(line);
  await app.page.keyboard.press("Enter");
};
const close = async () => {
  await app.page.keyboard.press("Escape");
  await untilStill(app.page);
};

const VISITS: [what: string, go: () => Promise<unknown>, leave?: () => Promise<unknown>][] = [
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
      ["starter palettes", "Palettes to begin with"],
      ["the update", "Update what the held values came from"],
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
      await app.page.getByText("laid by hand").click()
    ),
    close,
  ],
  ["Record", () => app.page.getByTestId("record").click(), close],
  ["Why", () => ask("why 1 dimmer"), () => app.page.getByTestId("why").getByRole("button", { name: "Close" }).click()],
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
  const found: Record<string, Finding[]> = {};
  for (const [what, go, leave] of VISITS) {
    await go();
    const now = await serious();
    if (now.length > 0) found[what] = now;
    await leave?.();
  }
  await app.page.goto(app.base);
  await app.page.locator("[data-ready=true]").waitFor();
  const list = await serious();
  if (list.length > 0) found["the list of shows"] = list;
  expect(found).toEqual({});
});
