/** Catches something a browser remembers that nobody said the kind of, or that is handed on though it is of this browser alone. */
import { fakeBrowserStorage } from "@tests/setup/browserStorage";
import { readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";
import { loadSettings, settingsText } from "./settingsFile";
import { kindOf } from "./remembered";

const kept = fakeBrowserStorage();

const sources = readdirSync(join(__dirname, "../.."), { recursive: true, withFileTypes: true })
  .filter((f) => f.isFile() && /(?<!\.test)\.tsx?$/.test(f.name))
  .map((f) => readFileSync(join(f.parentPath, f.name), "utf8"));

test("every name that is remembered under is known by its kind", () => {
  const used = sources.flatMap((text) =>
    [...text.matchAll(/usePrefs\(\s*["`](bold-comet-[^"`]+)["`]/g)].map((m) => m[1]!),
  );
  const names = sources.flatMap((text) =>
    [...text.matchAll(/const [A-Z_]+ = "(bold-comet-[a-z-]+)";/g)].map((m) => m[1]!),
  );
  const ours = names.filter(
    (name) => sources.some((text) => text.includes("usePrefs") || text.includes("writePref")) && kindOf(name),
  );
  expect(used.length).toBeGreaterThan(12);
  expect(ours).toEqual(expect.arrayContaining(["bold-comet-keys", "bold-comet-go-guard", "bold-comet-surface"]));
  const unknown = used.filter(
    (key) => !kindOf(key.replaceAll("${name}-${way}", "build-across").replaceAll("${id}", "demo")),
  );
  expect(unknown).toEqual([]);
});

test("the settings file has the shelf too, and nothing of this browser alone; read again it is as it was", async () => {
  const settings = {
    "bold-comet-palette-names": "true",
    "bold-comet-shelf-tab": '"Gobo"',
    "bold-comet-shelf-width": '"any"',
    "bold-comet-palette-view": '{"columns":[]}',
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
