/** Data of unknown origin: what no honest file holds, and fields that a newer version may have added. */

const FORBIDDEN = new Set(["__proto__", "constructor", "prototype"]);
const DEEPEST = 64;

type Plain = Record<string, unknown>;
const isPlain = (value: unknown): value is Plain =>
  typeof value === "object" && value !== null && !Array.isArray(value);

/** Why data cannot be a show whatever it says: keys that would reach into objects' prototypes, or nesting without end. */
export function foulIn(value: unknown, depth = 0): string | undefined {
  if (typeof value !== "object" || value === null) return undefined;
  if (depth > DEEPEST) return "it is nested deeper than any show";
  for (const key of Object.keys(value)) {
    if (FORBIDDEN.has(key)) return `it holds the key ${key}, which no show has`;
    const foul = foulIn((value as Plain)[key], depth + 1);
    if (foul) return foul;
  }
  return undefined;
}

/**
 * Puts back the fields that the schema does not know, so that a file from a newer version loses nothing.
 * Records named by the show itself (fixtures, cues ...) are checked whole and never put back.
 * @returns where such fields were.
 */
export function keepUnknown(original: unknown, parsed: unknown, path: readonly string[] = []): string[] {
  if (!isPlain(original) || !isPlain(parsed)) {
    if (!Array.isArray(original) || !Array.isArray(parsed)) return [];
    return original.flatMap((value, i) => keepUnknown(value, parsed[i], [...path, String(i)]));
  }
  return Object.keys(original).flatMap((key) => {
    if (Object.hasOwn(parsed, key)) return keepUnknown(original[key], parsed[key], [...path, key]);
    parsed[key] = original[key];
    return [[...path, key].join(" / ")];
  });
}
