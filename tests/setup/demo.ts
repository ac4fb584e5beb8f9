/** The demo show as the app opens it: read from the file that is made once, not built again by every suite. */
import { readFileSync } from "node:fs";
import { join } from "node:path";
import { readShowFile } from "@/core/exchange/showFile";
import { isRefusal } from "@/core/show/refusal";
import { newHands, type World } from "@/core/show/world";

let kept: World | undefined;

export function demoWorld(): World {
  if (kept) return kept;
  const show = readShowFile(demoBytes());
  if (isRefusal(show)) throw new Error(`the demo file does not open: ${show.what}`);
  return (kept = { show, hands: newHands(show) });
}

export const demoBytes = (): Uint8Array<ArrayBuffer> =>
  new Uint8Array(readFileSync(join(__dirname, "../../public/demo.comet.zip")));
