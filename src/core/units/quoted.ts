/** Text with parts in double quotes; a quote inside is doubled. */
export interface Part {
  text: string;
  quoted: boolean;
}

/** The parts of a text, plain and quoted by turns; a quote that never ends goes to the end. */
export function splitQuoted(text: string): Part[] {
  const parts: Part[] = [];
  let from = 0;
  for (const found of text.matchAll(/"((?:[^"]|"")*)("|$)/g)) {
    parts.push({ text: text.slice(from, found.index), quoted: false });
    parts.push({ text: found[1]!.replaceAll('""', '"'), quoted: true });
    from = found.index + found[0].length;
  }
  parts.push({ text: text.slice(from), quoted: false });
  return parts.filter(({ text, quoted }) => quoted || text !== "");
}
