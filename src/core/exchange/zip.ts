/**
 * Reading a zip (PKWARE, APPNOTE.TXT 6.3.10): the central directory is what counts, every checksum is
 * checked, and nothing unpacks to more than it may.
 */
import { buf as crc32 } from "crc-32";
import { Inflate, strFromU8 } from "fflate";

const END = 0x06054b50;
const CENTRAL = 0x02014b50;
const LOCAL = 0x04034b50;
const END_BYTES = 22;
const LONGEST_COMMENT = 65_535;
const MOST_FILES = 10_000;
const STORED = 0;
const DEFLATED = 8;
/** So much is unpacked at a time. */
const PIECE = 64 * 1024;

export interface ZipFile {
  name: string;
  method: number;
  crc: number;
  packed: number;
  size: number;
  /** Where its local header begins. */
  at: number;
}

const u16 = (bytes: Uint8Array, at: number): number => bytes[at]! | (bytes[at + 1]! << 8);
const u32 = (bytes: Uint8Array, at: number): number => (u16(bytes, at) | (u16(bytes, at + 2) << 16)) >>> 0;

/** The files of a zip; undefined where it is none, or damaged, or larger than four gigabytes. */
export function zipFiles(bytes: Uint8Array): ZipFile[] | undefined {
  const from = Math.max(0, bytes.length - END_BYTES - LONGEST_COMMENT);
  let end = bytes.length - END_BYTES;
  while (end >= from && u32(bytes, end) !== END) end -= 1;
  if (end < from) return undefined;
  const count = u16(bytes, end + 10);
  if (count > MOST_FILES || u16(bytes, end + 8) !== count) return undefined;
  const files: ZipFile[] = [];
  let at = u32(bytes, end + 16);
  for (let i = 0; i < count; i++) {
    if (at + 46 > end || u32(bytes, at) !== CENTRAL) return undefined;
    const [nameLength, extra, comment] = [u16(bytes, at + 28), u16(bytes, at + 30), u16(bytes, at + 32)];
    files.push({
      name: strFromU8(bytes.subarray(at + 46, at + 46 + nameLength)),
      method: u16(bytes, at + 10),
      crc: u32(bytes, at + 16),
      packed: u32(bytes, at + 20),
      size: u32(bytes, at + 24),
      at: u32(bytes, at + 42),
    });
    at += 46 + nameLength + extra + comment;
  }
  return files;
}

/**
 * Unpacks one file piece by piece; each step tells how many bytes there are so far, and whoever asks may
 * stop. @returns the bytes, or undefined where any of it is damaged or not as the directory says.
 */
export function* unpacking(bytes: Uint8Array, file: ZipFile): Generator<number, Uint8Array | undefined> {
  const { at, name, packed, size, method } = file;
  if (at + 30 > bytes.length || u32(bytes, at) !== LOCAL || u16(bytes, at + 8) !== method) return undefined;
  const nameLength = u16(bytes, at + 26);
  if (strFromU8(bytes.subarray(at + 30, at + 30 + nameLength)) !== name) return undefined;
  const start = at + 30 + nameLength + u16(bytes, at + 28);
  const data = bytes.subarray(start, start + packed);
  if (data.length !== packed || (method !== STORED && method !== DEFLATED)) return undefined;
  const whole = new Uint8Array(size);
  let total = 0;
  let crc = 0;
  let fits = true;
  let final = false;
  const take = (piece: Uint8Array, last: boolean) => {
    final ||= last;
    if (total + piece.length > size) return void (fits = false);
    whole.set(piece, total);
    total += piece.length;
    crc = crc32(piece, crc);
  };
  const inflate = new Inflate(take);
  try {
    for (let from = 0; fits && (from < data.length || from === 0); from += PIECE) {
      const piece = data.subarray(from, from + PIECE);
      const last = from + PIECE >= data.length;
      if (method === STORED) take(piece, last);
      else inflate.push(piece, last);
      yield total;
    }
  } catch {
    return undefined;
  }
  return fits && final && total === size && crc >>> 0 === file.crc ? whole : undefined;
}

/** One file of a zip in one go; undefined where any of it is damaged. */
export function unpacked(bytes: Uint8Array, file: ZipFile): Uint8Array | undefined {
  const work = unpacking(bytes, file);
  for (;;) {
    const { done, value } = work.next();
    if (done) return value;
  }
}
