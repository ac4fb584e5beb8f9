// Bundles what runs in Node into build/: scripts, the bridge and the stand-in node.
import { build } from "esbuild";

await build({
  entryPoints: { script: "src/cli/script.ts", bridge: "src/bridge/main.ts", standin: "src/standin/main.ts" },
  outdir: "build",
  outExtension: { ".js": ".mjs" },
  bundle: true,
  platform: "node",
  format: "esm",
  target: "node20",
  logLevel: "warning",
  // Some packages are CommonJS and ask for Node's own modules.
  banner: {
    js: 'import { createRequire as makeRequire } from "node:module"; const require = makeRequire(import.meta.url);',
  },
});
