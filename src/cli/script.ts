/** ./bold-comet script FILE...: runs each file on a new empty show with a virtual clock. */
import { runScript } from "@/core/desk/script";
import { isRefusal, refusalText } from "@/core/show/refusal";
import { filesBeside, readBounded } from "./files";

const ANYWHERE = "--write-anywhere";
const given = process.argv.slice(2);
const scripts = given.filter((arg) => arg !== ANYWHERE);
const unknown = scripts.find((arg) => arg.startsWith("--"));
if (scripts.length === 0 || unknown) {
  console.error(`${unknown ? `there is no option ${unknown}\n` : ""}usage: ./bold-comet script [${ANYWHERE}] FILE...`);
  process.exit(2);
}
let passed = 0;
let failed = 0;
for (const script of scripts) {
  const source = readBounded(script, "this script");
  if (isRefusal(source)) {
    console.log(`${script}: ${refusalText(source)}`);
    failed += 1;
    continue;
  }
  const result = runScript(
    source.toString("utf8"),
    filesBeside(script, process.cwd(), given.includes(ANYWHERE), (line) => console.log(line)),
  );
  passed += result.passed;
  failed += result.failures.length;
  for (const { line, text } of result.failures) console.log(`${script}:${line} ${text}`);
}
console.log(`${passed} passed, ${failed} failed`);
process.exit(failed === 0 ? 0 : 1);
