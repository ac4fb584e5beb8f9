/** ./bold-comet script FILE...: runs each file on a new empty show with a virtual clock. */
import { readFileSync, writeFileSync } from "node:fs";
import { dirname, resolve } from "node:path";
import { readShowFile, writeShowFile } from "@/core/exchange/showFile";
import { runScript, type ScriptFiles } from "@/core/command/script";
import { refuse } from "@/core/show/refusal";

function filesBeside(script: string): ScriptFiles {
  const path = (name: string) => resolve(dirname(script), name);
  return {
    open(name) {
      try {
        return readShowFile(new Uint8Array(readFileSync(path(name))));
      } catch {
        return refuse(`there is no file "${name}" beside the script`);
      }
    },
    save(name, show) {
      try {
        writeFileSync(path(name), writeShowFile(show));
        return undefined;
      } catch {
        return refuse(`"${name}" cannot be written`);
      }
    },
    readText(name) {
      try {
        return readFileSync(path(name), "utf8");
      } catch {
        return refuse(`there is no file "${name}" beside the script`);
      }
    },
    writeText(name, text) {
      try {
        writeFileSync(path(name), text);
        return undefined;
      } catch {
        return refuse(`"${name}" cannot be written`);
      }
    },
    print: (line) => console.log(line),
  };
}

const scripts = process.argv.slice(2);
if (scripts.length === 0) {
  console.error("usage: ./bold-comet script FILE...");
  process.exit(2);
}
let passed = 0;
let failed = 0;
for (const script of scripts) {
  let source: string;
  try {
    source = readFileSync(script, "utf8");
  } catch {
    console.log(`${script}: no such file`);
    failed += 1;
    continue;
  }
  const result = runScript(source, filesBeside(script));
  passed += result.passed;
  failed += result.failures.length;
  for (const { line, text } of result.failures) console.log(`${script}:${line} ${text}`);
}
console.log(`${passed} passed, ${failed} failed`);
process.exit(failed === 0 ? 0 : 1);
