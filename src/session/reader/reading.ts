/** Reading of files, tables and shows, whoever asks for it: bounded, with its progress told. */
import { isAscii, readAscii } from "@/core/exchange/ascii";
import { WAITING } from "@/core/dmx/consent";
import { readGdtf } from "@/core/exchange/gdtf/file";
import { readingMvr } from "@/core/exchange/mvr/read";
import { readingShowFile } from "@/core/exchange/showFile";
import { readTable } from "@/core/exchange/tableText";
import { zipFiles } from "@/core/exchange/zip";
import { DEMO_ID } from "@/core/show/showId";
import { decodeText, guessEncoding } from "@/core/units/encoding";
import { isRefusal, refuse, type Refusal } from "@/core/show/refusal";
import { newHands } from "@/core/show/world";
import { addShow, openShow } from "../storage/shows";
import { ensureDemo } from "./demo";
import type { Answers, ToReader } from "./messages";

const MB = 1024 * 1024;
const MOST_TEXT = 64 * MB;
const MOST_FILE = 512 * MB;
/** Progress is told for steps of this share. */
const STEP = 0.01;

type Share = (share: number) => void;

function through<T>(work: Generator<number, T>, tell: Share): T {
  let told = 0;
  for (;;) {
    const { done, value } = work.next();
    if (done) return value;
    if (value - told < STEP) continue;
    told = value;
    tell(Math.min(1, value));
  }
}

const tooLarge = (size: number, most: number): Refusal =>
  refuse(`this file is too large: ${Math.ceil(size / MB).toLocaleString("en")} MB`, `${most / MB} MB is the most`);

async function bytesOf(file: Blob): Promise<Uint8Array | Refusal> {
  return file.size > MOST_FILE ? tooLarge(file.size, MOST_FILE) : new Uint8Array(await file.arrayBuffer());
}

const READ: { [K in ToReader["kind"]]: (asked: Extract<ToReader, { kind: K }>, tell: Share) => Promise<Answers[K]> } = {
  async show({ file, most }, tell) {
    const bytes = await bytesOf(file);
    return isRefusal(bytes) ? bytes : through(readingShowFile(bytes, most), tell);
  },
  async keep({ file, most }, tell) {
    const read = await READ.show({ kind: "show", file, most }, tell);
    if ("refused" in read) return read;
    const { show, unknown, leftOut } = read;
    const id = await addShow({ show, hands: newHands(show) }, WAITING);
    return isRefusal(id) ? id : { id, name: show.name, unknown, leftOut };
  },
  async rig({ file, types }, tell) {
    const bytes = await bytesOf(file);
    if (isRefusal(bytes)) return bytes;
    const files = bytes[0] === 0x50 && bytes[1] === 0x4b ? zipFiles(bytes) : undefined;
    if (!files) return refuse("this is neither a GDTF nor an MVR file, or it is damaged", "Choose another copy of it");
    return files.some((f) => f.name.toLowerCase() === "description.xml")
      ? readGdtf(bytes, { types })
      : through(readingMvr(bytes, { types }), tell);
  },
  async text({ text: given, encoding }) {
    const size = typeof given === "string" ? given.length : given.size;
    if (size > MOST_TEXT) return tooLarge(size, MOST_TEXT);
    const bytes = typeof given === "string" ? undefined : new Uint8Array(await given.arrayBuffer());
    const written = encoding ?? (bytes ? guessEncoding(bytes) : "utf-8");
    const text = bytes ? decodeText(bytes, written) : (given as string);
    if (isAscii(text)) {
      const ascii = readAscii(text);
      return isRefusal(ascii) ? ascii : { ascii };
    }
    const table = readTable(text);
    return isRefusal(table) ? table : { table, encoding: written };
  },
  async open({ id }) {
    return (id === DEMO_ID ? await ensureDemo() : undefined) ?? openShow(id);
  },
  demo: async () => (await ensureDemo()) ?? {},
};

/** Does what is asked. @param tell told the share done, 0 to 1. */
export const read = <K extends ToReader["kind"]>(
  asked: Extract<ToReader, { kind: K }>,
  tell: Share,
): Promise<Answers[K]> => READ[asked.kind](asked, tell);
