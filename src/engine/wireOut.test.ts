import { newDesk, runLine } from "@/core/desk/desk";
import { compileRig } from "@/core/play/rig";
import { intensityOf } from "./wireOut";

test("what a fade-out takes down is intensity: dimmers, cells, and emitters that stand for them; never where a mover points", () => {
  const desk = newDesk();
  const lines = [
    "patch 1 kelp-wash as 1 at 1:1",
    "patch 1 petrel-spot as 2 at 1:101",
    "patch 1 lantern-par as 3 at 2:1",
    "patch 1 lantern-par as 4 at 2:11",
    "4 virtual dimmer off",
    "patch 1 twin-blinder as 5 at 2:21",
    "patch 1 mist-hazer as 6 at 3:1",
    "1 also at 4:1",
  ];
  for (const line of lines) expect(runLine(desk, line)).toBeUndefined();
  expect(intensityOf(compileRig(desk.world.show))).toEqual({
    1: { single: [5], double: [105] },
    2: { single: [1, 2, 3, 4, 11, 12, 13, 14, 21, 22], double: [] },
    4: { single: [5], double: [] },
  });
});
