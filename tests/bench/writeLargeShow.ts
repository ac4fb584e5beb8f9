/** Writes a large show as a file. Usage: node tools/run-bundled.mjs tests/bench/writeLargeShow.ts FILE [FIXTURES CUES] */
import { writeFileSync } from "node:fs";
import { writeShowFile } from "@/core/exchange/showFile";
import { largeShow } from "./largeShow";
import { largestShow } from "./largestShow";

const [file, fixtures, cues] = process.argv.slice(2);
const world = fixtures === undefined ? largeShow(4000) : largestShow(Number(fixtures), Number(cues));
writeFileSync(file!, writeShowFile(world.show));
