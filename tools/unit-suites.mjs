// Puts many unit suites into one file each, so that what they all load is loaded once. Usage: import, or node tools/unit-suites.mjs
import { mkdirSync, readdirSync, readFileSync, rmSync, statSync, writeFileSync } from "node:fs";
import { dirname, join } from "node:path";
import { fileURLToPath } from "node:url";

const root = join(dirname(fileURLToPath(import.meta.url)), "..");
export const FOLDER = "build/suites";
/** What changes the world around it (timers, storage, modules) runs in a file of its own. */
const APART =
  /jest\.(mock|spyOn|useFakeTimers|resetModules)|globalThis,|fake-indexeddb|@jest-environment|^const real|process\.env|setup\/engine"/m;
/** So many files of suites: enough that two workers end together, few enough that little is loaded twice. */
const FILES = 6;

const suites = () =>
  ["src", "tests"].flatMap((folder) =>
    readdirSync(join(root, folder), { recursive: true, withFileTypes: true })
      .filter((entry) => entry.isFile() && entry.name.endsWith(".test.ts"))
      .map((entry) => join(entry.parentPath, entry.name).slice(root.length + 1))
      .filter((path) => !path.startsWith("tests/journeys/")),
  );

/** Seconds each suite took when last measured (`node tools/test.mjs --times`). */
const times = () => JSON.parse(readFileSync(join(root, "tests/setup/times.json"), "utf8"));

/** Writes the files; the longest suites are dealt out first, each to where there is least. */
export function makeSuites() {
  const known = times();
  const weight = (path) => known[path] ?? statSync(join(root, path)).size / 10_000;
  const all = suites().sort((a, b) => weight(b) - weight(a) || (a < b ? -1 : 1));
  const apart = all.filter((path) => APART.test(readFileSync(join(root, path), "utf8")));
  const files = Array.from({ length: FILES }, () => ({ seconds: 0, of: [] }));
  for (const path of all.filter((p) => !apart.includes(p))) {
    const least = files.reduce((a, b) => (b.seconds < a.seconds ? b : a));
    least.of.push(path);
    least.seconds += weight(path);
  }
  rmSync(join(root, FOLDER), { recursive: true, force: true });
  mkdirSync(join(root, FOLDER), { recursive: true });
  const write = (name, paths) =>
    writeFileSync(
      join(root, FOLDER, name),
      paths
        .map(
          (path) => `describe(${JSON.stringify(path)}, () => {\n  require(${JSON.stringify(join(root, path))});\n});\n`,
        )
        .join(""),
    );
  files.forEach(({ of }, i) => write(`together-${i + 1}.test.js`, of));
  apart.forEach((path, i) => write(`apart-${String(i + 1).padStart(2, "0")}.test.js`, [path]));
}
