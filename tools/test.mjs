// Runs every check in order; stops at the first that fails; ends with one plain line of counts.
import { spawn, spawnSync } from "node:child_process";
import { mkdtempSync, readFileSync, existsSync } from "node:fs";
import { tmpdir } from "node:os";
import { dirname, join } from "node:path";
import { fileURLToPath } from "node:url";

const root = join(dirname(fileURLToPath(import.meta.url)), "..");
const out = mkdtempSync(join(tmpdir(), "bold-comet-test-"));
const bin = (name) => join(root, "node_modules/.bin", name);
let passed = 0;
let failed = 0;

const environment = { ...process.env, FORCE_COLOR: "0" };

function run(title, command, args) {
  console.log(`\n== ${title}`);
  const { status } = spawnSync(command, args, { cwd: root, stdio: "inherit", env: environment });
  return status === 0;
}

/** Runs checks that do not need each other side by side; what they say comes when they are done. */
async function together(checks) {
  const done = await Promise.all(
    checks.map(
      ([title, command, args]) =>
        new Promise((resolve) => {
          const child = spawn(command, args, { cwd: root, stdio: ["ignore", "pipe", "pipe"], env: environment });
          let said = "";
          for (const stream of [child.stdout, child.stderr]) stream.on("data", (text) => (said += text));
          child.on("close", (code) => resolve({ title, said, fine: code === 0 }));
        }),
    ),
  );
  for (const { title, said, fine } of done) {
    console.log(`\n== ${title}\n${said.trim()}`);
    if (fine) passed += 1;
    else failed += 1;
  }
  if (failed > 0) end();
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
  const counts = existsSync(report)
    ? JSON.parse(readFileSync(report, "utf8"))
    : { numPassedTests: 0, numFailedTests: 1 };
  passed += counts.numPassedTests;
  failed += counts.numFailedTests + counts.numRuntimeErrorTestSuites;
  if (!fine && failed === 0) failed = 1;
  if (failed > 0) end();
}

await together([
  ["types", bin("tsc"), ["--noEmit"]],
  ["lint", bin("eslint"), ["--max-warnings", "0", "."]],
  ["layers", bin("depcruise"), ["--config", ".dependency-cruiser.cjs", "src"]],
  ["nothing unused", bin("knip"), []],
  ["format", bin("prettier"), ["--check", "--log-level", "warn", "src", "tests", "tools"]],
  ["handbook is current", process.execPath, ["tools/make-docs.mjs", "--check"]],
]);
jest("unit and show tests", []);
jest("journeys", ["--config", "jest.journeys.config.mjs"]);
check("a few kills of the browser process (more: npm run kills -- 200)", process.execPath, [
  "tools/run-bundled.mjs",
  "tests/kills/kills.ts",
  "4",
  "7",
]);
end();
