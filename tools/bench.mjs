// Builds and runs the bench.
import { spawnSync } from "node:child_process";
import { dirname, join } from "node:path";
import { fileURLToPath } from "node:url";
import { build } from "esbuild";

const root = join(dirname(fileURLToPath(import.meta.url)), "..");
await build({ entryPoints: [join(root, "tests/bench/bench.ts")], outfile: join(root, "build/bench.mjs"), bundle: true, platform: "node", format: "esm", target: "node20", logLevel: "warning", tsconfig: join(root, "tsconfig.json") });
process.exit(spawnSync(process.execPath, [join(root, "build/bench.mjs")], { stdio: "inherit" }).status ?? 1);
