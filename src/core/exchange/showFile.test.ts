/** Catches show files that come back different, or hostile ones that open. */
import { strToU8, zipSync } from "fflate";
import { demoWorld } from "@tests/setup/demo";
import { isFull } from "@tests/setup/runs";
import { isRefusal, refusalText } from "../show/refusal";
import { canonical } from "./canonical";
import { checkShowFile, isLarge, readShowFile, writeShowFile } from "./showFile";

const { show } = demoWorld();
const zipOf = (json: unknown, name = "show.json") =>
  zipSync({ [name]: strToU8(typeof json === "string" ? json : JSON.stringify(json)) });
const why = (bytes: Uint8Array) => {
  const read = readShowFile(bytes);
  return isRefusal(read) ? refusalText(read) : "it was read";
};

test("a show comes back as it was", () => {
  expect(readShowFile(writeShowFile(show))).toEqual(show);
});

const clone = () => JSON.parse(JSON.stringify(show)) as typeof show & { version: number };
test.each<[string, Uint8Array, RegExp]>([
  ["text", strToU8("hello"), /not a Bold Comet show file/],
  ["nothing", new Uint8Array(), /not a Bold Comet show file/],
  ["cut off", writeShowFile(show).slice(0, 2000), /cut off or damaged/],
  ["another zip", zipOf({}, "readme.txt"), /holds no Bold Comet show/],
  ["another JSON", zipOf({ hello: 1 }), /not a Bold Comet show/],
  ["broken JSON", zipOf('{"format":'), /cut off or damaged/],
  ["newer", zipOf({ ...clone(), version: 99 }), /version 99.*newer/],
  ["a name of the wrong kind", zipOf({ ...clone(), name: 7 }), /damaged at name/],
  ["a type missing", zipOf({ ...clone(), types: {} }), /type or mode the show lacks/],
  [
    "a prototype key",
    zipOf(JSON.stringify(clone()).replace('"seed":', '"__proto__":{"polluted":true},"seed":')),
    /the key __proto__/,
  ],
  [
    "a constructor key in a record",
    zipOf({ ...clone(), groups: { constructor: { id: "g1", number: 1, name: "", members: [] } } }),
    /the key constructor/,
  ],
  [
    "nested without end",
    zipOf(`{"format":"bold-comet-show","version":2,"deep":${"[".repeat(5000)}${"]".repeat(5000)}}`),
    /nested deeper|damaged/,
  ],
  [
    "absurd counts",
    zipOf({
      ...clone(),
      groups: Object.fromEntries(
        Array.from({ length: 10_001 }, (_, i) => [
          `g${i + 1}`,
          { id: `g${i + 1}`, number: i + 1, name: "", members: [] },
        ]),
      ),
    }),
    /10,001 groups; 10,000 is the most/,
  ],
  ["a member that leads nowhere near", zipOf({ ...clone(), nextId: 2 }), /count of records is wrong/],
  ["infinite", zipOf(JSON.stringify(clone()).replace('"x":-5.4', '"x":1e999')), /damaged at fixtures/],
])("%s is refused", (_, bytes, message) => {
  expect(why(bytes)).toMatch(message);
});

test("a clash is never let in", () => {
  const bad = clone();
  const [a, b] = Object.values(bad.fixtures);
  b!.addresses = a!.addresses;
  expect(why(zipOf(bad))).toMatch(/lies on another/);
  const twice = clone();
  Object.values(twice.fixtures)[1]!.number = Object.values(twice.fixtures)[0]!.number;
  expect(why(zipOf(twice))).toMatch(/two fixtures have the number/);
});

test("what a newer version added is kept and told", () => {
  const newer = { ...clone(), weather: { wind: 4 } };
  (Object.values(newer.fixtures)[0] as unknown as Record<string, unknown>).frostString = "half";
  const checked = checkShowFile(zipOf(newer));
  if (isRefusal(checked)) throw new Error(checked.what);
  expect(checked.unknown).toEqual(
    expect.arrayContaining(["weather", expect.stringMatching(/fixtures \/ f\d+ \/ frostString/)]),
  );
  const again = checkShowFile(writeShowFile(checked.show));
  expect(isRefusal(again) ? again : again.unknown.length).toBe(2);
  expect({}).not.toHaveProperty("polluted");
});

test("a file that swells without end is stopped early", () => {
  const bomb = zipSync({ "show.json": new Uint8Array(33 * 1024 * 1024) });
  expect(bomb.length).toBeLessThan(100_000);
  const read = checkShowFile(bomb);
  expect(isRefusal(read) && read.what).toMatch(/unpacks to 33 MB/);
  expect(isLarge(read) && read.large).toBe(33 * 1024 * 1024);
  // One that says it is small swells no further than it says.
  const lying = bomb.slice();
  const directory = lying.length - 22 - (46 + "show.json".length);
  new DataView(lying.buffer).setUint32(directory + 24, 1000, true);
  expect(why(lying)).toMatch(/cut off or damaged/);
});

test("any changed byte is found, or changes nothing", () => {
  const small = { ...show, fixtures: {}, groups: {}, lists: {}, types: {} };
  const bytes = writeShowFile(small);
  const before = canonical(small);
  // All of them by `npm run fuzz`; in every test run each of the directory at the end, and every ninth before it.
  const directory = bytes.length - 120;
  for (let at = 0; at < bytes.length; at += isFull || at >= directory ? 1 : 9) {
    for (const flip of [1, 128]) {
      const changed = bytes.slice();
      changed[at] = changed[at]! ^ flip;
      const read = readShowFile(changed);
      if (!isRefusal(read)) expect(canonical(read)).toBe(before);
    }
  }
});

test("other files beside the show are told", () => {
  const checked = checkShowFile(
    zipSync({ "show.json": strToU8(JSON.stringify(show)), "types/one.gdtf": strToU8("x") }),
  );
  expect(isRefusal(checked) ? checked : checked.leftOut).toEqual(["types/one.gdtf"]);
});
