// Writes what docs/ takes from the code; with --check only compares.
import { spawnSync } from "node:child_process";
import { existsSync, readFileSync, writeFileSync } from "node:fs";
import { dirname, join } from "node:path";
import { fileURLToPath } from "node:url";
import { build } from "esbuild";

const root = join(dirname(fileURLToPath(import.meta.url)), "..");
await build({
  entryPoints: [join(root, "src/cli/docs.ts")],
  outfile: join(root, "build/docs.mjs"),
  bundle: true,
  platform: "node",
  format: "esm",
  target: "node20",
  logLevel: "warning",
  tsconfig: join(root, "tsconfig.json"),
});
const { stdout } = spawnSync(process.execPath, [join(root, "build/docs.mjs")], {
  encoding: "utf8",
  maxBuffer: 1 << 26,
});
const stale = [];
for (const [name, text] of Object.entries(JSON.parse(stdout))) {
  const path = join(root, "docs", name);
  if (existsSync(path) && readFileSync(path, "utf8") === text) continue;
  stale.push(name);
  if (!process.argv.includes("--check")) writeFileSync(path, text);
}
if (process.argv.includes("--check") && stale.length > 0) {
  console.error(`out of date: ${stale.join(", ")}. Run: npm run docs`);
  process.exit(1);
}
