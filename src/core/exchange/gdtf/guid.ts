/** Ids of the kind files use, made from a name: the same name has the same one everywhere. */
import { str as crc32 } from "crc-32";

/** A GUID (RFC 9562, version 8: of a kind of one's own) of a text. */
export function guidOf(text: string): string {
  const hex = [0, 1, 2, 3].map((k) => (crc32(`${k} bold comet ${text}`) >>> 0).toString(16).padStart(8, "0")).join("");
  return `${hex.slice(0, 8)}-${hex.slice(8, 12)}-8${hex.slice(13, 16)}-a${hex.slice(17, 20)}-${hex.slice(20)}`.toUpperCase();
}
