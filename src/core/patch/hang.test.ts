/** Catches a hang that is solved so that the beams miss what they were steered to. */
import fc from "fast-check";
import { beamOf, type Vector } from "./room";
import { hangOf } from "./hang";
import { runs } from "@tests/setup/runs";

const angle = fc.double({ min: -40, max: 40, noNaN: true });

test("three points steered right give the turn back, and nothing is left over", () => {
  fc.assert(
    fc.property(angle, angle, fc.double({ min: -170, max: 170, noNaN: true }), (x, y, z) => {
      const askew = { turn: { x, y, z } };
      const steered: [number, number][] = [
        [0, 30],
        [80, 45],
        [-120, 20],
      ];
      const level = { turn: { x: 0, y: 0, z: 0 } };
      const found = hangOf(
        steered.map(([pan, tilt]) => ({ beam: beamOf(level, pan, tilt), to: beamOf(askew, pan, tilt) })),
      );
      expect(found.off).toBeLessThan(0.01);
      for (const [pan, tilt] of [
        [10, 60],
        [-60, 15],
      ] as const) {
        const [a, b] = [beamOf({ turn: found.turn }, pan, tilt), beamOf(askew, pan, tilt)];
        for (const i of [0, 1, 2]) expect(a[i]!).toBeCloseTo(b[i]!, 4);
      }
    }),
    { numRuns: runs(100) },
  );
});

test("what cannot be met by a turn is told", () => {
  const level = { turn: { x: 0, y: 0, z: 0 } };
  const off: Vector = beamOf(level, 10, 40);
  const { off: left } = hangOf([
    { beam: beamOf(level, 0, 30), to: beamOf(level, 0, 30) },
    { beam: beamOf(level, 90, 30), to: beamOf(level, 90, 30) },
    { beam: beamOf(level, 0, 30), to: off },
  ]);
  expect(left).toBeGreaterThan(2);
});
