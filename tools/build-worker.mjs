// Builds the worker that keeps the app in the browser: its code, and the list of every file of the built app.
import { rmSync } from "node:fs";
import { dirname, join } from "node:path";
import { fileURLToPath } from "node:url";
import { injectManifest } from "@serwist/build";
import { build } from "esbuild";

const root = join(dirname(fileURLToPath(import.meta.url)), "..");
const bare = join(root, "build/worker.js");

await build({
  entryPoints: [join(root, "src/offline/worker.ts")],
  outfile: bare,
  bundle: true,
  minify: true,
  platform: "browser",
  format: "iife",
  target: "es2022",
  define: { "process.env.NODE_ENV": '"production"' },
  absWorkingDir: root,
});
const { count, size, warnings } = await injectManifest({
  swSrc: bare,
  swDest: join(root, "public/worker.js"),
  injectionPoint: "globalThis.__SW_MANIFEST",
  globDirectory: root,
  globPatterns: [".next/static/**/*", "public/icons/*", "public/demo.comet.zip"],
  globIgnores: ["**/*.map"],
  maximumFileSizeToCacheInBytes: 32 * 1024 * 1024,
  // Their names change with what is in them.
  dontCacheBustURLsMatching: /^\/_next\/static\//,
  manifestTransforms: [
    (entries) => ({
      manifest: entries.map((e) => ({ ...e, url: e.url.replace(/^\.next/, "/_next").replace(/^public/, "") })),
      warnings: [],
    }),
  ],
});
rmSync(bare);
for (const warning of warnings) console.error(warning);
console.log(`kept in the browser: ${count} files, ${(size / 1024 / 1024).toFixed(1)} MB`);
