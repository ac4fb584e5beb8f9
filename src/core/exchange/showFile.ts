/** The show file: a zip with show.json, every byte of which follows from the show. */
import { strFromU8, strToU8, unzipSync, zipSync } from "fflate";
import { readShow } from "../show/check";
import { refuse, type Refusal } from "../show/refusal";
import type { Show } from "../show/schema";
import { canonical } from "./canonical";

export const SHOW_FILE_ENDING = ".comet.zip";
const LIMIT = 256 * 1024 * 1024;
/** The earliest time a zip can carry: files do not tell when they were made, so that equal shows give equal files. */
const EPOCH = "1980-01-01T00:00:00";

/** A show as the bytes of its file. */
export const writeShowFile = (show: Show): Uint8Array => zipSync({ "show.json": [strToU8(canonical(show)), { mtime: EPOCH, level: 6 }] });

/** A show from the bytes of a file, or what is wrong with it. */
export function readShowFile(bytes: Uint8Array): Show | Refusal {
  if (bytes.length > LIMIT) return refuse("this file is too large to be a show");
  if (bytes[0] !== 0x50 || bytes[1] !== 0x4b) return refuse("this is not a Bold Comet show file", `Choose a file that ends in ${SHOW_FILE_ENDING}`);
  let files: Record<string, Uint8Array>;
  let tooLarge = false;
  try {
    files = unzipSync(bytes, {
      filter: (file) => {
        if (file.name !== "show.json") return false;
        tooLarge = file.originalSize > LIMIT;
        return !tooLarge;
      },
    });
  } catch {
    return refuse("this show file is cut off or damaged", "Open another copy of it");
  }
  if (tooLarge) return refuse("the show in this file is too large to open");
  const json = files["show.json"];
  if (!json) return refuse("this zip file holds no Bold Comet show", `Choose a file that ends in ${SHOW_FILE_ENDING}`);
  let data: unknown;
  try {
    data = JSON.parse(strFromU8(json));
  } catch {
    return refuse("the show in this file is cut off or damaged", "Open another copy of it");
  }
  return readShow(data);
}
