// Runs every check; ends with one plain line of counts. Usage: node tools/test.mjs [--times]
// --times keeps how long each unit suite took, which deals them out evenly (tests/setup/times.json).
import { spawn } from "node:child_process";
import { existsSync, mkdtempSync, readFileSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { dirname, join } from "node:path";
import { fileURLToPath } from "node:url";
import { makeSuites } from "./unit-suites.mjs";

const root = join(dirname(fileURLToPath(import.meta.url)), "..");
const out = mkdtempSync(join(tmpdir(), "bold-comet-test-"));
const bin = (name) => join(root, "node_modules/.bin", name);
const environment = { ...process.env, FORCE_COLOR: "0" };
const started = Date.now();
const took = [];
let passed = 0;
let failed = 0;

/** Runs a command. @returns whether it ended well. What it says is shown at once, or when it has ended. */
async function run(title, [command, ...args], { atOnce = false } = {}) {
  const since = Date.now();
  const child = spawn(command, args, {
    cwd: root,
    stdio: atOnce ? "inherit" : ["ignore", "pipe", "pipe"],
    env: environment,
  });
  let said = "";
  for (const stream of [child.stdout, child.stderr]) stream?.on("data", (text) => (said += text));
  const code = await new Promise((resolve) => child.once("close", resolve));
  const seconds = Math.round((Date.now() - since) / 1000);
  took.push(`${title} ${seconds} s`);
  if (!atOnce) console.log(`\n== ${title}, ${seconds} s\n${said.trim()}`);
  return code === 0;
}

/** Runs commands one after another. */
async function inTurn(checks) {
  for (const [title, ...command] of checks) {
    if (await run(title, command)) passed += 1;
    else failed += 1;
  }
}

async function jest(title, args) {
  console.log(`\n== ${title}`);
  const file = join(out, `${title.replaceAll(" ", "-")}.json`);
  const fine = await run(title, [bin("jest"), ...args, "--json", `--outputFile=${file}`], { atOnce: true });
  const report = existsSync(file) ? JSON.parse(readFileSync(file, "utf8")) : undefined;
  passed += report?.numPassedTests ?? 0;
  failed += report ? report.numFailedTests + report.numRuntimeErrorTestSuites : 1;
  if (!fine && failed === 0) failed = 1;
  return report;
}

function end() {
  console.log(`\n${took.join(", ")}; ${Math.round((Date.now() - started) / 1000)} s in all`);
  console.log(`${passed} passed, ${failed} failed`);
  process.exit(failed === 0 ? 0 : 1);
}

function keepTimes({ testResults }) {
  const seconds = {};
  for (const { ancestorTitles, duration } of testResults.flatMap((suite) => suite.assertionResults))
    seconds[ancestorTitles[0]] = (seconds[ancestorTitles[0]] ?? 0) + (duration ?? 0) / 1000;
  const long = Object.entries(seconds).filter(([, s]) => s >= 0.5);
  const rows = long.sort(([a], [b]) => (a < b ? -1 : 1)).map(([path, s]) => [path, Math.round(s * 10) / 10]);
  writeFileSync(join(root, "tests/setup/times.json"), `${JSON.stringify(Object.fromEntries(rows), null, 2)}\n`);
}

makeSuites();
// What is built and looked over stands beside the unit tests: neither waits for the other.
const [units] = await Promise.all([
  jest("unit and show tests", ["--config", "jest.suites.config.mjs"]),
  inTurn([
    ["the app is built, the layers hold", "./bold-comet", "build"],
    ["types and lint", bin("oxlint"), "--type-aware", "--type-check", "--deny-warnings"],
    ["nothing unused", bin("knip")],
    ["format", bin("oxfmt"), "--check", "src", "tests", "tools"],
    ["handbook is current", process.execPath, "tools/make-docs.mjs", "--check"],
  ]),
]);
if (units && process.argv.includes("--times")) keepTimes(units);
if (failed > 0) end();
await jest("journeys", ["--config", "jest.journeys.config.mjs"]);
end();
