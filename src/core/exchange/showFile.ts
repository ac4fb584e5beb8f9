/** The show file: a zip with show.json, every byte of which follows from the show. */
import { strFromU8, strToU8, zipSync, type Zippable } from "fflate";
import { own } from "../show/hasOwn";
import { checkShow, type Checked } from "../show/checking/check";
import { refuse, type Refusal } from "../show/refusal";
import type { Show } from "../show/schema";
import { canonical } from "./canonical";
import { base64Of, bytesOf } from "./gdtf/base64";
import { unpacked, unpacking, zipFiles, type ZipFile } from "./zip";

export const SHOW_FILE_ENDING = ".comet.zip";
const MB = 1024 * 1024;
/** The document of a show unpacks to this much without a person being asked, and to this much at all. */
export const USUAL_BYTES = 32 * MB;
export const MOST_BYTES = 512 * MB;
/** The earliest time a zip can carry: files do not tell when they were made, so that equal shows give equal files. */
const EPOCH = "1980-01-01T00:00:00";
const DOCUMENT = "show.json";

/** The GDTF file a type came from lies beside the document. */
const gdtfName = (type: string): string => `fixtures/${type}.gdtf`;
const GDTF = /^fixtures\/([a-z0-9][a-z0-9-]{0,63})\.gdtf$/;
const MOST_GDTF = 9 * MB;

/** A show as the bytes of its file. */
export function writeShowFile(show: Show): Uint8Array {
  const files: Zippable = {};
  const types = { ...show.types };
  for (const [id, { file, ...type }] of Object.entries(show.types)) {
    if (file === undefined) continue;
    types[id] = type;
    files[gdtfName(id)] = [bytesOf(file), { mtime: EPOCH, level: 0 }];
  }
  const document = strToU8(canonical({ ...show, types }));
  return zipSync({ [DOCUMENT]: [document, { mtime: EPOCH, level: 6 }], ...files });
}

/** A show larger than usual: it is opened when a person agrees. */
export interface LargeShow extends Refusal {
  /** Bytes it unpacks to. */
  large: number;
}
/** Whether something read from a file is a show too large to be checked in one go. */
export const isLarge = (value: unknown): value is LargeShow =>
  typeof value === "object" && value !== null && "large" in value;

export interface FromFile extends Checked {
  /** Other files in it, which this version does not know and leaves out. */
  leftOut: string[];
}

const damaged = (): Refusal => refuse("this show file is cut off or damaged", "Open another copy of it");
const megabytes = (bytes: number): string => `${Math.ceil(bytes / MB).toLocaleString("en")} MB`;

/** Reads a show file; each step tells the share done, 0 to 1, and whoever asks may stop. @param most bytes its document may unpack to. */
export function* readingShowFile(
  bytes: Uint8Array,
  most = USUAL_BYTES,
): Generator<number, FromFile | Refusal | LargeShow> {
  if (bytes[0] !== 0x50 || bytes[1] !== 0x4b)
    return refuse("this is not a Bold Comet show file", `Choose a file that ends in ${SHOW_FILE_ENDING}`);
  const files = zipFiles(bytes);
  if (!files) return damaged();
  const named = files.filter((f) => f.name === DOCUMENT);
  const file = named[0];
  if (!file) return refuse("this zip file holds no Bold Comet show", `Choose a file that ends in ${SHOW_FILE_ENDING}`);
  if (named.length > 1) return damaged();
  const others = files.filter((f) => f !== file);
  if (others.reduce((sum, f) => sum + f.size, 0) > MOST_BYTES)
    return refuse(`what comes with this show unpacks to more than ${megabytes(MOST_BYTES)}`, "Open another copy of it");
  if (file.size > MOST_BYTES)
    return refuse(
      `the show in this file is too large to open: ${megabytes(file.size)}`,
      `${megabytes(MOST_BYTES)} is the most`,
    );
  if (file.size > most)
    return {
      ...refuse(
        `the show in this file unpacks to ${megabytes(file.size)}, more than shows do`,
        "Open it only if you know where it comes from",
      ),
      large: file.size,
    };
  const work = unpacking(bytes, file);
  for (;;) {
    const { done, value } = work.next();
    if (!done) yield value / Math.max(1, file.size);
    else if (!value) return damaged();
    else return read(value, bytes, others);
  }
}

function read(json: Uint8Array, bytes: Uint8Array, others: readonly ZipFile[]): FromFile | Refusal {
  let data: unknown;
  try {
    data = JSON.parse(strFromU8(json));
  } catch {
    return damaged();
  }
  const checked = checkShow(data);
  if ("refused" in checked) return checked;
  const types = { ...checked.show.types };
  const leftOut: string[] = [];
  for (const file of others) {
    const type = own(types, GDTF.exec(file.name)?.[1] ?? "");
    const data = type && file.size <= MOST_GDTF ? unpacked(bytes, file) : undefined;
    if (type && data) types[type.id] = { ...type, file: base64Of(data) };
    else leftOut.push(file.name);
  }
  return { ...checked, show: { ...checked.show, types }, leftOut };
}

/** A show from the bytes of a file with what was not known in it, or what is wrong with it. */
export function checkShowFile(bytes: Uint8Array, most = USUAL_BYTES): FromFile | Refusal | LargeShow {
  const work = readingShowFile(bytes, most);
  for (;;) {
    const { done, value } = work.next();
    if (done) return value;
  }
}

/** Reads a show file. @returns the show, or the refusal that says what in it is wrong and where. */
export function readShowFile(bytes: Uint8Array, most = MOST_BYTES): Show | Refusal {
  const checked = checkShowFile(bytes, most);
  return "refused" in checked ? checked : checked.show;
}
