/** The show file: a zip with show.json, every byte of which follows from the show. */
import { strFromU8, strToU8, Unzip, UnzipInflate, UnzipPassThrough, zipSync } from "fflate";
import { checkShow, type Checked } from "../show/check";
import { refuse, type Refusal } from "../show/refusal";
import type { Show } from "../show/schema";
import { canonical } from "./canonical";

export const SHOW_FILE_ENDING = ".comet.zip";
const LIMIT = 256 * 1024 * 1024;
/** The earliest time a zip can carry: files do not tell when they were made, so that equal shows give equal files. */
const EPOCH = "1980-01-01T00:00:00";

/** A show as the bytes of its file. */
export const writeShowFile = (show: Show): Uint8Array => zipSync({ "show.json": [strToU8(canonical(show)), { mtime: EPOCH, level: 6 }] });

/** Only the first this many bytes at a time, so that a file that swells without end is stopped early. */
const PIECE = 16 * 1024;

/** One file out of a zip, at most `limit` bytes; undefined where the zip holds none of that name. @throws on damage. */
function unzipOne(bytes: Uint8Array, name: string, limit: number): Uint8Array | undefined | "too large" {
  const parts: Uint8Array[] = [];
  let total = 0;
  let found = false;
  let done = false;
  const zip = new Unzip((file) => {
    if (file.name !== name || found) return;
    found = true;
    file.ondata = (error, piece, final) => {
      if (error) throw error;
      total += piece.length;
      if (total <= limit) parts.push(piece);
      done ||= final;
    };
    file.start();
  });
  zip.register(UnzipInflate);
  zip.register(UnzipPassThrough);
  for (let at = 0; at < bytes.length; at += PIECE) {
    zip.push(bytes.subarray(at, at + PIECE), at + PIECE >= bytes.length);
    if (total > limit) return "too large";
  }
  if (!found) return undefined;
  if (!done) throw new Error("cut off");
  const whole = new Uint8Array(total);
  let at = 0;
  for (const part of parts) {
    whole.set(part, at);
    at += part.length;
  }
  return whole;
}

/** A show from the bytes of a file with what was not known in it, or what is wrong with it. */
export function checkShowFile(bytes: Uint8Array, limit = LIMIT): Checked | Refusal {
  if (bytes.length > limit) return refuse("this file is too large to be a show");
  if (bytes[0] !== 0x50 || bytes[1] !== 0x4b) return refuse("this is not a Bold Comet show file", `Choose a file that ends in ${SHOW_FILE_ENDING}`);
  try {
    const json = unzipOne(bytes, "show.json", limit);
    if (json === "too large") return refuse("the show in this file is too large to open");
    if (!json) return refuse("this zip file holds no Bold Comet show", `Choose a file that ends in ${SHOW_FILE_ENDING}`);
    return checkShow(JSON.parse(strFromU8(json)));
  } catch {
    return refuse("this show file is cut off or damaged", "Open another copy of it");
  }
}

export function readShowFile(bytes: Uint8Array): Show | Refusal {
  const checked = checkShowFile(bytes);
  return "refused" in checked ? checked : checked.show;
}
