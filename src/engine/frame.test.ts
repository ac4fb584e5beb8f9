/** Catches a reader that sees half of one frame and half of another. */
import { frameBytes, frameCount, openFrame, publish, wholeHalf } from "./frame";
import type { Layout } from "./layout";

const layout: Layout = {
  generation: 1,
  size: 3,
  makes: [
    { places: ["0.Dimmer", "0.Pan"], attributes: [["Dimmer"], ["Pan"]] },
    { places: ["0.Dimmer"], attributes: [["Dimmer"]] },
  ],
  fixtures: ["f1", "f2"],
  made: Uint32Array.of(0, 1),
  universes: [1, 7],
  slots: 3,
};

test("a reader sees the last whole half, never one being filled", () => {
  const memory = new SharedArrayBuffer(frameBytes(layout));
  const [writer, reader] = [openFrame(layout, memory), openFrame(layout, memory)];
  expect(frameCount(reader)).toBe(0);
  publish(writer, (half) => {
    half.value.set([1, 2, 3]);
    half.bytes[512 + 5] = 200;
    expect([...wholeHalf(reader).value]).toEqual([0, 0, 0]);
  });
  expect([...wholeHalf(reader).value]).toEqual([1, 2, 3]);
  expect(wholeHalf(reader).bytes[517]).toBe(200);
  publish(writer, (half) => half.value.fill(9));
  expect([...wholeHalf(reader).value]).toEqual([9, 9, 9]);
  expect(frameCount(reader)).toBe(2);
});

test("what says the same as before is not published again", () => {
  const frame = openFrame(layout, new ArrayBuffer(frameBytes(layout)));
  const fill = (value: number, last = 0) =>
    publish(frame, (half) => {
      half.value.fill(value);
      half.bytes[layout.universes.length * 512 - 1] = last;
    });
  expect([fill(0), fill(0), fill(1), fill(1), fill(1, 7), fill(1, 7), fill(0)]).toEqual([
    true,
    false,
    true,
    false,
    true,
    false,
    true,
  ]);
  expect(frameCount(frame)).toBe(4);
  expect(wholeHalf(frame).value[2]).toBe(0);
});

test("no two parts of the memory lie on each other", () => {
  const frame = openFrame(layout, new ArrayBuffer(frameBytes(layout)));
  const parts = frame.halves
    .flatMap((half) => Object.values(half))
    .map((view) => [view.byteOffset, view.byteOffset + view.byteLength] as const)
    .sort((a, b) => a[0] - b[0]);
  parts.forEach(([start, end], i) => {
    expect(start).toBeGreaterThanOrEqual(i === 0 ? 8 : parts[i - 1]![1]);
    expect(end).toBeLessThanOrEqual(frameBytes(layout));
  });
});
