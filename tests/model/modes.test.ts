/** Catches a change of mode that takes more from a show or its stage than the mode cannot show: there and back, all is as if it had never been. */
import fc from "fast-check";
import { newDesk, runLine, wait, type Desk } from "@/core/desk/desk";
import { canonical } from "@/core/exchange/canonical";
import { stageValues } from "@/core/play/stage/look";
import { createPlayer, compute } from "@/core/play/player";
import { restorePlay, savePlay } from "@/core/play/keep/saved";
import { runs } from "@tests/setup/runs";

const TYPES: [id: string, modes: [string, string]][] = [
  ["petrel-spot", ["standard", "compact"]],
  ["kelp-mini", ["fine", "basic"]],
  ["kelp-ring", ["cells", "whole"]],
  ["tide-bar", ["cells", "simple"]],
];
const SHARED: Record<string, string[]> = {
  "petrel-spot": ["Dimmer", "Pan", "Zoom", "Iris", "ColorSub_C", "Gobo1", "Gobo1Pos"],
  "kelp-mini": ["Dimmer", "Pan", "ColorAdd_R"],
  "kelp-ring": ["Dimmer", "Pan", "Zoom"],
  "tide-bar": ["Dimmer"],
};
const attributes: Record<string, string[]> = {
  "petrel-spot": [
    "at 80",
    "pan at 20",
    "zoom at 30",
    "iris at 50",
    "frost at 40",
    "gobo at 3",
    "gobo spin at 20",
    "cyan at 60",
    "prism at 1",
    "strobe at 5",
  ],
  "kelp-mini": ["at 60", "pan at 100", "red at 20", "zoom at 33", "strobe at 8"],
  "kelp-ring": ["at 70", "zoom at 20", "cells red at 30", "cells blue at 90"],
  "tide-bar": ["at 50", "cells at 40", "cells red at 10", "red at 55"],
};

const story = fc.record({
  type: fc.integer({ min: 0, max: TYPES.length - 1 }),
  cues: fc.array(
    fc.record({
      what: fc.array(fc.nat(9), { minLength: 1, maxLength: 5 }),
      fade: fc.integer({ min: 0, max: 3 }),
      list: fc.integer({ min: 1, max: 2 }),
    }),
    { minLength: 1, maxLength: 4 },
  ),
  held: fc.array(fc.nat(9), { maxLength: 3 }),
  plays: fc.array(
    fc.record({
      what: fc.constantFrom("go list 1", "go list 2", "back list 1", "release list 1", "level list 1 at 60"),
      wait: fc.nat(16).map((n) => n / 8),
      switches: fc.boolean(),
    }),
    { minLength: 1, maxLength: 8 },
  ),
  back: fc.constantFrom("undo", "line"),
});

const setting = (type: string, n: number) => {
  const all = attributes[type]!;
  const text = all[n % all.length]!;
  return text.startsWith("cells ") ? `1 ${text}` : `1 ${text}`;
};
const did = (desk: Desk, line: string) => runLine(desk, line) === undefined;

test("there and back, by a line or by undo, with lists running: the document and every byte are as if it had never been", () => {
  fc.assert(
    fc.property(story, ({ type: n, cues, held, plays, back }) => {
      const [type, [first, second]] = TYPES[n]!;
      const begin = (): Desk => {
        const desk = newDesk();
        for (const line of [`patch 1 ${type} mode ${first} as 1 at 1:1`, `patch 1 ${type} mode ${first} as 2 at 2:1`])
          expect(did(desk, line)).toBe(true);
        cues.forEach(({ what, fade, list }, i) => {
          for (const w of what) did(desk, setting(type, w));
          did(desk, `record list ${list} cue ${i + 1} fade ${fade}`);
          did(desk, "clear");
        });
        for (const w of held) did(desk, setting(type, w));
        return desk;
      };
      const [desk, twin] = [begin(), begin()];
      const item = Object.values(desk.world.show.fixtures).find((f) => f.number === 1)!.id;
      for (const { what, wait: pause, switches } of plays) {
        if (switches) expect(did(desk, `1 mode ${second}`)).toBe(true);
        // Goes and releases fall while the other mode is on, too.
        did(desk, what);
        did(twin, what);
        wait(desk, pause);
        wait(twin, pause);
        if (!switches) continue;
        for (const attribute of SHARED[type]!)
          expect(stageValues(desk.player, item, attribute).map((v) => v.toFixed(6))).toEqual(
            stageValues(twin.player, item, attribute).map((v) => v.toFixed(6)),
          );
        if (back === "undo") expect(did(desk, "undo")).toBe(true);
        else expect(did(desk, `1 mode ${first}`)).toBe(true);
      }
      expect(canonical(desk.world)).toBe(canonical(twin.world));
      wait(desk, 10);
      wait(twin, 10);
      expect([...desk.player.frame]).toEqual([...twin.player.frame]);
      // A reload shows the same.
      const again = createPlayer(desk.world, desk.time);
      restorePlay(again, JSON.parse(JSON.stringify(savePlay(desk.player))));
      compute(again);
      expect([...again.frame]).toEqual([...desk.player.frame]);
    }),
    { numRuns: runs(60) },
  );
});

test("what a mode cannot show is stored still, and a reload in that mode keeps it", () => {
  const desk = newDesk();
  for (const line of [
    "patch 1 petrel-spot as 1 at 1:1",
    "1 at full frost at 40",
    "record cue 1 fade 0",
    "clear",
    "go",
    "1 mode compact",
  ])
    expect(did(desk, line)).toBe(true);
  const again = newDesk(desk.world);
  restorePlay(again.player, JSON.parse(JSON.stringify(savePlay(desk.player))));
  compute(again.player);
  expect(did(again, "1 mode standard")).toBe(true);
  const item = Object.keys(again.world.show.fixtures)[0]!;
  expect(stageValues(again.player, item, "Frost1")).toEqual([40]);
  expect(stageValues(again.player, item, "Dimmer")).toEqual([100]);
});
