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
/** What the app runs with, by licence, from the lock file. */
function licences() {
  const { packages } = JSON.parse(readFileSync(join(root, "package-lock.json"), "utf8"));
  const of = new Map();
  for (const [path, { version, license, dev, optional }] of Object.entries(packages)) {
    if (path === "" || dev || optional) continue;
    const name = path.slice(path.lastIndexOf("node_modules/") + "node_modules/".length);
    of.set(license ?? "not said", [...(of.get(license ?? "not said") ?? []), `${name} ${version}`]);
  }
  const sections = [...of]
    .sort(([a], [b]) => (a < b ? -1 : 1))
    .map(([licence, names]) => `## ${licence}\n\n${[...new Set(names)].sort().join(", ")}\n`);
  return `# Licences of what Bold Comet uses\n\nMade from the lock file by \`npm run docs\`: the packages that the app runs with, each with its version. Their texts come with them, in \`node_modules\`.\n\n${sections.join("\n")}`;
}

const stale = [];
for (const [name, text] of Object.entries({ ...JSON.parse(stdout), "licences.md": licences() })) {
  const path = join(root, "docs", name);
  if (existsSync(path) && readFileSync(path, "utf8") === text) continue;
  stale.push(name);
  if (!process.argv.includes("--check")) writeFileSync(path, text);
}
if (process.argv.includes("--check") && stale.length > 0) {
  console.error(`out of date: ${stale.join(", ")}. Run: npm run docs`);
  process.exit(1);
}
