// Attacks the product with damaged and hostile files, lines, limits, messages and storage, and keeps the figures.
// Usage: node tools/attack.mjs [--keep]   (--keep writes the figures into docs/reliability.md)
import { spawnSync } from "node:child_process";
import { mkdtempSync, readFileSync, writeFileSync, existsSync } from "node:fs";
import { tmpdir } from "node:os";
import { dirname, join } from "node:path";
import { fileURLToPath } from "node:url";

const root = join(dirname(fileURLToPath(import.meta.url)), "..");
const file = join(mkdtempSync(join(tmpdir(), "bold-comet-attack-")), "figures");
const { status } = spawnSync("npx", ["jest", "tests/attack"], {
  cwd: root,
  stdio: "inherit",
  env: { ...process.env, ATTACK: "full", ATTACK_REPORT: file },
});
const rows = existsSync(file)
  ? readFileSync(file, "utf8")
      .trim()
      .split("\n")
      .map((line) => JSON.parse(line))
  : [];
const table = [
  "| attack | what came of it |",
  "|---|---|",
  ...rows.map(
    ({ what, ...figures }) =>
      `| ${what} | ${Object.entries(figures)
        .map(([name, value]) => `${typeof value === "number" ? value.toLocaleString("en") : value} ${name}`)
        .join(", ")} |`,
  ),
].join("\n");
console.log(`\n${table}`);
if (status === 0 && process.argv.includes("--keep")) {
  const page = join(root, "docs/reliability.md");
  writeFileSync(
    page,
    readFileSync(page, "utf8").replace(/(<!-- attack -->\n)[\s\S]*?(\n<!-- end -->)/, `$1${table}$2`),
  );
}
process.exit(status ?? 1);
