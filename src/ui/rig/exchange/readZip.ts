/** Reading a GDTF or MVR file between frames. */
import { readGdtf, type GdtfRead } from "@/core/exchange/gdtf/file";
import { readingMvr, type MvrRead } from "@/core/exchange/mvr/read";
import { zipFiles } from "@/core/exchange/zip";
import { refuse, type Refusal } from "@/core/show/refusal";
import type { Show } from "@/core/show/schema";

const PIECE_MS = 12;
const pause = (): Promise<void> => new Promise((resolve) => setTimeout(resolve, 0));

/** What a file holds, by what is in it and not by what it is called. @param progress told the share done, 0 to 1. */
export async function readZip(
  bytes: Uint8Array,
  show: Show,
  progress: (share: number) => void,
): Promise<GdtfRead | MvrRead | Refusal> {
  const files = bytes[0] === 0x50 && bytes[1] === 0x4b ? zipFiles(bytes) : undefined;
  if (!files) return refuse("this is neither a GDTF nor an MVR file, or it is damaged", "Choose another copy of it");
  if (files.some((f) => f.name.toLowerCase() === "description.xml")) return readGdtf(bytes, show);
  const work = readingMvr(bytes, show);
  for (let since = performance.now(); ;) {
    const { done, value } = work.next();
    if (done) return value;
    progress(value);
    if (performance.now() - since < PIECE_MS) continue;
    await pause();
    since = performance.now();
  }
}
