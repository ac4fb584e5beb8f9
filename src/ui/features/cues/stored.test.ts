import type { Cue } from "@/core/show/schema";
import type { Entry } from "@/core/show/value";
import { newCue } from "@/core/cue/intents/cueDraft";
import { changesBetween, storedBy, storedText } from "./stored";

const cueOf = (entries: Record<string, Entry>): Cue => ({ ...newCue("c1", 1), entries });
const dimmer = (value: number): Entry => ({ attribute: "Dimmer", value });
const pan = (value: number): Entry => ({ attribute: "Pan", value });

describe("what cues store, for a table", () => {
  test("is counted once for each fixture and family, over several cues", () => {
    const one = cueOf({ "f1.1.Dimmer": dimmer(50), "f1.2.Dimmer": dimmer(40), "f1.0.Pan": pan(3) });
    const other = cueOf({ "f1.1.Dimmer": dimmer(0), "f2.1.Dimmer": dimmer(0) });
    const found = storedBy([one, undefined, other]);
    expect([...found].map(([family, s]) => [family, s.fixtures.size, s.values])).toEqual([
      ["Intensity", 2, 4],
      ["Position", 1, 1],
    ]);
    expect(storedText(found.get("Position"))).toBe("1 fixture");
    expect(storedText(found.get("Colour"))).toBe("–");
  });

  test("tells fixtures whose values come, change and go, in each cue", () => {
    const before = cueOf({ "f1.0.Dimmer": dimmer(50), "f2.0.Dimmer": dimmer(50), "f3.0.Pan": pan(1) });
    const after = cueOf({ "f1.0.Dimmer": dimmer(50), "f2.0.Dimmer": dimmer(60), "f4.0.Dimmer": dimmer(1) });
    expect([...changesBetween([before, undefined], [after, cueOf({ "f1.0.Dimmer": dimmer(2) })])]).toEqual([
      ["Intensity", "2 new, 1 changed"],
      ["Position", "1 gone"],
    ]);
  });
});
