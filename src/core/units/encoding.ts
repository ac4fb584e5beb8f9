/** The encodings that tables and lighting data come in. */
export const ENCODINGS = ["utf-8", "utf-16le", "utf-16be", "windows-1252"] as const;
export type Encoding = (typeof ENCODINGS)[number];

/** Bytes looked at for the zeros of UTF-16. */
const LOOKED_AT = 4000;

/** Guesses by the byte-order mark, then by zeros at every other byte, then by whether it is UTF-8 at all. */
export function guessEncoding(bytes: Uint8Array): Encoding {
  if (bytes[0] === 0xff && bytes[1] === 0xfe) return "utf-16le";
  if (bytes[0] === 0xfe && bytes[1] === 0xff) return "utf-16be";
  const head = bytes.subarray(0, LOOKED_AT);
  const zeros = [0, 0];
  for (let i = 0; i < head.length; i++) if (head[i] === 0) zeros[i % 2]! += 1;
  if (Math.max(...zeros) > head.length / 8) return zeros[1]! > zeros[0]! ? "utf-16le" : "utf-16be";
  try {
    new TextDecoder("utf-8", { fatal: true }).decode(bytes);
    return "utf-8";
  } catch {
    return "windows-1252";
  }
}

/** What Windows-1252 has at 0x80 to 0x9f (WHATWG Encoding); Node reads it as ISO-8859-1 there. */
const FROM_80 =
  "\u20ac\u0081\u201a\u0192\u201e\u2026\u2020\u2021\u02c6\u2030\u0160\u2039\u0152\u008d\u017d\u008f\u0090\u2018\u2019\u201c\u201d\u2022\u2013\u2014\u02dc\u2122\u0161\u203a\u0153\u009d\u017e\u0178";

/** Text of bytes, without a byte-order mark. */
export function decodeText(bytes: Uint8Array, encoding: Encoding = guessEncoding(bytes)): string {
  const text = new TextDecoder(encoding).decode(bytes);
  return encoding === "windows-1252" ? text.replace(/[\u0080-\u009f]/g, (c) => FROM_80[c.charCodeAt(0) - 0x80]!) : text;
}
