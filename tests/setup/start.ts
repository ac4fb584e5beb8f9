import { execFileSync } from "node:child_process";
import { join } from "node:path";

/** The demo file is there before any suite reads it. */
export default function start(): void {
  execFileSync(process.execPath, [join(__dirname, "../../tools/make-demo.mjs")], { stdio: "inherit" });
}
