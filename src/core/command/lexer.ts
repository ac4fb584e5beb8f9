/** A line of the command language as tokens. */
import { fail } from "../show/refusal";

export interface Token {
  kind: "word" | "number" | "text" | "time" | "address" | "host" | "colour" | "sign";
  /** As written; of a text, what is inside the quotes. */
  text: string;
  /** Where it starts and ends in the line. */
  at: number;
  end: number;
}

const patterns: [Token["kind"] | "short" | "space" | "comment", RegExp][] = [
  ["space", /\s+/y],
  ["comment", /\/\/.*$/y],
  ["text", /"((?:[^"]|"")*)"/y],
  ["colour", /#[0-9a-fA-F]{6}\b/y],
  ["time", /\d+:\d+:\d+(?:\.\d+)?(?:[:;]\d+(?:\.\d+)?)?/y],
  ["address", /\d+:\d+/y],
  ["host", /\d+\.\d+\.\d+\.\d+/y],
  ["short", /\.\.|@/y],
  ["sign", /=>|,|[+-](?=\s|$)/y],
  ["number", /[+-]?\d+(?:\.\d+)?(?:\s*[%°]|[Kk]\b)?/y],
  ["word", /[A-Za-z_][\w-]*/y],
];

const LONGEST = 20_000;

const SHORT: Record<string, string> = { "..": "thru", "@": "at" };

/** Splits a line; ends with `fail` at a character that belongs to nothing. */
export function lex(line: string): Token[] {
  if (line.length > LONGEST) fail(`this line has ${line.length} characters; ${LONGEST} is the most`);
  const tokens: Token[] = [];
  let at = 0;
  while (at < line.length) {
    const found = patterns.flatMap(([kind, pattern]) => {
      pattern.lastIndex = at;
      const match = pattern.exec(line);
      return match ? [{ kind, match }] : [];
    })[0];
    if (!found) {
      const rest = line.slice(at, at + 12);
      fail(
        rest.startsWith('"') ? `the quote at "${rest.slice(1)}" is not closed` : `"${rest}" is not understood here`,
        rest.startsWith('"') ? 'Close it with "' : undefined,
      );
    }
    const { kind, match } = found;
    const end = at + match[0].length;
    if (kind === "short") tokens.push({ kind: "word", text: SHORT[match[0]]!, at, end });
    else if (kind === "text") tokens.push({ kind, text: match[1]!.replaceAll('""', '"'), at, end });
    else if (kind !== "space" && kind !== "comment") tokens.push({ kind, text: match[0], at, end });
    at = end;
  }
  return tokens;
}
