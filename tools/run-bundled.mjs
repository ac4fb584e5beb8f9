// Bundles a TypeScript entry and runs it in Node. Usage: node tools/run-bundled.mjs tests/bench/bench.ts
import { spawnSync } from "node:child_process";
import { basename, dirname, join, resolve } from "node:path";
import { fileURLToPath } from "node:url";
import { build } from "esbuild";

const root = join(dirname(fileURLToPath(import.meta.url)), "..");
const entry = process.argv[2];
const made = join(root, "build", basename(entry).replace(/\.ts$/, ".mjs"));
await build({
  entryPoints: [resolve(root, entry)],
  outfile: made,
  bundle: true,
  platform: "node",
  format: "esm",
  target: "node20",
  logLevel: "warning",
  external: ["playwright-core"],
  tsconfig: join(root, "tsconfig.json"),
});
process.exit(spawnSync(process.execPath, [made, ...process.argv.slice(3)], { stdio: "inherit" }).status ?? 1);
