import { strToU8, zipSync } from "fflate";
import { makeDemo } from "../demo/saltLantern";
import { isRefusal, refusalText } from "../show/refusal";
import { readShowFile, writeShowFile } from "./showFile";

const { show } = makeDemo();
const zipOf = (json: unknown, name = "show.json") => zipSync({ [name]: strToU8(typeof json === "string" ? json : JSON.stringify(json)) });
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
  ["a type missing", zipOf({ ...clone(), types: {} }), /type or mode the file lacks/],
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
