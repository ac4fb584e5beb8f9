/** Files out of the browser. */
import { SHOW_FILE_ENDING, writeShowFile } from "@/core/exchange/showFile";
import type { Show } from "@/core/show/schema";

export function saveFile(name: string, bytes: Uint8Array, type: string): void {
  const url = URL.createObjectURL(new Blob([bytes as Uint8Array<ArrayBuffer>], { type }));
  const link = document.createElement("a");
  link.href = url;
  link.download = name;
  link.click();
  setTimeout(() => URL.revokeObjectURL(url), 10_000);
}

/** The show's name as a file name. */
const fileName = (name: string): string =>
  name
    .replace(/[^\p{L}\p{N}]+/gu, "-")
    .replace(/^-|-$/g, "")
    .toLowerCase() || "show";

export const saveShowFile = (show: Show): void =>
  saveFile(`${fileName(show.name)}${SHOW_FILE_ENDING}`, writeShowFile(show), "application/zip");
