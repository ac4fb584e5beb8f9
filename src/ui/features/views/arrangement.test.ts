/** Catches a view, of a stranger's show maybe, that writes more of a browser than how its panels are arranged. */
import { fakeBrowserStorage } from "@tests/setup/browserStorage";
import { arrange, arrangementNow } from "./arrangement";

const kept = fakeBrowserStorage();

const ARRANGED: Record<string, string> = {
  "bold-comet-build-across": '{"left":20}',
  "bold-comet-values-view": "null",
  "bold-comet-rig-tab": '"plan"',
  "bold-comet-cues-shape": '"lives"',
};
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
  for (const key of [...Object.keys(ARRANGED), ...OTHERS]) kept.set(key, '"x"');
  expect(Object.keys(arrangementNow("cues").settings).sort()).toEqual(Object.keys(ARRANGED).sort());
});

test("and writes nothing else, whatever stands in it", () => {
  kept.clear();
  const others = Object.fromEntries(OTHERS.map((key) => [key, '"from a view"']));
  const arrangement = { ...ARRANGED, ...others, "bold-comet-shelf-tab": '"Nowhere"' };
  arrange({ id: "v1", number: 1, name: "Their view", place: "cues", arrangement });
  expect(Object.fromEntries(kept)).toEqual(ARRANGED);
});
