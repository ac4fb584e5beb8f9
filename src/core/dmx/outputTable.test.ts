/** Catches a universe that is sent elsewhere than its line in a table says. */
import { addressOn, readOutputs, writeOutputs } from "./outputTable";

test("lines of a sheet, titles and empty ones left out; what is none is named", () => {
  const { rows, wrong } = readOutputs(
    "Universe\tProtocol\tTo\tNumber\tPriority\n1\tsACN\tmulticast\t11\t120\n\n2\tArt-Net\t127.0.0.11 127.0.0.12\t\t\n3\toff\n4\tdmx\tx\n5\tartnet\tmulticast\n6\tsacn\t300.1.1.1\n2\toff\n7\tsacn\tmulticast\t0\n",
  );
  expect(rows).toEqual([
    { universe: 1, output: { protocol: "sacn", to: "multicast", number: 11, priority: 120 } },
    {
      universe: 2,
      output: { protocol: "artnet", to: { unicast: ["127.0.0.11", "127.0.0.12"] }, number: 1, priority: 100 },
    },
    { universe: 3, output: null },
  ]);
  expect(wrong.map((w) => w.line)).toEqual([6, 7, 8, 9, 10]);
});

test("what is written is read again", () => {
  const outputs = readOutputs("1,sacn,multicast,11,120\n2,artnet,broadcast,7,\n").rows;
  const record = Object.fromEntries(outputs.map((r) => [r.universe, r.output!]));
  expect(readOutputs(writeOutputs([1, 2, 3], record)).rows).toEqual([...outputs, { universe: 3, output: null }]);
});

test.each([
  ["10.0.0.11", 1, "10.0.0.12"],
  ["10.0.0.255", 1, "10.0.1.0"],
  ["255.255.255.255", 1, undefined],
])("%s and %i on", (host, by, next) => expect(addressOn(host, by)).toBe(next));
