/** GDTF files: a zip with description.xml, pictures of wheels, and what we only hand on. */
import { strToU8, zipSync } from "fflate";
import { LIBRARY } from "../../fixture/library/library";
import { FixtureTypeSchema, type FixtureType } from "../../fixture/type";
import { idFor } from "../../rig/typeDraft";
import { own } from "../../show/hasOwn";
import { isRefusal, refuse, type Refusal } from "../../show/refusal";
import type { Show } from "../../show/schema";
import { canonical } from "../canonical";
import { unpacked, zipFiles } from "../zip";
import { base64Of, bytesOf } from "./base64";
import { readDescription } from "./readType";
import { xmlText } from "./xml";
import { writeDescription } from "./writeType";

const MB = 1024 * 1024;
const MOST_FILE = 64 * MB;
/** A file larger than this is not kept whole in the show. */
const MOST_KEPT = 8 * MB;
const MOST_DESCRIPTION = 32 * MB;
const MOST_PICTURE = 256 * 1024;
const MOST_PICTURES = 200;
const EPOCH = "1980-01-01T00:00:00";

export interface GdtfRead {
  type: FixtureType;
  /** What could not be used. */
  notes: string[];
}

const isPng = (bytes: Uint8Array): boolean =>
  bytes[0] === 0x89 && bytes[1] === 0x50 && bytes[2] === 0x4e && bytes[3] === 0x47;

/** Reads a GDTF file. @param show whose types it is to stand beside: one that is the same has the same id. */
export function readGdtf(bytes: Uint8Array, show: Pick<Show, "types">): GdtfRead | Refusal {
  if (bytes.length > MOST_FILE) return refuse(`this file is larger than ${MOST_FILE / MB} MB`);
  const files = bytes[0] === 0x50 && bytes[1] === 0x4b ? zipFiles(bytes) : undefined;
  if (!files) return refuse("this is not a GDTF file, or it is damaged", "Choose a file that ends in .gdtf");
  const description = files.find((f) => f.name.toLowerCase() === "description.xml");
  if (!description) return refuse("this file has no description.xml in it", "Choose a file that ends in .gdtf");
  if (description.size > MOST_DESCRIPTION)
    return refuse(`its description unpacks to more than ${MOST_DESCRIPTION / MB} MB`);
  const xml = unpacked(bytes, description);
  if (!xml) return refuse("the description in this GDTF file is damaged", "Get it from its maker again");
  const notes: string[] = [];
  const pictures: Record<string, string> = {};
  const images = files.filter((f) => /^wheels\/[^/]+\.png$/i.test(f.name));
  if (images.length > MOST_PICTURES) notes.push(`only ${MOST_PICTURES} of its ${images.length} pictures of slots`);
  for (const file of images.slice(0, MOST_PICTURES)) {
    const name = file.name.slice(7, -4);
    const data = file.size <= MOST_PICTURE ? unpacked(bytes, file) : undefined;
    if (data && isPng(data)) pictures[name] = base64Of(data);
    else notes.push(`the picture ${name} is too large or damaged and is left out`);
  }
  const read = readDescription(xmlText(xml), new Set(Object.keys(pictures)));
  if (isRefusal(read)) return read;
  const used = new Set(
    read.type.modes.flatMap((m) =>
      m.channels.flatMap((c) => c.functions.flatMap((f) => (f.steps ?? []).flatMap((s) => s.picture ?? []))),
    ),
  );
  const kept = Object.fromEntries(Object.entries(pictures).filter(([name]) => used.has(name)));
  const made: Omit<FixtureType, "id"> = {
    ...read.type,
    ...(Object.keys(kept).length > 0 ? { pictures: kept } : {}),
    ...(bytes.length <= MOST_KEPT ? { file: base64Of(bytes) } : {}),
  };
  if (bytes.length > MOST_KEPT)
    notes.push(`the file is larger than ${MOST_KEPT / MB} MB: what is not used of it is not kept`);
  const parsed = FixtureTypeSchema.safeParse({ id: "read", ...made });
  if (!parsed.success) {
    const issue = parsed.error.issues[0]!;
    return refuse(`this fixture type cannot be used: ${issue.path.join(" ")}: ${issue.message}`);
  }
  return { type: placedType(show, parsed.data), notes: [...read.notes, ...notes] };
}

const bare = ({ id: _i, file: _f, guid: _g, kind: _k, pictures: _p, ...type }: FixtureType): string => canonical(type);

/** A type under the id it has in a show: that of the one it is a new version of, or the same as; else a new one of its maker and model. */
function placedType(show: Pick<Show, "types">, read: FixtureType): FixtureType {
  const shipped = LIBRARY.find(
    (t) => t.maker === read.maker && t.model === read.model && bare({ ...read, id: t.id }) === bare(t),
  );
  if (shipped) return own(show.types, shipped.id) ?? shipped;
  const known = Object.values(show.types).find((t) => t.guid !== undefined && t.guid === read.guid);
  if (known) return { ...read, id: known.id };
  return { ...read, id: idFor(show, read) };
}

/** A type as a GDTF file: the one it came from, where it still is that; else one made of what we know. */
export function writeGdtf(type: FixtureType): Uint8Array {
  if (type.file !== undefined) {
    const kept = bytesOf(type.file);
    const read = readGdtf(kept, { types: { [type.id]: type } });
    if (!isRefusal(read) && bare(read.type) === bare(type)) return kept;
  }
  const pictures = Object.entries(type.pictures ?? {}).map(
    ([name, data]) => [`wheels/${name}.png`, [bytesOf(data), { mtime: EPOCH }]] as const,
  );
  return zipSync({
    "description.xml": [strToU8(writeDescription(type)), { mtime: EPOCH, level: 6 }],
    ...Object.fromEntries(pictures),
  });
}
