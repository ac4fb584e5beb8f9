/** Catches something a browser remembers that nobody said the kind of, or that is handed on though it is of this browser alone. */
import { fakeBrowserStorage } from "@tests/setup/browserStorage";
import { sourcesIn } from "@tests/setup/sources";
import { loadSettings, settingsText } from "./settingsFile";
import { REMEMBERED } from "./registry";
import { recall, takeOver } from "./remembered";

const kept = fakeBrowserStorage();

test("the interface remembers nothing past the registry", () => {
  const past = sourcesIn("ui").filter(({ text }) => /\b(localStorage|sessionStorage)\b|useLocalStorage/.test(text));
  expect(past.map(({ name }) => name)).toEqual(["remembered.ts"]);
});

test("what does not fit, or is of this browser alone, is not taken over", () => {
  takeOver(["arrangement"], "bold-comet-shelf-tab", "Nowhere");
  takeOver(["arrangement"], "bold-comet-go-guard", 300);
  takeOver(["arrangement", "setting", "own"], "bold-comet-osc-in", true);
  takeOver(["arrangement"], "bold-comet-build-across", { left: 400 });
  expect(kept.size).toBe(0);
  takeOver(["arrangement"], "bold-comet-shelf-tab", "Gobo");
  expect(recall(REMEMBERED.shelfTab)).toBe("Gobo");
  kept.set("bold-comet-shelf-tab", "{");
  expect(recall(REMEMBERED.shelfTab)).toBe(REMEMBERED.shelfTab.start);
  kept.clear();
});

test("the settings file has the shelf too, and nothing of this browser alone; read again it is as it was", async () => {
  const settings = {
    "bold-comet-palette-names": "true",
    "bold-comet-shelf-tab": '"Gobo"',
    "bold-comet-shelf-width": '"any"',
    "bold-comet-palette-view": '{"order":["fixture"],"hidden":[],"widths":{},"sort":null,"byType":false}',
    "bold-comet-cues-shape": '"sheet"',
  };
  const own = { "bold-comet-osc-in": "true", "bold-comet-consent-demo": "{}", "bold-comet-surface": "[]", other: "1" };
  for (const [key, text] of Object.entries({ ...settings, ...own })) kept.set(key, text);
  const text = settingsText();
  expect(Object.keys(JSON.parse(text).settings).sort()).toEqual(Object.keys(settings).sort());
  kept.clear();
  const more = JSON.parse(text);
  Object.assign(more.settings, { "bold-comet-osc-in": true, "bold-comet-browser": "x", unknown: 1 });
  const file = { name: "s.json", size: 900, text: async () => JSON.stringify(more) };
  expect(await loadSettings(file)).toBeUndefined();
  expect(Object.fromEntries(kept)).toEqual(settings);
});
