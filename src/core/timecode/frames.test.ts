/** Catches frames that are counted otherwise than SMPTE 12M does. */
import fc from "fast-check";
import {
  FRAME_RATES,
  framesOfLabel,
  framesOfText,
  labelOfFrames,
  lineOfFrames,
  secondsOf,
  textOfFrames,
} from "./frames";
import { runs } from "@tests/setup/runs";

test("drop-frame leaves out two numbers in each minute but every tenth", () => {
  expect(textOfFrames(1799, "29.97df")).toBe("0:00:59:29");
  expect(textOfFrames(1800, "29.97df")).toBe("0:01:00:02");
  expect(textOfFrames(17_982, "29.97df")).toBe("0:10:00:00");
  expect(textOfFrames(107_892, "29.97df")).toBe("1:00:00:00");
  // An hour of it is an hour to within a frame.
  expect(secondsOf(107_892, "29.97df")).toBeCloseTo(3599.9964, 3);
  expect(framesOfText("0:01:00:00", "29.97df")).toBe(1800);
});

test("times as they are written", () => {
  expect(framesOfText("0:01:02.5", "30")).toBe(1875);
  expect(framesOfText("0:01:02:15", "30")).toBe(1875);
  expect(framesOfText("1:30", "25")).toBe(2250);
  expect(framesOfText("90", "25")).toBe(2250);
  for (const wrong of ["", "1:60", "25:00:00", "0:00:00:31", "-1", "0:0:0:0:0"])
    expect([wrong, framesOfText(wrong, "30")]).toEqual([wrong, undefined]);
});

test("every frame of a day has one label and comes back from it", () => {
  fc.assert(
    fc.property(fc.constantFrom(...FRAME_RATES), fc.nat(24 * 3600 * 23), (rate, count) => {
      expect(framesOfLabel(labelOfFrames(count, rate), rate)).toBeCloseTo(count, 6);
      expect(framesOfText(lineOfFrames(count, rate), rate)).toBeCloseTo(count, 3);
      expect(framesOfText(textOfFrames(count, rate), rate)).toBe(count);
    }),
    { numRuns: runs(500) },
  );
});
