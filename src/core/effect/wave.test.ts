/** Catches a wave that leaves 0 to 1, jumps with its speed, or runs the wrong way. */
import fc from "fast-check";
import { WAVES } from "../show/effectSchema";
import { noiseAt, phaseOf, waveAt, type Laying } from "./wave";

const plainly: Laying = { across: 360, start: 0, width: 100, direction: "forward" };
const phasing = fc.record<Laying>({
  across: fc.double({ min: 0, max: 1080, noNaN: true }),
  start: fc.double({ min: 0, max: 360, noNaN: true }),
  width: fc.double({ min: 5, max: 100, noNaN: true }),
  direction: fc.constantFrom("forward", "backward", "bounce"),
});
const share = fc.double({ min: 0, max: 1, noNaN: true, maxExcluded: true });
const cycles = fc.double({ min: 0, max: 1e5, noNaN: true });

test("every wave stays within 0 and 1, wherever it stands", () => {
  fc.assert(
    fc.property(fc.constantFrom(...WAVES), phasing, cycles, share, (wave, made, c, place) => {
      const u = phaseOf(made, c, place);
      expect(u >= 0 && u <= 1).toBe(true);
      const w = wave === "random" ? noiseAt(7, Math.floor(c), u) : waveAt(wave, u);
      expect(w >= 0 && w <= 1).toBe(true);
    }),
  );
});

test("forward the first item leads; backward mirrors forward; a bounce comes back the way it went", () => {
  expect(phaseOf(plainly, 0.5, 0.25)).toBeCloseTo(0.25);
  expect(phaseOf({ ...plainly, direction: "backward" }, 0.5, 0.25)).toBeCloseTo(0.75);
  fc.assert(
    fc.property(share, share, (at, place) => {
      const forward = phaseOf(plainly, at, place);
      // On a ring 0 and 1 are the same place.
      const apart = phaseOf({ ...plainly, direction: "backward" }, at, 1 - place) - forward;
      expect(Math.abs(apart - Math.round(apart))).toBeLessThan(1e-9);
      const bounce = { ...plainly, across: 0, direction: "bounce" as const };
      expect(phaseOf(bounce, 2 - at, 0)).toBeCloseTo(phaseOf(bounce, at, 0), 9);
    }),
  );
});

test("a narrow wave plays over the first part of the cycle and rests at its end", () => {
  const half = { ...plainly, width: 50 };
  expect([0, 0.25, 0.49].map((c) => phaseOf(half, c, 0))).toEqual([0, 0.5, expect.closeTo(0.98)]);
  expect(waveAt("rampup", phaseOf(half, 0.7, 0))).toBe(1);
  expect(waveAt("square", phaseOf(half, 0.2, 0))).toBe(1);
});
