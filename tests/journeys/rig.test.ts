/** Catches a maker's type that cannot be worked with, a swap that loses looks, a rig or a show that does not come over, a room that is not lit by the wire. */
import { readFileSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { strToU8, zipSync } from "fflate";
import { BASE, channel, description, mode, zipped } from "@tests/setup/gdtf";
import { writeGdtf } from "@/core/exchange/gdtf/file";
import { libraryType } from "@/core/fixture/library/library";
import { becomes, bytesWhen, handsOn, openWindow, startApp, untilSaved, type App } from "./app";

let app: App;
const folder = mkdtempSync(join(tmpdir(), "bold-comet-rig-"));
beforeAll(async () => void (app = await startApp()));
afterAll(async () => {
  await app?.stop();
  rmSync(folder, { recursive: true, force: true });
});

const { ask, place, universe } = handsOn(() => app);
const file = (name: string) => join(folder, name);

async function newShow() {
  const { page, base } = app;
  await page.goto(base);
  await page.locator("[data-ready=true]").waitFor();
  await page.getByRole("button", { name: "New show", exact: true }).click();
  await page.waitForURL("**/show/**");
  await page.locator("#ask").waitFor();
}

async function importFile(name: string) {
  const { page } = app;
  await place("Rig");
  await page.getByRole("button", { name: "Import" }).click();
  await page.getByRole("menuitem", { name: /from a file/ }).click();
  await page.getByLabel("File to import").setInputFiles(file(name));
}

async function download(button: () => Promise<void>, name: string) {
  const coming = app.page.waitForEvent("download");
  await button();
  await (await coming).saveAs(file(name));
}

test("a maker's type comes in, is patched and programmed, and is swapped for one of ours with its looks kept", async () => {
  const { page } = app;
  // Another maker's lamp: as ours, but for what it is called and two channels the other way round.
  const type = structuredClone(libraryType("kelp-wash")!);
  const [mode] = type.modes;
  mode!.channels.splice(2, 2, mode!.channels[3]!, mode!.channels[2]!);
  writeFileSync(
    file("brine.gdtf"),
    writeGdtf({ ...type, id: "brine-wash", maker: "Brine & Sons", model: "Brine Wash", guid: undefined }),
  );
  await newShow();
  await importFile("brine.gdtf");
  await page.getByRole("dialog").getByText("Every channel of every mode comes in.").waitFor();
  await page.getByRole("button", { name: "Import the type" }).click();
  await page.getByRole("dialog").waitFor({ state: "hidden" });
  await ask(
    "patch 4 brine-sons-brine-wash as 1 at 1:1",
    "1 thru 4 at full",
    "1 thru 4 red at 40",
    "1 thru 4 green at 80",
  );
  await ask("1 thru 4 blue at 0", "1 thru 4 white at 0", "record cue 1 fade 0", "clear", "go list 1 cue 1");
  await universe(1);
  // Shutter before dimmer, as its file says.
  await bytesWhen(page, (b) => b[4] === 47 && b[5] === 255 && b[6] === 102 && b[7] === 204);
  await ask("1 thru 4");
  await page.getByRole("tab", { name: "Patch" }).click();
  await page.getByRole("button", { name: "4 selected" }).click();
  await page.getByRole("menuitem", { name: "Swap type" }).click();
  const dialog = page.getByRole("dialog");
  await dialog.getByRole("combobox", { name: "Type" }).fill("kelp wash");
  await page
    .getByRole("option", { name: /Kelp Wash/ })
    .first()
    .click();
  await dialog.getByTestId("swap-table").getByText("carries over").first().waitFor();
  await dialog.getByRole("button", { name: "Swap 4 fixtures" }).click();
  await dialog.waitFor({ state: "hidden" });
  await universe(1);
  await bytesWhen(page, (b) => b[4] === 255 && b[5] === 47 && b[6] === 102 && b[7] === 204);
  // One step back, and it is the maker's again.
  await ask("undo");
  await bytesWhen(page, (b) => b[4] === 47 && b[5] === 255 && b[6] === 102);
  await untilSaved(page);
});

test("the rig goes out as MVR and comes in again: what was moved meanwhile is seen first and put back", async () => {
  const { page } = app;
  await place("Rig");
  await page.getByRole("button", { name: "Export" }).click();
  await download(() => page.getByRole("menuitem", { name: /MVR/ }).click(), "rig.mvr");
  expect(readFileSync(file("rig.mvr")).subarray(0, 2).toString()).toBe("PK");
  await ask("2 address 9:1", "3 place 5 5 5", "remove 4");
  await importFile("rig.mvr");
  const dialog = page.getByRole("dialog");
  await dialog.getByTestId("mvr-counts").getByText("1 new fixture, 2 changed, 1 as they are.").waitFor();
  await dialog.getByText("address 9:1 → 1:13").waitFor();
  await dialog.getByRole("button", { name: "Import" }).click();
  await dialog.waitFor({ state: "hidden" });
  await universe(1);
  await ask("1 thru 4 at 50");
  await bytesWhen(page, (b) => [5, 17, 29, 41].every((slot) => b[slot]! === 128));
  expect(app.errors).toEqual([]);
});

test("palettes and effects go from one show of this browser to another", async () => {
  const { page } = app;
  await ask("clear", "1 thru 4 red at 100", 'record palette 7 "Ember" any only colour');
  await ask("1 thru 4 dimmer wave sine low 0 high 100 bpm 60", "1 thru 4", 'record effect 3 "Breathe"', "clear");
  await untilSaved(page);
  await newShow();
  await ask("patch 4 lantern-par as 1 at 1:1", "1 blue at 30", 'record palette 7 "Mine" each', "clear");
  await place("Rig");
  await page.getByRole("button", { name: "Import" }).click();
  await page.getByRole("menuitem", { name: "Bring over from another show" }).click();
  const dialog = page.getByRole("dialog");
  await dialog
    .getByRole("button", { name: /New show/ })
    .first()
    .click();
  await dialog.getByText("7 Ember").click();
  await dialog.getByRole("tab", { name: /Effects/ }).click();
  await dialog.getByText("3 Breathe").click();
  await dialog.getByTestId("bring-table").getByText("Breathe").waitFor();
  // What has its number here is told value by value before it is replaced.
  await dialog.getByText("replace what is there").click();
  await dialog.getByRole("button", { name: "replaces what has its number" }).click();
  const differs = dialog.getByTestId("bring-differs");
  await differs.getByRole("row", { name: "name Mine Ember" }).waitFor();
  await differs.getByRole("row", { name: "1 Blue 30 % nothing" }).waitFor();
  await dialog.getByRole("button", { name: "Bring over", exact: true }).click();
  await dialog.waitFor({ state: "hidden" });
  await ask("1 thru 4 at full", "1 thru 4 palette 7");
  await universe(1);
  // Red over the green that was in force when it was recorded.
  await bytesWhen(page, (b) => b[0] === 255 && Math.abs(b[1]! - 204) <= 2 && b[2] === 0);
  expect(app.errors).toEqual([]);
});

test("a type is changed by hand, tried against the bytes; fixtures are made again with all they have", async () => {
  const { page } = app;
  await newShow();
  await ask("patch 2 kelp-wash as 1 at 1:1", "1 at full", "record cue 1 fade 0", "clear", "go");
  await place("Rig");
  await page.getByRole("tab", { name: "Library" }).click();
  await page
    .getByRole("option", { name: /Kelp Wash/ })
    .first()
    .click();
  await page.getByRole("button", { name: "Change", exact: true }).click();
  const channels = page.getByRole("listbox", { name: "Channels of the mode" });
  const middle = async (name: string) => {
    const box = (await channels.getByText(name, { exact: true }).boundingBox())!;
    return [box.x + 12, box.y + box.height / 2] as const;
  };
  const [red, dimmer] = [await middle("Red"), await middle("Dimmer")];
  await page.mouse.move(...red);
  await page.mouse.down();
  await page.mouse.move(red[0], red[1] - 12, { steps: 3 });
  await page.mouse.move(...dimmer, { steps: 4 });
  await page.mouse.up();
  expect((await channels.getByRole("option").allInnerTexts()).slice(2, 5).map((t) => t.split("\n")[1])).toEqual([
    "Red",
    "Dimmer",
    "Shutter +1",
  ]);
  // White works only while the control stands low; the light of red is as measured.
  await channels.getByText("White", { exact: true }).click();
  await page.getByRole("button", { name: "Depends on another channel" }).click();
  await page.getByRole("combobox", { name: "ColorAdd_W depends on" }).click();
  await page.getByRole("option", { name: /Control$/ }).click();
  const last = page.getByLabel("ColorAdd_W depends on it to");
  await last.fill("9");
  // Emptied and left, it is what it was.
  await last.fill("");
  await last.blur();
  expect(await last.inputValue()).toBe("9");
  await channels.getByText("Red", { exact: true }).click();
  await page.getByLabel("ColorAdd_R measured x").fill("0.68");
  await page.getByRole("button", { name: "Change the type" }).click();
  await page.getByRole("dialog").waitFor({ state: "hidden" });
  await universe(1);
  // Pan and tilt, then red, which stands open, then the Dimmer of what plays.
  await bytesWhen(page, (b) => b[5] === 255 && b[16] === 255 && b[17] === 0);
  await ask("1 + 2");
  await place("Rig");
  await page.getByRole("tab", { name: "Patch" }).click();
  await page.getByRole("button", { name: "2 selected" }).click();
  await page.getByRole("menuitem", { name: "Duplicate or copy programming" }).click();
  const dialog = page.getByRole("dialog");
  await dialog.getByLabel("Copies numbered from").fill("11");
  await dialog.getByText("first free run").click();
  await dialog.getByRole("button", { name: "Duplicate 2 fixtures" }).click();
  await dialog.waitFor({ state: "hidden" });
  await universe(1);
  await bytesWhen(page, (b) => b[24 + 5] === 255 && b[36 + 5] === 0);
  await ask("undo");
  await bytesWhen(page, (b) => b[24 + 5] === 0 && b[5] === 255);
  expect(app.errors).toEqual([]);
});

test("a room of its own is lit by the wire alone, while the window that plays is elsewhere", async () => {
  const { page, base } = app;
  await page.goto(`${base}/show/demo/build`);
  await page.getByTestId("stage").waitFor();
  await ask(`output 1 thru 3 artnet to ${app.node} as 0`, `output 4 sacn to ${app.node} as 4`, "go list 1 cue 3");
  await page.keyboard.press("Alt+r");
  await page.getByTestId("room").waitFor();
  await page.keyboard.press("Alt+r");
  await page.getByRole("button", { name: "Show the room in three dimensions" }).click();
  await page.getByTestId("room").waitFor();
  const room = await openWindow(app, `${base}/standin/room/demo`);
  await room
    .getByTestId("visualiser-state")
    .getByText(/from the wire alone: \d+ universes/)
    .waitFor();
  // The window that plays goes elsewhere; what it sends is still what lights the room.
  await page.getByRole("button", { name: "Show the plan" }).click();
  await place("Rig");
  const seen = async () => {
    const shot = await room.locator("canvas").first().screenshot();
    return shot.length;
  };
  await becomes(seen, (size) => size > 20_000);
  const lit = await seen();
  await page.getByRole("button", { name: "Blackout", exact: true }).click();
  await becomes(seen, (size) => size < lit * 0.8);
  await page.getByRole("button", { name: "Blackout", exact: true }).click();
  await becomes(seen, (size) => size > lit * 0.85);
  await room.close();
  expect(app.errors).toEqual([]);
});

const CONTROL = `<ChannelFunction Name="Idle" Attribute="NoFeature" DMXFrom="0/1" Default="7/1"/><ChannelFunction Name="a &gt; b" Attribute="FixtureGlobalReset" DMXFrom="80/1" Default="80/1"/>`;
const SHUTTER = `<ChannelFunction Name="Closed" Attribute="Shutter1" DMXFrom="0/1" Default="0/1" PhysicalFrom="0" PhysicalTo="0"/><ChannelFunction Name="Open" Attribute="Shutter1" DMXFrom="20/1" Default="20/1" PhysicalFrom="1" PhysicalTo="1"/><ChannelFunction Name="Strobe" Attribute="Shutter1Strobe" DMXFrom="60/1" Default="60/1" PhysicalFrom="1" PhysicalTo="10"/>`;

test("files of another hand: what rests, rests; groups, layers and focus points; snaps and submasters", async () => {
  const { page } = app;
  await newShow();
  const gdtf = zipped(
    `\uFEFF${description(
      BASE +
        mode(
          channel(
            "1",
            "Base",
            "FixtureGlobalReset",
            CONTROL,
            'InitialFunction="Base_FixtureGlobalReset.FixtureGlobalReset.Idle"',
          ) +
            channel("2", "Base", "Shutter1", SHUTTER, 'InitialFunction="Base_Shutter1.Shutter1.Open"') +
            channel("3", "Base", "Dimmer"),
        ),
    )}`,
  );
  const lamp = (n: number, x: number) =>
    `<Fixture uuid="11111111-2222-4333-8444-55555555550${n}" name="Lamp ${n}"><Matrix>{1,0,0}{0,1,0}{0,0,1}{${x},0,6000}</Matrix><GDTFSpec>Brine@Hand.gdtf</GDTFSpec><GDTFMode>Basic</GDTFMode><FixtureID>${n}</FixtureID><Addresses><Address break="0">${(n - 1) * 3 + 1}</Address></Addresses></Fixture>`;
  const mover = `<Fixture uuid="11111111-2222-4333-8444-555555555509" name="Mover"><Matrix>{1,0,0}{0,1,0}{0,0,1}{0,0,6000}</Matrix><GDTFSpec>Halyard@Petrel Spot</GDTFSpec><GDTFMode>Compact</GDTFMode><FixtureID>9</FixtureID></Fixture>`;
  writeFileSync(
    file("other.mvr"),
    zipSync({
      "GeneralSceneDescription.xml": strToU8(
        `<GeneralSceneDescription verMajor="1" verMinor="6"><Scene><Layers><Layer uuid="l" name="Rig"><ChildList><GroupObject uuid="g" name="Bridge"><ChildList>${lamp(1, -1000)}${lamp(2, 1000)}</ChildList></GroupObject>${mover}<FocusPoint uuid="p" name="Altar"><Matrix>{1,0,0}{0,1,0}{0,0,1}{0,6000,0}</Matrix></FocusPoint></ChildList></Layer></Layers></Scene></GeneralSceneDescription>`,
      ),
      "Brine@Hand.gdtf": gdtf,
    }),
  );
  await importFile("other.mvr");
  const dialog = page.getByRole("dialog");
  await dialog.getByTestId("mvr-counts").getByText("3 new fixtures").waitFor();
  expect(await dialog.getByLabel("1 group: Bridge").isChecked()).toBe(true);
  expect(await dialog.getByLabel("1 layer as a group: Rig").isChecked()).toBe(false);
  await dialog.getByText("1 focus point: Altar").waitFor();
  await dialog.getByRole("button", { name: "Import" }).click();
  await dialog.waitFor({ state: "hidden" });
  await universe(1);
  await ask('group "Bridge"', "at full");
  // Neither reset nor closed: 7 and 20 are what the file has them rest at.
  await bytesWhen(page, (b) => b.slice(0, 6).join() === "7,20,255,7,20,255");
  await ask("clear", "9 palette 21");
  await place("Build");
  await page.getByTestId("held").getByText("1 fixture: position").waitFor();

  writeFileSync(
    file("board.asc"),
    "Ident 3:0\nClear Patch\nPATCH 1 101<101@100\nCUE 1\nUP 0\nDOWN 0\nCHAN 101@FL\nSUB 3\nTEXT House! low\nCHAN 101@50\n",
  );
  await importFile("board.asc");
  await dialog.getByText("1 submaster").waitFor();
  await dialog.getByRole("button", { name: "Import" }).click();
  await dialog.waitFor({ state: "hidden" });
  await universe(1);
  await ask("clear", "go list 1 cue 1");
  await bytesWhen(page, (b) => b[100] === 255);
  expect(app.errors).toEqual([]);
});
