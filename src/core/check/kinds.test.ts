/** Catches a kind of finding that has no name to be hidden by, or a thing to look at that is taken for one that can wait. */
import { readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";
import { canWait, kindOfFinding } from "./kinds";

const keys = readdirSync(__dirname)
  .filter((f) => f.endsWith(".ts") && !f.endsWith(".test.ts"))
  .flatMap((f) => [...readFileSync(join(__dirname, f), "utf8").matchAll(/\bkey: `([^`]+)`/g)].map((m) => m[1]!));

test("every finding there can be many of has a kind", () => {
  expect(keys.length).toBeGreaterThan(15);
  const single = /^(on the spot|never lit) /;
  expect(keys.filter((key) => !single.test(key) && kindOfFinding({ key }) === undefined)).toEqual([]);
});

test("only what nothing uses can wait", () =>
  expect(keys.filter((key) => canWait({ key }))).toEqual(keys.filter((key) => key.startsWith("unused "))));
