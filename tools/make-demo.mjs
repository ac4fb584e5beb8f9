// Makes the demo show's file, where what it is made of is newer than it.
import { spawnSync } from "node:child_process";
import { readdirSync, statSync } from "node:fs";
import { dirname, join } from "node:path";
import { fileURLToPath } from "node:url";

const root = join(dirname(fileURLToPath(import.meta.url)), "..");
const file = join(root, "public/demo.comet.zip");
const changed = (path) => statSync(path, { throwIfNoEntry: false })?.mtimeMs ?? 0;
const newest = Math.max(
  changed(join(root, "package-lock.json")),
  ...readdirSync(join(root, "src/core"), { recursive: true, withFileTypes: true })
    .filter((entry) => entry.isFile() && !entry.name.includes(".test."))
    .map((entry) => changed(join(entry.parentPath, entry.name))),
);
if (changed(file) <= newest)
  process.exit(
    spawnSync(process.execPath, [join(root, "tools/run-bundled.mjs"), "src/cli/demoFile.ts", file], {
      cwd: root,
      stdio: "inherit",
    }).status ?? 1,
  );
