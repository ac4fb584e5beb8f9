/** Catches bytes that read back as another value than was sent. */
import fc from "fast-check";
import { newDesk, runLine } from "../desk/desk";
import { LIBRARY } from "../fixture/library/library";
import { rangeOf } from "../fixture/parameters";
import { isEmitter } from "../fixture/attribute";
import { toDmx } from "../fixture/dmxValue";
import { decodeFrame, fromDmx } from "./decode";
import { readFrame, writeFrame } from "./wireFrame";

const functions = LIBRARY.flatMap((t) => t.modes.flatMap((m) => m.channels.flatMap((c) => c.functions)));

test("a value sent and read back is within half a step of itself", () => {
  fc.assert(
    fc.property(
      fc.constantFrom(...functions),
      fc.double({ min: 0, max: 1, noNaN: true }),
      fc.boolean(),
      (fn, share, invert) => {
        const [low, high] = rangeOf(fn);
        if (fn.steps) {
          const step = fn.steps[Math.floor(share * (fn.steps.length - 1))]!;
          expect(fromDmx(fn, toDmx(fn, step.value))).toBe(step.value);
          return;
        }
        const value = low + (high - low) * share;
        const half = (high - low) / (fn.dmxTo - fn.dmxFrom) / 2;
        expect(Math.abs(fromDmx(fn, toDmx(fn, value, invert), invert) - value)).toBeLessThanOrEqual(half * 1.001);
      },
    ),
  );
});

test("the stage from the wire is the stage that was sent: hang, swap and virtual dimmers taken into account", () => {
  const desk = newDesk();
  for (const line of [
    "patch 3 kelp-wash as 1 at 1:1",
    "patch 2 lantern-par as 11 at 2:1",
    "1 thru 3 at 60 pan at -100 to 100 tilt at 40 colour at #ff8000",
    "11 + 12 at 50 colour at #ff0000",
    "2 invert pan on",
    "3 swap on",
    "1 correct pan 5 tilt -2",
  ])
    expect(runLine(desk, line)).toBeUndefined();
  const { rig, stage, frame } = desk.player;
  const [value, fn] = [new Float64Array(rig.size), new Uint8Array(rig.size)];
  decodeFrame(rig, frame, value, fn);
  rig.specs.forEach((spec, p) => {
    if (spec.virtual) expect(value[p]).toBe(100);
    else if (isEmitter(spec.head) && rig.keys[p]!.startsWith(rig.owner[rig.size - 1]!))
      expect(value[p]).toBeCloseTo(stage.value[p]! / 2, 0);
    else if (!isEmitter(spec.head)) expect(Math.abs(value[p]! - stage.value[p]!)).toBeLessThan(0.5);
  });
});

test("universes travel as one message, and nothing else is one", () => {
  const universes = [
    { protocol: 1 as const, number: 300, data: new Uint8Array(512).fill(7) },
    { protocol: 0 as const, number: 63_999, data: new Uint8Array(512) },
  ];
  const frame = writeFrame(universes);
  expect(readFrame(frame)).toEqual(universes);
  for (const bad of [
    frame.subarray(0, -1),
    Uint8Array.of(),
    Uint8Array.of(2, 0, 0, 0),
    Uint8Array.of(1, 0, 255, 255),
    Uint8Array.from([...frame.subarray(0, 4), 9, ...frame.subarray(5)]),
  ])
    expect(readFrame(bad)).toBeUndefined();
  expect(readFrame(writeFrame([]))).toEqual([]);
});
