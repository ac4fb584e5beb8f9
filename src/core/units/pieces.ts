/** A large document in pieces, so that none takes long to hand on, and put together again. */
import { frozen } from "./frozen";

/** A part of a document and where it belongs. */
export type Part = readonly [path: readonly string[], value: unknown];

/** So many values are one piece: handed on within milliseconds. */
const A_PIECE = 10_000;

/** How many values there are in one, itself included; counted up to a limit. */
function weight(value: unknown, most: number): number {
  if (typeof value !== "object" || value === null) return 1;
  let sum = 1;
  for (const key in value) {
    sum += weight((value as Record<string, unknown>)[key], most - sum);
    if (sum > most) return sum;
  }
  return sum;
}

/**
 * Takes a document of plain records, lists and values apart.
 * @param most values in a piece. @returns pieces, each some parts; a small document is one piece of one part.
 */
export function* piecesOf(document: unknown, most = A_PIECE): Generator<readonly Part[], void> {
  let piece: Part[] = [];
  let heavy = 0;
  function* walk(path: readonly string[], value: unknown): Generator<readonly Part[], void> {
    const own = weight(value, most);
    const splits = own > most;
    piece.push([path, splits ? (Array.isArray(value) ? [] : {}) : value]);
    heavy += splits ? 1 : own;
    if (heavy > most) {
      yield piece;
      [piece, heavy] = [[], 0];
    }
    if (splits) for (const key of Object.keys(value as object)) yield* walk([...path, key], (value as never)[key]);
  }
  yield* walk([], document);
  if (piece.length > 0) yield piece;
}

/** The JSON of a document of plain records, lists and values, a piece at a time: joined it is what `JSON.stringify` writes. */
export function* textPieces(value: unknown, most = A_PIECE): Generator<string, void> {
  if (typeof value !== "object" || value === null || weight(value, most) <= most)
    return yield JSON.stringify(value) ?? "null";
  const [open, close] = Array.isArray(value) ? "[]" : "{}";
  yield open!;
  let next = "";
  for (const [key, inner] of Object.entries(value)) {
    if (inner === undefined && !Array.isArray(value)) continue;
    yield Array.isArray(value) ? next : `${next}${JSON.stringify(key)}:`;
    yield* textPieces(inner, most);
    next = ",";
  }
  yield close!;
}

/** Puts pieces together again. Throws where one does not fit. */
export function gatherPieces(): { take(piece: readonly Part[]): void; document(): unknown } {
  const top: { document?: unknown } = {};
  return {
    take(piece) {
      for (const [path, value] of piece) {
        let at = top as Record<string, unknown>;
        let name = "document";
        for (const key of path) {
          at = at[name] as Record<string, unknown>;
          name = key;
          if (typeof at !== "object" || at === null || key === "__proto__") throw new Error("a piece does not fit");
        }
        // What is whole is made unchangeable as it comes, so that it is not gone through again.
        const isContainer = typeof value === "object" && value !== null && Object.keys(value).length === 0;
        at[name] = isContainer ? value : frozen(value);
      }
    },
    document: () => top.document,
  };
}
