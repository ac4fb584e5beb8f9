/** Catches a break on the way from a table on paper to light on the wire. */
import { writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import type { Page } from "playwright-core";
import { becomes, bytesWhen, frames, startApp, type App } from "./app";

const TABLE = `Fixture ID,Label,Manufacturer,Model,Mode,Universe,Address,X (m),Y (m),Z (m)
101,Jetty 1,Saltmarsh,Kelp Wash,standard,1,1,-4.0,2.5,5.0
102,Jetty 2,Saltmarsh,Kelp Wash,standard,1,13,-2.0,2.5,5.0
103,"Jetty 3, end",Saltmarsh,Kelp Wash,standard,1,25,0.0,2.5,5.0
201,Buoy,Fathom,Lantern Par,rgbw,2,500,3.5,0.0,1.2
202,Ghost,Nobody,No Such Lamp,7ch,2,100,0,0,0
203,Off the end,Fathom,Lantern Par,rgbw,2,510,3.5,0.0,1.2
301,Spare,Generic,Dimmer,standard,,,1.0,1.0,4.0
`;
let app: App;
beforeAll(async () => void (app = await startApp({ painted: true })));
afterAll(() => app?.stop());

const ask = async (page: Page, ...lines: string[]) => {
  for (const line of lines) {
    await page.locator("#ask").fill(line);
    await page.keyboard.press("Enter");
  }
};
/** How red the reddest spot of the stage picture is, over its green. */
const redness = (page: Page) =>
  page.getByTestId("stage").evaluate(async (stage) => {
    const canvas = stage.querySelector("canvas")!;
    const copy = new OffscreenCanvas(canvas.width, canvas.height);
    const c = copy.getContext("2d")!;
    c.drawImage(canvas, 0, 0);
    const { data } = c.getImageData(0, 0, copy.width, copy.height);
    let most = 0;
    for (let i = 0; i < data.length; i += 4) most = Math.max(most, data[i]! - data[i + 1]!);
    return most;
  });

test("a table comes in, its universes go to the node, and a fixture is seen to arrive", async () => {
  const { page } = app;
  const file = join(tmpdir(), "bold-comet-rig.csv");
  writeFileSync(file, TABLE);
  await page.goto(app.base);
  await page.locator("[data-ready=true]").waitFor();
  await page.getByRole("button", { name: "New show" }).click();
  await page.locator("#ask").waitFor();
  await page.getByRole("navigation").getByText("Rig", { exact: true }).click();
  await page.getByRole("button", { name: "Import" }).click();
  await page.getByRole("menuitem", { name: /from a file/ }).click();
  await page.locator("input[type=file]").setInputFiles(file);
  const dialog = page.getByRole("dialog");
  await dialog.getByText("5 rows ready, 2 left out").waitFor();
  expect(await dialog.getByTestId("left-out").textContent()).toMatch(
    /line 6.*No Such Lamp.*not in the library.*line 7.*2:510/s,
  );
  // The lamp that is unknown here is matched by hand, and comes in.
  await dialog.getByRole("combobox", { name: "Type for No Such Lamp" }).fill("lantern par");
  await page.getByRole("option", { name: "Fathom Lantern Par · rgbw (4 ch)" }).click();
  await dialog.getByText("6 rows ready, 1 left out").waitFor();
  await dialog.getByRole("button", { name: "Add 6 fixtures" }).click();
  await page.getByRole("gridcell", { name: "Jetty 3, end" }).waitFor();

  await page.getByRole("tab", { name: "Outputs" }).click();
  await ask(page, `output 1 artnet to ${app.node} as 4`, `output 2 sacn to ${app.node}`);
  await page.getByTestId("output-1").getByText("Art-Net 4 (net 0, sub-net 0, universe 4)").waitFor();
  await page.getByRole("tab", { name: "Wire" }).click();
  await page.getByTestId("nodes").getByText(app.node).waitFor();
  await page.getByTestId("streams").getByRole("cell", { name: "sACN 2", exact: true }).waitFor();
  await ask(page, "101 at full colour at #ff0000", "101 tilt at 30");
  const wire = page.getByTestId("wire");
  const arrived = async (slot: number) => Number(await wire.locator(`[title^="1:${slot} "] b`).textContent());
  await becomes(
    () => arrived(5),
    (v) => v === 255,
  );
  expect([await arrived(7), await arrived(8), await arrived(9)]).toEqual([255, 0, 0]);
  await page.getByTestId("differing").getByText("arrives as sent").waitFor();
  // A slot held for a test arrives, too.
  await wire.locator('[title^="1:17 "]').click();
  await becomes(
    () => arrived(17),
    (v) => v === 255,
  );
  await page.getByRole("button", { name: "Stop holding 1 slot" }).click();
  await becomes(
    () => arrived(17),
    (v) => v === 0,
  );
  // One that is forgotten ends with the view.
  await wire.locator('[title^="1:18 "]').click();
  await becomes(
    () => arrived(18),
    (v) => v === 255,
  );

  await page.getByRole("tab", { name: "Universes" }).click();
  await bytesWhen(page, (b) => b[4] === 255 && b[17] === 47);
  await page.getByRole("navigation").getByText("Build", { exact: true }).click();
  await page.getByTestId("from-wire").click();
  await page.getByTestId("from-wire").getByText("from the wire: 2 universes").waitFor();
  await becomes(
    () => redness(page),
    (v) => v > 90,
  );
  // With the output off nothing new arrives: what is red on the wire is blue on the stage.
  await ask(page, "output 1 off");
  await frames(page, 20);
  await ask(page, "101 colour at #0000ff");
  await frames(page, 30);
  await page.getByTestId("from-wire").click();
  await becomes(
    () => redness(page),
    (v) => v < 60,
  );
  expect(app.errors).toEqual([]);
});
