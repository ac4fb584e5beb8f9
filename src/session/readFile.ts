/** Reading a show file between frames, with its progress told. */
import { readingShowFile, type FromFile, type LargeShow } from "@/core/exchange/showFile";
import type { Refusal } from "@/core/show/refusal";

/** So long a piece may keep the page from being drawn, milliseconds. */
const PIECE_MS = 12;

/** @param most bytes its document may unpack to. @param progress told the share done, 0 to 1; returns false to stop. */
export async function readInPieces(
  file: Blob,
  most: number,
  progress: (share: number) => boolean,
): Promise<FromFile | Refusal | LargeShow | "stopped"> {
  const work = readingShowFile(new Uint8Array(await file.arrayBuffer()), most);
  for (let since = performance.now(); ;) {
    const { done, value } = work.next();
    if (done) return value;
    if (performance.now() - since < PIECE_MS) continue;
    if (!progress(value)) return "stopped";
    await new Promise((resolve) => setTimeout(resolve, 0));
    since = performance.now();
  }
}
