/** Catches a table whose letters come in as others. */
import { decodeText, guessEncoding, type Encoding } from "./encoding";

const TEXT = "Nr;Name\n1;Brücke Süd\n2;Élévation\n";
const utf16 = (text: string, little: boolean) => {
  const view = new DataView(new ArrayBuffer(text.length * 2));
  [...text].forEach((c, i) => view.setUint16(2 * i, c.charCodeAt(0), little));
  return new Uint8Array(view.buffer);
};

test.each<[string, Uint8Array, Encoding]>([
  ["UTF-8", new TextEncoder().encode(TEXT), "utf-8"],
  ["UTF-8 with its mark", new TextEncoder().encode(`\uFEFF${TEXT}`), "utf-8"],
  ["UTF-16 with its mark", utf16(`\uFEFF${TEXT}`, true), "utf-16le"],
  ["UTF-16, the other way round", utf16(`\uFEFF${TEXT}`, false), "utf-16be"],
  ["UTF-16 without a mark", utf16(TEXT, true), "utf-16le"],
  ["UTF-16 without a mark, the other way round", utf16(TEXT, false), "utf-16be"],
  ["Windows-1252", Uint8Array.from(TEXT, (c) => c.charCodeAt(0)), "windows-1252"],
])("%s", (_, bytes, encoding) => {
  expect(guessEncoding(bytes)).toBe(encoding);
  expect(decodeText(bytes)).toBe(TEXT);
});

test("one that was chosen by hand counts", () => {
  expect(decodeText(Uint8Array.of(0x80), "windows-1252")).toBe("€");
});
