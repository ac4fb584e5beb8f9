/** Reading and writing XML of the open fixture standards: bounded, without entities of its own. */
import { XMLBuilder, XMLParser } from "fast-xml-parser";
import { decodeText } from "../../units/encoding";
import { refuse, type Refusal } from "../../show/refusal";

/** An element: attributes by "@name", children by tag, always several. */
export interface Element {
  [name: string]: string | Element[];
}

const MOST_TEXT = 32 * 1024 * 1024;
const DEEPEST = 100;
const MOST_ELEMENTS = 500_000;

const META = XMLParser.getMetaDataSymbol() as unknown as keyof Element;

/** A parser for one document: it stops where the document is nested too deep or has too many elements. */
function parserOf(): XMLParser {
  let count = 0;
  return new XMLParser({
    captureMetaData: true,
    ignoreAttributes: false,
    attributeNamePrefix: "@",
    parseAttributeValue: false,
    parseTagValue: false,
    processEntities: true,
    // References by number are among these.
    htmlEntities: true,
    removeNSPrefix: true,
    ignoreDeclaration: true,
    ignorePiTags: true,
    maxNestedTags: DEEPEST,
    isArray: (_name, _path, _leaf, isAttribute) => !isAttribute,
    updateTag(name) {
      count += 1;
      if (count > MOST_ELEMENTS) throw new Error(`more than ${MOST_ELEMENTS.toLocaleString("en")} elements`);
      return name;
    },
  });
}

const UTF_16 = { le: [0xff, 0xfe], be: [0xfe, 0xff] } as const;

/** The text of a document: by its byte-order mark, else by what it says of itself, else UTF-8. */
export function xmlText(bytes: Uint8Array): string {
  const [a, b] = bytes;
  const begins = (pair: readonly [number, number]) => a === pair[0] && b === pair[1];
  if (begins(UTF_16.le) || begins([0x3c, 0])) return new TextDecoder("utf-16le").decode(bytes);
  if (begins(UTF_16.be) || begins([0, 0x3c])) return new TextDecoder("utf-16be").decode(bytes);
  const declared = /^[^>]{0,100}encoding=["']([\w.-]{1,30})["']/.exec(
    String.fromCharCode(...bytes.subarray(0, 120)),
  )?.[1];
  return decodeText(bytes, /^(iso-8859-1|latin1|windows-1252)$/i.test(declared ?? "") ? "windows-1252" : "utf-8");
}

/** Whether a document declares a type before its root element. */
function hasDoctype(text: string): boolean {
  let at = 0;
  for (;;) {
    at = text.indexOf("<", at);
    if (at < 0) return false;
    const end = text.startsWith("<!--", at) ? "-->" : text.startsWith("<?", at) ? "?>" : undefined;
    if (end === undefined) return text.startsWith("<!", at);
    at = text.indexOf(end, at);
    if (at < 0) return false;
  }
}

/** The root element of a text; the refusal says what is wrong with it. @param root the tag it must have. */
export function readXml(text: string, root: string, what: string): Element | Refusal {
  if (text.length > MOST_TEXT) return refuse(`${what} is larger than ${MOST_TEXT / 1024 / 1024} MB`);
  if (hasDoctype(text))
    return refuse(
      `${what} defines words of its own (a DOCTYPE), which no such file needs`,
      "Get it from its maker again",
    );
  try {
    const made = parserOf().parse(text, true) as Element;
    const found = made[root];
    const first = Array.isArray(found) ? found[0] : undefined;
    return isElement(first) ? first : refuse(`${what} has no ${root} in it`);
  } catch (error) {
    if (/nested tags/i.test(words(error))) return refuse(`${what} is nested deeper than ${DEEPEST} elements`);
    if (/Invalid .\[/.test(words(error))) return refuse(`${what} is cut off`, "Get it from its maker again");
    if (/more than/.test(words(error))) return refuse(`${what} has ${words(error)}`);
    return refuse(`${what} is not whole: ${words(error)}`, "Get it from its maker again");
  }
}

const words = (error: unknown): string =>
  (error instanceof Error ? error.message : String(error)).replace(/\s+/g, " ").slice(0, 160);

/** Where in the text an element begins; undefined where that is not known. */
export const startOf = (element: Element): number | undefined =>
  (element[META] as { startIndex?: number } | undefined)?.startIndex;

const isElement = (value: unknown): value is Element => typeof value === "object" && value !== null;

/** The children of a tag. */
export function all(element: Element | undefined, tag: string): Element[] {
  const found = element?.[tag];
  // An element of text alone comes as that text.
  return Array.isArray(found)
    ? (found as unknown[]).map((e) => (typeof e === "string" ? { "#text": e } : (e as Element))).filter(isElement)
    : [];
}
/** The first child of a tag; undefined where there is none. */
export const first = (element: Element | undefined, tag: string): Element | undefined => all(element, tag)[0];
/** The children of a tag within another, as `Wheels > Wheel`. */
export const within = (element: Element | undefined, outer: string, tag: string): Element[] =>
  all(first(element, outer), tag);

/** An attribute as text; empty where it is not there. */
export function text(element: Element | undefined, name: string): string {
  const value = element?.[`@${name}`];
  return typeof value === "string" ? value.trim() : "";
}
/** The text within an element. */
export const content = (element: Element | undefined): string => {
  const value: unknown = element?.["#text"];
  return typeof value === "string" ? value.trim() : "";
};

/** An attribute as a number; undefined where it is none. */
export function num(element: Element | undefined, name: string): number | undefined {
  const value = text(element, name);
  const number = value === "" ? NaN : Number(value);
  return Number.isFinite(number) ? number : undefined;
}

const builder = new XMLBuilder({
  ignoreAttributes: false,
  attributeNamePrefix: "@",
  format: true,
  indentBy: " ",
  suppressEmptyNode: true,
  suppressBooleanAttributes: false,
});

/** A document of one root element. */
export const writeXml = (root: string, element: object): string =>
  `<?xml version="1.0" encoding="UTF-8"?>\n${builder.build({ [root]: [element] })}`;
