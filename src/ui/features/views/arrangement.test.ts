/** Catches a view, of a stranger's show maybe, that writes more of a browser than how its panels are arranged. */
import { fakeBrowserStorage } from "@tests/setup/browserStorage";
import { arrange, arrangementNow } from "./arrangement";

const kept = fakeBrowserStorage();

const ARRANGED = ["bold-comet-build-across", "bold-comet-values-view", "bold-comet-rig-tab", "bold-comet-cues-shape"];
const OTHERS = [
  "bold-comet-surface",
  "bold-comet-osc-out",
  "bold-comet-consent-demo",
  "bold-comet-browser",
  "bold-comet-keys",
  "bold-comet-go-guard",
  "bold-comet-shelf-width",
  "bold-comet-dismissed-demo",
  "mantine-color-scheme-value",
];

test("a view is made of arrangement alone", () => {
  for (const key of [...ARRANGED, ...OTHERS]) kept.set(key, '"x"');
  expect(Object.keys(arrangementNow("cues").settings).sort()).toEqual([...ARRANGED].sort());
});

test("and writes nothing else, whatever stands in it", () => {
  kept.clear();
  const arrangement = Object.fromEntries([...ARRANGED, ...OTHERS].map((key) => [key, '"from a view"']));
  arrange({ id: "v1", number: 1, name: "Their view", place: "cues", arrangement });
  expect([...kept.keys()].sort()).toEqual([...ARRANGED].sort());
});
