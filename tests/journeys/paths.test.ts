/** Catches a path for beginners that does not lead to a cue on the wire, or that cannot be closed, and a trial that leaves something behind. */
import { becomes, bytesWhen, startApp, word, type App } from "./app";

let app: App;
beforeAll(async () => void (app = await startApp({ paths: true })));
afterAll(() => app?.stop());

const strip = (name: string) => app.page.getByRole("region", { name });

test("a new show leads from nothing to a cue that plays, by its buttons and by its lines; closed, it stays closed", async () => {
  const { page, base } = app;
  await page.goto(base);
  await page.locator("[data-ready=true]").waitFor();
  await page.getByRole("button", { name: "New show" }).click();
  const steps = strip("First steps");
  const ticked = () => steps.getByLabel("done").count();
  await steps.waitFor();
  expect(await ticked()).toBe(0);
  await steps.getByRole("button", { name: "Patch 12 spots" }).click();
  await becomes(ticked, (n) => n === 1);
  // Two of them by typing what stands there.
  for (const after of [2, 3]) {
    while ((await ticked()) < after) {
      const line = (await steps.locator("code").textContent())!;
      await page.locator("#ask").fill(line);
      await page.keyboard.press("Enter");
      await becomes(
        async () => [await ticked(), await steps.locator("code").textContent()] as const,
        ([n, next]) => n === after || next !== line,
      );
    }
  }
  await steps.getByRole("button", { name: "Record a cue" }).click();
  await becomes(ticked, (n) => n === 4);
  await steps.getByRole("button", { name: "Play it" }).click();
  await becomes(ticked, (n) => n === 5);
  await page.getByRole("navigation").getByText("Build", { exact: true }).click();
  await page.getByTestId("held").getByText("Nothing is held").waitFor();
  await page.getByRole("navigation").getByText("Rig", { exact: true }).click();
  await page.getByRole("tab", { name: "Universes" }).click();
  await page.getByTestId("universe-1").click();
  await bytesWhen(page, (b) => word(b, 5) === 65_535);
  await steps.getByRole("button", { name: "Close: first steps" }).click();
  await steps.waitFor({ state: "detached" });
  await page.reload();
  await page.getByTestId("dmx").waitFor();
  expect(await steps.count()).toBe(0);
  await page.keyboard.press("F1");
  await page.getByRole("dialog", { name: "Handbook" }).getByRole("button", { name: "Show the first steps" }).click();
  await steps.waitFor();
  expect(app.errors).toEqual([]);
});

test("what is worth trying in the demo sets itself up and is taken back whole", async () => {
  const { page, base } = app;
  await page.goto(`${base}/show/demo/cues`);
  const trying = strip("Worth trying");
  await trying.getByText("Point twelve lamps at one spot").waitFor();
  const held = () => page.getByTestId("held").textContent();
  await trying.getByRole("button", { name: "Try it" }).click();
  await becomes(held, (text) => /12 fixtures/.test(text ?? ""));
  await trying.getByRole("button", { name: "The next one" }).click();
  await trying.getByRole("button", { name: "Try it" }).click();
  // Typed, not done: the one before is taken back first.
  await becomes(
    () => page.locator("#ask").inputValue(),
    (text) => text === "set cue 4 group 2 intensity at 20",
  );
  await trying.getByRole("button", { name: "Take it back" }).click();
  await becomes(
    () => page.locator("#ask").inputValue(),
    (text) => text === "",
  );
  await page.getByRole("navigation").getByText("Build", { exact: true }).click();
  await becomes(held, (text) => text === "Nothing is held");
  expect(app.errors).toEqual([]);
});
