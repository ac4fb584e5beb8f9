// Makes src/picture/groundWasm.ts from ground.wat. Usage: npm run wasm
import { readFileSync, writeFileSync } from "node:fs";
import { dirname, join } from "node:path";
import { fileURLToPath } from "node:url";
import wabt from "wabt";

const folder = join(dirname(fileURLToPath(import.meta.url)), "../src/picture");
const { parseWat } = await wabt();
const text = readFileSync(join(folder, "ground.wat"), "utf8");
const { buffer } = parseWat("ground.wat", text, { simd: true }).toBinary({});
writeFileSync(
  join(folder, "groundWasm.ts"),
  `/** Made from ground.wat by npm run wasm. */\nexport const GROUND_WASM =\n  "${Buffer.from(buffer).toString("base64")}";\n`,
);
