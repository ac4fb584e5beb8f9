/** Tables as text: CSV and TSV as other programs write them, read with their delimiter and decimal sign guessed. */
import Papa from "papaparse";
import { refuse, type Refusal } from "../show/refusal";

export interface Table {
  delimiter: string;
  rows: string[][];
  /** Where each row begins in the text, in lines from 1. */
  lines: number[];
}

export const TABLE_LIMITS = { characters: 64 * 1024 * 1024, cells: 2_000_000, columns: 200, line: 100_000 };
const DELIMITERS = [",", ";", "\t", "|"];

/** The longest stretch without a line's end among the first few million characters. */
function longestLine(text: string): number {
  let longest = 0;
  for (let at = 0; at < text.length;) {
    const end = text.indexOf("\n", at);
    longest = Math.max(longest, (end < 0 ? text.length : end) - at);
    if (end < 0 || longest > TABLE_LIMITS.line) break;
    at = end + 1;
  }
  return longest;
}

/** Rows of a table, cells as they stand; empty lines are left out. Refused where it is no table or too large to be a patch. */
export function readTable(source: string): Table | Refusal {
  const text = source.replace(/^\uFEFF/, "");
  if (text.length > TABLE_LIMITS.characters)
    return refuse("this table is too large to be a patch", `The most is ${TABLE_LIMITS.characters / 1024 / 1024} MB`);
  if (text.includes("\0")) return refuse("this is not a table of text", "Export the patch as CSV or TSV");
  if (longestLine(text) > TABLE_LIMITS.line)
    return refuse(
      "one line of this table is longer than any patch's",
      `Lines have at most ${TABLE_LIMITS.line.toLocaleString("en")} characters; check the line ends and quotes`,
    );
  const delimiter = guessDelimiter(text);
  const rows: string[][] = [];
  const lines: number[] = [];
  let line = 1;
  let cells = 0;
  let over: Refusal | undefined;
  Papa.parse<string[]>(text, {
    delimiter,
    step({ data }, parser) {
      cells += data.length;
      if (data.length > TABLE_LIMITS.columns)
        over = refuse(
          `line ${line} of this table has ${data.length} columns`,
          `The most is ${TABLE_LIMITS.columns}; check the delimiter`,
        );
      else if (cells > TABLE_LIMITS.cells)
        over = refuse(
          `this table has more than ${TABLE_LIMITS.cells.toLocaleString("en")} cells`,
          "Cut it into parts, or leave out what is no patch",
        );
      if (over) return parser.abort();
      if (data.some((cell) => cell.trim() !== "")) {
        rows.push(data);
        lines.push(line);
      }
      // Quoted cells may go over several lines.
      line += 1 + data.reduce((more, cell) => more + (cell.match(/\r(?!$)\n?|\n/g)?.length ?? 0), 0);
    },
  });
  if (over) return over;
  return rows.length === 0
    ? refuse("this table is empty", "Choose a file with one fixture a line")
    : { delimiter, rows, lines };
}

/** The delimiter that splits the first lines into the most columns of equal count. */
function guessDelimiter(text: string): string {
  const head = text
    .slice(0, 20_000)
    .split(/\r?\n/)
    .filter((line) => line.trim())
    .slice(0, 12)
    .join("\n");
  const scored = DELIMITERS.map((delimiter) => {
    const counts = Papa.parse<string[]>(head, { delimiter }).data.map((row) => row.length);
    const usual = counts.sort((a, b) => a - b)[Math.floor(counts.length / 2)] ?? 1;
    return { delimiter, score: usual > 1 ? usual * (counts.filter((c) => c === usual).length / counts.length) : 0 };
  });
  return scored.reduce((best, s) => (s.score > best.score ? s : best)).delimiter;
}

/** Text that spreadsheets take for a formula is kept from being one by a leading apostrophe; only what is wholly a number stays bare. Full-width signs count too. */
const FORMULA = /^\s*['=+\-@\uff1d\uff0b\uff0d\uff20]|^[\t\r]/;
const NUMBER = /^[+-]?(\d+([.,]\d*)?|[.,]\d+)$/;
const isRisky = (cell: string): boolean => FORMULA.test(cell) && !NUMBER.test(cell);
const harmless = (cell: string): string => (isRisky(cell) ? `'${cell}` : cell);
/** The other way round: a cell as it was before it was kept from being a formula. */
export const unharmed = (cell: string): string =>
  cell.startsWith("'") && isRisky(cell.slice(1)) ? cell.slice(1) : cell;

/** Rows as comma-separated text, quoted where needed. */
export const writeTable = (rows: readonly (readonly string[])[], delimiter = ","): string =>
  Papa.unparse(
    rows.map((row) => row.map(harmless)),
    { delimiter, newline: "\n" },
  ) + "\n";

/**
 * A number as people of any country write it: 1,234.5 or 1.234,5 or 12,5.
 * @param comma whether the table's decimal sign is a comma. @returns undefined where it is none.
 */
export function readNumber(text: string, comma: boolean): number | undefined {
  const bare = text.replace(/[\s\u00a0°]|m$|%$/g, "");
  const plain = comma
    ? bare.replace(/\.(?=\d{3}(\D|$))/g, "").replace(",", ".")
    : bare.replace(/,(?=\d{3}(\D|$))/g, "");
  return /^[+-]?(\d+(\.\d*)?|\.\d+)$/.test(plain) ? Number(plain) : undefined;
}
