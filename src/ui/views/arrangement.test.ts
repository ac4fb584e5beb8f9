/** Catches a view, of a stranger's show maybe, that writes more of a browser than how its panels are arranged. */
import { arrange, arrangementNow } from "./arrangement";

const kept = new Map<string, string>();
Object.assign(globalThis, {
  localStorage: {
    get length() {
      return kept.size;
    },
    key: (i: number) => [...kept.keys()][i] ?? null,
    getItem: (key: string) => kept.get(key) ?? null,
    setItem: (key: string, value: string) => void kept.set(key, value),
  },
  dispatchEvent: () => true,
});

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
