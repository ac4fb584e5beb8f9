// Takes docs/screenshots/ from the demo show. Usage: node tools/make-pictures.mjs [folder]
import { spawn } from "node:child_process";
import { mkdirSync } from "node:fs";
import { dirname, join } from "node:path";
import { fileURLToPath } from "node:url";
import { launch } from "./browser.mjs";

const root = join(dirname(fileURLToPath(import.meta.url)), "..");
const out = process.argv[2] ?? join(root, "docs/screenshots");
const port = 4630;
const base = `http://127.0.0.1:${port}`;
mkdirSync(out, { recursive: true });

const server = spawn(process.execPath, [join(root, "tools/serve.mjs"), "--port", String(port)], {
  stdio: ["ignore", "pipe", "inherit"],
});
await new Promise((resolve) => server.stdout.once("data", resolve));
const browser = await launch();
try {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  page.on("pageerror", (error) => console.error("page:", error.message));
  page.on("console", (message) => message.type() === "error" && console.error("console:", message.text()));
  const ask = async (...lines) => {
    for (const line of lines) {
      await page.locator("#ask").fill(line);
      await page.keyboard.press("Enter");
    }
  };
  const place = async (name) => {
    await page.getByRole("navigation").getByText(name, { exact: true }).click();
    await page.waitForURL(`**/${name.toLowerCase()}`);
    await page.mouse.move(640, 795);
    await page.waitForTimeout(900);
  };
  const shot = (name) => page.screenshot({ path: join(out, `${name}.png`) });

  await page.goto(base);
  await page.getByText("The Salt Lantern").waitFor();
  await shot("shows");
  await page.goto(`${base}/show/demo/build`);
  await page.getByTestId("stage").waitFor();
  await page.waitForTimeout(1500);
  await ask("go list 1 cue 3", "go list 3", "go list 4");
  await page.waitForTimeout(9500);
  await ask("group 2", "at 82 palette 45 colour delay 0 to 3");
  await page.locator("#ask").fill("21 thru 36 zoom at 15 to 40");
  await page.waitForTimeout(700);
  await shot("build");
  await page.locator("#ask").fill("");
  await page.keyboard.press("Escape");
  await page.keyboard.press("Escape");
  await ask("group 2");
  await page.getByRole("button", { name: "Values", exact: true }).click();
  await page.getByRole("combobox", { name: "Which fixtures" }).click();
  await page.getByRole("option", { name: "selected" }).click();
  await page.waitForTimeout(900);
  await shot("values");
  await page.getByRole("button", { name: "Shelf", exact: true }).click();
  await page.getByRole("tab", { name: "Focus" }).click();
  await page.getByRole("button", { name: /^83 / }).click({ button: "right" });
  await page.waitForTimeout(600);
  await shot("palette");
  await page.keyboard.press("Escape");
  await page.getByRole("tab", { name: "Colour" }).click();
  await ask("why 21 dimmer");
  await page.waitForTimeout(400);
  await shot("why");
  await page.getByRole("button", { name: "Close" }).first().click();
  await page.keyboard.press("Shift+Escape");
  await ask("group 5", "at full", "effect 1");
  await page.getByRole("tab", { name: "Effects" }).click();
  await page.getByRole("button", { name: "More for effect 1", exact: true }).click();
  await page.getByRole("menuitem", { name: "Edit" }).click();
  await page.waitForTimeout(1600);
  await shot("effect");
  await page.getByRole("button", { name: "Close the editor" }).click();
  await ask("clear", "group 2", "at full", "effect 2");
  await page.getByRole("button", { name: "More for effect 2", exact: true }).click();
  await page.getByRole("menuitem", { name: "Edit" }).click();
  await page.waitForTimeout(1600);
  await shot("stops");
  await page.getByRole("button", { name: "Close the editor" }).click();
  await page.getByRole("tab", { name: "Colour" }).click();
  await page.keyboard.press("Shift+Escape");
  await ask("21");
  await place("Cues");
  await page.getByTestId("cue-4").click({ position: { x: 20, y: 20 } });
  await page.locator("#ask").fill("delete cue 4 track");
  await page.waitForTimeout(700);
  await shot("cues");
  await page.locator("#ask").fill("");
  await page.keyboard.press("Escape");
  await page.getByRole("button", { name: "More for cue 7", exact: true }).click();
  await page.getByRole("menuitem", { name: /Timeline/ }).click();
  await page.waitForTimeout(1500);
  const chart = await page.getByTestId("timeline-chart").boundingBox();
  await page.mouse.move(chart.x + chart.width * 0.45, chart.y + chart.height * 0.5);
  await page.waitForTimeout(700);
  await shot("timeline");
  await page.keyboard.press("Escape");
  await place("Run");
  await ask("go list 1 cue 4");
  await page.waitForTimeout(4200);
  await shot("run");
  await page.waitForTimeout(4500);
  await place("Rig");
  await ask("21 thru 28");
  await page.waitForTimeout(400);
  await shot("rig");
  const tab = async (name, ms = 600) => {
    await page.getByRole("tab", { name, exact: true }).click();
    await page.waitForTimeout(ms);
  };
  await tab("Library");
  await page.getByRole("option", { name: /^Skerry/ }).click();
  await page.getByRole("option", { name: /^Gannet Profile/ }).click();
  await shot("library");
  await tab("Universes");
  await shot("universes");
  await tab("Plan");
  await shot("plan");
  await tab("Outputs", 1200);
  await shot("outputs");
  await tab("Wire", 4000);
  await shot("wire");
  await tab("Patch");
  await page.getByRole("button", { name: "Import" }).click();
  await page.locator("input[type=file]").setInputFiles(join(root, "tests/shows/rig.csv"));
  await page.waitForTimeout(700);
  await shot("import");
  await page.keyboard.press("Escape");
  await page.getByTestId("patch-open").click();
  await page.getByLabel("How many").fill("6");
  await page.getByText("From address").click();
  await page.getByLabel("First address").fill("1:200");
  await page.waitForTimeout(500);
  await shot("patch");
  await page.keyboard.press("Escape");
  await place("Check");
  await shot("check");
} finally {
  await browser.close();
  server.kill("SIGTERM");
}
