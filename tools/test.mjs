// Runs every check in order; stops at the first that fails; ends with one plain line of counts.
import { spawnSync } from "node:child_process";
import { mkdtempSync, readFileSync, existsSync } from "node:fs";
import { tmpdir } from "node:os";
import { dirname, join } from "node:path";
import { fileURLToPath } from "node:url";

const root = join(dirname(fileURLToPath(import.meta.url)), "..");
const out = mkdtempSync(join(tmpdir(), "bold-comet-test-"));
const bin = (name) => join(root, "node_modules/.bin", name);
let passed = 0;
let failed = 0;

function run(title, command, args) {
  console.log(`\n== ${title}`);
  const { status } = spawnSync(command, args, { cwd: root, stdio: "inherit", env: { ...process.env, FORCE_COLOR: "0" } });
  return status === 0;
}

function end() {
  console.log(`\n${passed} passed, ${failed} failed`);
  process.exit(failed === 0 ? 0 : 1);
}

function check(title, command, args) {
  if (run(title, command, args)) passed += 1;
  else {
    failed += 1;
    end();
  }
}

function jest(title, args) {
  const report = join(out, `${title.replaceAll(" ", "-")}.json`);
  const fine = run(title, bin("jest"), [...args, "--json", `--outputFile=${report}`]);
  const counts = existsSync(report) ? JSON.parse(readFileSync(report, "utf8")) : { numPassedTests: 0, numFailedTests: 1 };
  passed += counts.numPassedTests;
  failed += counts.numFailedTests + counts.numRuntimeErrorTestSuites;
  if (!fine && failed === 0) failed = 1;
  if (failed > 0) end();
}

check("types", bin("tsc"), ["--noEmit"]);
check("lint", bin("eslint"), ["--max-warnings", "0", "."]);
check("layers", bin("depcruise"), ["--config", ".dependency-cruiser.cjs", "src"]);
check("handbook is current", process.execPath, ["tools/make-docs.mjs", "--check"]);
jest("unit and show tests", []);
jest("journeys", ["--config", "jest.journeys.config.mjs"]);
check("a few kills of the browser process (more: npm run kills -- 200)", process.execPath, ["tools/run-bundled.mjs", "tests/kills/kills.ts", "4", "7"]);
end();
