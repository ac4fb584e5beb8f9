// Bundles the command-line side into build/.
import { build } from "esbuild";

await build({
  entryPoints: { script: "src/cli/script.ts" },
  outdir: "build",
  outExtension: { ".js": ".mjs" },
  bundle: true,
  platform: "node",
  format: "esm",
  target: "node20",
  logLevel: "warning",
});
