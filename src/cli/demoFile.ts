/** Writes the demo show as a file. Usage: node build/demoFile.mjs FILE */
import { mkdirSync, renameSync, writeFileSync } from "node:fs";
import { dirname } from "node:path";
import { makeDemo } from "@/core/demo/saltLantern";
import { writeShowFile } from "@/core/exchange/showFile";

const to = process.argv[2]!;
mkdirSync(dirname(to), { recursive: true });
// Whoever reads it meanwhile finds the one before, whole.
writeFileSync(`${to}.new`, writeShowFile(makeDemo().show));
renameSync(`${to}.new`, to);
