// Runs the property tests over and over, each time with another seed. Usage: node tools/fuzz.mjs [times] [path ...]
import { execSync, spawnSync } from "node:child_process";
import { dirname, join } from "node:path";
import { fileURLToPath } from "node:url";

const root = join(dirname(fileURLToPath(import.meta.url)), "..");
const [times = "10", ...paths] = process.argv.slice(2);
const files =
  paths.length > 0
    ? paths
    : execSync("grep -rl fc.assert src tests --include=*.test.ts", { cwd: root, encoding: "utf8" }).trim().split("\n");
for (let i = 1; i <= Number(times); i++) {
  const seed = Math.floor(Math.random() * 2 ** 31);
  const { status, stdout, stderr } = spawnSync("npx", ["jest", ...files], {
    cwd: root,
    encoding: "utf8",
    env: { ...process.env, FUZZ_SEED: String(seed) },
  });
  console.log(`${i} of ${times}: seed ${seed} ${status === 0 ? "holds" : "fails"}`);
  if (status === 0) continue;
  console.log(`${stdout}${stderr}`);
  console.log(`Again with: FUZZ_SEED=${seed} npx jest ${files.join(" ")}`);
  process.exit(1);
}
