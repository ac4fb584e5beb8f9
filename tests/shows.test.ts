/** Catches a stage that stands otherwise than a show test says: each script in tests/shows on a virtual clock. */
import { existsSync, mkdtempSync, readdirSync, readFileSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { demoWorld } from "@tests/setup/demo";
import { runScript, type ScriptFiles } from "@/core/desk/script";
import { readShowFile, writeShowFile } from "@/core/exchange/showFile";

const folder = join(__dirname, "shows");
const out = mkdtempSync(join(tmpdir(), "bold-comet-"));
const files: ScriptFiles = {
  open: (name) => (name === "demo" ? demoWorld().show : readShowFile(new Uint8Array(readFileSync(join(out, name))))),
  save: (name, show) => void writeFileSync(join(out, name), writeShowFile(show)),
  print: () => undefined,
  readText: (name) => readFileSync(existsSync(join(folder, name)) ? join(folder, name) : join(out, name), "utf8"),
  writeText: (name, text) => void writeFileSync(join(out, name), text),
  readBytes: (name) => new Uint8Array(readFileSync(join(out, name))),
  writeBytes: (name, bytes) => void writeFileSync(join(out, name), bytes),
};

describe("show tests", () => {
  const scripts = readdirSync(folder).filter((name) => name.endsWith(".comet"));
  test.each(scripts)("%s", (name) => {
    const result = runScript(readFileSync(join(folder, name), "utf8"), files);
    expect(result.failures.map((f) => `${name}:${f.line} ${f.text}`)).toEqual([]);
    expect(result.passed).toBeGreaterThan(0);
  });
});
