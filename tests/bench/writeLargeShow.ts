/** Writes the large show as a file. Usage: node tools/run-bundled.mjs tests/bench/writeLargeShow.ts FILE */
import { writeFileSync } from "node:fs";
import { writeShowFile } from "@/core/exchange/showFile";
import { largeShow } from "./largeShow";

writeFileSync(process.argv[2]!, writeShowFile(largeShow(4000).show));
