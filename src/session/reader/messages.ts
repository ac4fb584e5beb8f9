/** What a page and the worker that reads files for it say to each other. */
import { z } from "@/core/units/zod";
import type { AsciiData } from "@/core/exchange/ascii";
import type { GdtfRead } from "@/core/exchange/gdtf/file";
import type { MvrRead } from "@/core/exchange/mvr/read";
import type { FromFile, LargeShow } from "@/core/exchange/showFile";
import type { Table } from "@/core/exchange/tableText";
import { ENCODINGS, type Encoding } from "@/core/units/encoding";
import { PieceSchema } from "@/engine/opening";
import type { Refusal } from "@/core/show/refusal";
import type { Show } from "@/core/show/schema";
import type { Opened } from "../storage/shows";

const BlobSchema = z.instanceof(Blob);
const most = z.number().int().positive();

export const ToReaderSchema = z.discriminatedUnion("kind", [
  /** A show file, to be looked at. @param most bytes its document may unpack to. */
  z.object({ kind: z.literal("show"), file: BlobSchema, most }),
  /** A show file, kept as a show of this browser whose outputs wait. */
  z.object({ kind: z.literal("keep"), file: BlobSchema, most }),
  /** A GDTF or MVR file, by what is in it. */
  z.object({ kind: z.literal("rig"), file: BlobSchema, types: z.custom<Show["types"]>((v) => typeof v === "object") }),
  /** A table, or USITT ASCII. */
  z.object({
    kind: z.literal("text"),
    text: z.union([z.string(), BlobSchema]),
    encoding: z.enum(ENCODINGS).optional(),
  }),
  /** The demo show, taken in where it is not there. */
  z.object({ kind: z.literal("demo") }),
  /** A show of this browser. */
  z.object({ kind: z.literal("open"), id: z.string() }),
]);
export type ToReader = z.infer<typeof ToReaderSchema>;

/** The page has taken a piece in, and can do with another. */
export const MoreSchema = z.object({ kind: z.literal("more") });
export type More = z.infer<typeof MoreSchema>;

export interface Kept {
  id: string;
  name: string;
  unknown: readonly string[];
  leftOut: readonly string[];
}

/** What comes of each thing that is asked. */
export interface Answers {
  show: FromFile | LargeShow | Refusal;
  keep: Kept | LargeShow | Refusal;
  rig: GdtfRead | MvrRead | Refusal;
  text: { ascii: AsciiData } | { table: Table; encoding: Encoding } | Refusal;
  demo: object | Refusal;
  open: Opened | Refusal;
}

export const FromReaderSchema = z.discriminatedUnion("kind", [
  /** The share that is done, 0 to 1. */
  z.object({ kind: z.literal("share"), share: z.number().min(0).max(1) }),
  /** A piece of the show that comes with the answer. */
  PieceSchema,
  /** The answer, checked where it was read. */
  z.object({ kind: z.literal("read"), answer: z.custom<object>((v) => typeof v === "object" && v !== null) }),
]);
export type FromReader = z.infer<typeof FromReaderSchema>;

/** An answer with its show in its place; as it is where it has none, or none is given. */
export function withShow<A extends object>(answer: A, show: unknown): A {
  if (show === undefined) return answer;
  if ("world" in answer) return { ...answer, world: { ...(answer.world as object), show } };
  return "show" in answer ? { ...answer, show } : answer;
}
