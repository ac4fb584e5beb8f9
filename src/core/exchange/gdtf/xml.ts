/** Reading and writing XML of the open fixture standards: bounded, without entities of its own. */
import { XMLBuilder, XMLParser } from "fast-xml-parser";
import { refuse, type Refusal } from "../../show/refusal";

/** An element: attributes by "@name", children by tag, always several. */
export interface Element {
  [name: string]: string | Element[];
}

const MOST_TEXT = 32 * 1024 * 1024;
const DEEPEST = 100;
const MOST_ELEMENTS = 500_000;

const META = XMLParser.getMetaDataSymbol() as unknown as keyof Element;

const parser = new XMLParser({
  captureMetaData: true,
  ignoreAttributes: false,
  attributeNamePrefix: "@",
  parseAttributeValue: false,
  parseTagValue: false,
  processEntities: true,
  htmlEntities: false,
  ignoreDeclaration: true,
  ignorePiTags: true,
  isArray: (_name, _path, _leaf, isAttribute) => !isAttribute,
});

/** The root element of a text; the refusal says what is wrong with it. @param root the tag it must have. */
export function readXml(text: string, root: string, what: string): Element | Refusal {
  if (text.length > MOST_TEXT) return refuse(`${what} is larger than ${MOST_TEXT / 1024 / 1024} MB`);
  if (/<!(DOCTYPE|ENTITY)/i.test(text))
    return refuse(
      `${what} defines words of its own (a DOCTYPE), which no such file needs`,
      "Get it from its maker again",
    );
  const wrong = shape(text);
  if (wrong) return refuse(`${what} ${wrong}`);
  try {
    const made = parser.parse(text, true) as Element;
    const found = made[root];
    const first = Array.isArray(found) ? found[0] : undefined;
    return isElement(first) ? first : refuse(`${what} has no ${root} in it`);
  } catch (error) {
    return refuse(`${what} is not whole: ${words(error)}`, "Get it from its maker again");
  }
}

const words = (error: unknown): string =>
  (error instanceof Error ? error.message : String(error)).replace(/\s+/g, " ").slice(0, 160);

/** Depth and number of elements, before anything is built of them. */
function shape(text: string): string | undefined {
  let depth = 0;
  let count = 0;
  for (let at = text.indexOf("<"); at >= 0; at = text.indexOf("<", at + 1)) {
    const next = text[at + 1];
    if (next === "!" || next === "?") continue;
    if (next === "/") {
      depth -= 1;
      continue;
    }
    count += 1;
    const end = text.indexOf(">", at);
    if (end < 0) return "is cut off";
    if (text[end - 1] !== "/") depth += 1;
    if (depth > DEEPEST) return `is nested deeper than ${DEEPEST} elements`;
    if (count > MOST_ELEMENTS) return `has more than ${MOST_ELEMENTS.toLocaleString("en")} elements`;
  }
  return undefined;
}

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
