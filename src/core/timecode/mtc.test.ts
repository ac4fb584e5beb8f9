/** Catches MIDI timecode that is read as another time than was sent. */
import fc from "fast-check";
import { FRAME_RATES, nominalRate, textOfFrames } from "./frames";
import { dueMessages, locateSource, newSource, sourceAt } from "./source";
import { fullFrame, newMtcReader, quarterFrame, readMtc } from "./mtc";

const rates = fc.constantFrom(...FRAME_RATES);

test("a full frame is where it stands, counted at any rate", () => {
  fc.assert(
    fc.property(rates, fc.nat(2_000_000), (rate, frames) => {
      expect(readMtc(newMtcReader(), fullFrame(frames, rate), rate)).toEqual({ frames, speed: 0 });
    }),
  );
  expect(fullFrame(1875, "30")).toEqual([0xf0, 0x7f, 0x7f, 1, 1, 0x60, 1, 2, 15, 0xf7]);
  const heard = readMtc(newMtcReader(), fullFrame(25 * 61, "25"), "30")!;
  expect(textOfFrames(heard.frames, "30")).toBe("0:01:01:00");
});

test("eight quarter frames tell a frame, seven quarters late; lost ones only delay it; backwards it is told too", () => {
  fc.assert(
    fc.property(rates, fc.nat(100_000), fc.array(fc.nat(7), { maxLength: 3 }), (rate, from, lost) => {
      const reader = newMtcReader();
      const heard: number[] = [];
      for (let k = 0; k < 4; k++)
        for (let piece = 0; piece < 8; piece++) {
          if (k === 1 && lost.includes(piece)) continue;
          const found = readMtc(reader, quarterFrame(from + 2 * k, rate, piece), rate);
          if (found) heard.push(found.frames - (from + 2 * k));
        }
      expect(heard.length).toBeGreaterThanOrEqual(lost.length > 0 ? 2 : 4);
      for (const off of heard) expect(off).toBeCloseTo(1.75, 9);
    }),
  );
  const reader = newMtcReader();
  const back = [7, 6, 5, 4, 3, 2, 1, 0].map((piece) => readMtc(reader, quarterFrame(900, "30", piece), "30"));
  expect(back.at(-1)).toEqual({ frames: 900, speed: -1 });
});

test("bytes that are no timecode, or no time, are not heard", () => {
  fc.assert(
    fc.property(fc.array(fc.nat(255), { maxLength: 12 }), rates, (bytes, rate) => {
      const heard = readMtc(newMtcReader(), bytes, rate);
      if (heard) expect(heard.frames).toBeLessThan(24 * 3600 * nominalRate(rate) + 3);
    }),
  );
});

test("what a source sends is heard where the source is, over drop-outs too", () => {
  const step = fc.record({ wait: fc.integer({ min: 0, max: 400 }), lost: fc.boolean() });
  fc.assert(
    fc.property(rates, fc.nat(100_000), fc.array(step, { minLength: 5, maxLength: 30 }), (rate, from, steps) => {
      const source = newSource(rate);
      const reader = newMtcReader();
      expect(readMtc(reader, locateSource(source, from, 0, true), rate)).toEqual({ frames: from, speed: 0 });
      let now = 0;
      let silent = false;
      for (const { wait, lost } of steps) {
        const until = now + wait / 1000;
        // A quarter frame lasts 8 ms or more.
        for (; now < until; now += 0.004)
          for (const bytes of dueMessages(source, now)) {
            const heard = lost ? undefined : readMtc(reader, bytes, rate);
            // After a drop-out the first eight may be of two parts.
            if (heard && !silent) expect(Math.abs(heard.frames - sourceAt(source, now))).toBeLessThan(0.3);
            if (heard) silent = false;
          }
        silent ||= lost;
      }
    }),
  );
});
