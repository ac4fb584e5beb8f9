/** Catches OSC from outside that brings something down, or is taken for what it is not. */
import fc from "fast-check";
import { toBuffer } from "osc-min";
import { openOsc, readOsc, type Osc } from "./osc";
import type { OscMessage } from "./messages";
import { runs } from "@tests/setup/runs";

const until = async (holds: () => boolean) => {
  for (let k = 0; k < 500 && !holds(); k++) await new Promise((resolve) => setTimeout(resolve, 10));
};
const packet = (of: Parameters<typeof toBuffer>[0]): Uint8Array => {
  const view = toBuffer(of);
  return new Uint8Array(view.buffer, view.byteOffset, view.byteLength);
};

test("messages and bundles with a number, or none", () => {
  expect(readOsc(packet({ address: "/list/1/level", args: [{ type: "float", value: 0.5 }] }))).toEqual([
    { address: "/list/1/level", value: 0.5 },
  ]);
  expect(readOsc(packet({ address: "/list/1/go", args: [] }))).toEqual([{ address: "/list/1/go", value: 1 }]);
  expect(readOsc(packet({ address: "/name", args: [{ type: "string", value: "x" }] }))).toEqual([]);
  expect(
    readOsc(
      packet({
        timetag: [0, 1],
        elements: [
          { address: "/a", args: [] },
          { address: "/b", args: [] },
        ],
      }),
    ),
  ).toHaveLength(2);
});

test("any bytes are read or left alone", () => {
  fc.assert(
    fc.property(fc.uint8Array({ maxLength: 200 }), (bytes) => {
      for (const { value } of readOsc(bytes) ?? []) expect(Number.isFinite(value)).toBe(true);
    }),
    { numRuns: runs(400) },
  );
  expect(readOsc(new Uint8Array(5000))).toBeUndefined();
});

test("over loopback, in and out", async () => {
  const heard: OscMessage[] = [];
  const [a, b] = [openOsc(0, (m) => heard.push(m)), openOsc(0, () => undefined)];
  const told = (osc: Osc) => until(() => osc.at() !== "off");
  // Nothing is bound before somebody wants it.
  expect(a.at()).toBe("off");
  a.listen(true);
  await told(a);
  b.send(a.at() as number, { address: "/grand", value: 0.25 });
  await until(() => heard.length > 0);
  expect(heard).toEqual([{ address: "/grand", value: 0.25 }]);
  const other = openOsc(a.at() as number, () => undefined);
  other.listen(true);
  await told(other);
  expect(other.at()).toBe("taken");
  // With the port free again it can be had.
  a.listen(false);
  expect(a.at()).toBe("off");
  other.listen(false);
  other.listen(true);
  await told(other);
  expect(other.at()).toEqual(expect.any(Number));
  for (const osc of [a, b, other]) osc.close();
});
