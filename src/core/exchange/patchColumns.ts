/** What the columns of a patch table mean, guessed from their titles and from what stands in them. */
import type { Table } from "./tableText";

export const COLUMN_MEANINGS = [
  "number",
  "name",
  "maker",
  "model",
  "mode",
  "universe",
  "address",
  "x",
  "y",
  "z",
  "turnX",
  "turnY",
  "turnZ",
  "invertPan",
  "invertTilt",
  "swap",
  "scale",
  "correctPan",
  "correctTilt",
  "virtualDimmer",
  "note",
  "ignore",
] as const;
export type ColumnMeaning = (typeof COLUMN_MEANINGS)[number];

export const MEANING_TITLES: Record<ColumnMeaning, string> = {
  number: "Number",
  name: "Name",
  maker: "Maker",
  model: "Model",
  mode: "Mode",
  universe: "Universe",
  address: "Address",
  x: "X (m)",
  y: "Y (m)",
  z: "Z (m)",
  turnX: "Turn X (deg)",
  turnY: "Turn Y (deg)",
  turnZ: "Turn Z (deg)",
  invertPan: "Invert pan",
  invertTilt: "Invert tilt",
  swap: "Swap",
  scale: "Scale (%)",
  correctPan: "Correct pan (deg)",
  correctTilt: "Correct tilt (deg)",
  virtualDimmer: "Virtual dimmer",
  note: "Note",
  ignore: "leave out",
};

/** How a table is to be read. */
export interface Mapping {
  /** Which row holds titles, from 1; 0 for none. What lies above it is left out. */
  titleRow: number;
  /** For each column what it means. */
  columns: ColumnMeaning[];
  /** Whether the decimal sign is a comma. */
  comma: boolean;
}

const ADDRESS = /addr|adr|dmx|patch|^slot|start|direcc|indirizz/;

/** Words in titles, in English, German, French, Spanish and Italian, the surest first; each meaning is given once. */
const TITLES: [ColumnMeaning, RegExp][] = [
  ["invertPan", /inver\w* pan|pan inver/],
  ["invertTilt", /inver\w* tilt|tilt inver/],
  ["correctPan", /(correct|offset)\w* pan|pan (correct|offset)/],
  ["correctTilt", /(correct|offset)\w* tilt|tilt (correct|offset)/],
  ["virtualDimmer", /virtual/],
  ["swap", /\bswap/],
  ["scale", /\b(scale|proportion)/],
  ["turnX", /\b(turn|rot\w*) ?x\b|\bx ?(turn|rot)/],
  ["turnY", /\b(turn|rot\w*) ?y\b|\by ?(turn|rot)/],
  ["turnZ", /\b(turn|rot\w*) ?z\b|\bz ?(turn|rot)/],
  ["x", /^(pos\w* )?x\b/],
  ["y", /^(pos\w* )?y\b/],
  ["z", /^(pos\w* )?z\b|height|trim|hohe|hauteur|altura|altezza/],
  ["maker", /manufacturer|maker|\bmake\b|brand|hersteller|fabricant|marque|marca|constructeur|produttore|costruttore/],
  ["mode", /\bmode\b|personality|dmx profile|modus|betriebsart|\bmodo\b|modalita/],
  ["universe", /univ|^u$/],
  ["address", ADDRESS],
  [
    "model",
    /\bmodel\b|fixture type|\btype\b|\binstrument|\bdevice\b|^fixture$|modell|gerat|scheinwerfer|\btyp\b|modele|appareil|projecteur|\btipo\b|aparato|proiettore|apparecchio/,
  ],
  [
    "number",
    /fixture ?(id|no|num)|\bchannel\b|\bchan\b|\bunit\b|\bnumber\b|\bid\b|^no\b|\bnr\b|^#|nummer|\bnumero\b|\bnum\b|\b[ck]anale?\b|^n ?[°º]/,
  ],
  ["name", /\bname\b|label|purpose|position|posicion|posizione|bezeichnung|\bnom\b|designation|\bnombre\b|\bnome\b/],
  ["note", /note|comment|remark|bemerkung|notiz|anmerkung|kommentar|remarque|observ|\bnota\b/],
];

const plainTitle = (text: string): string =>
  text
    .toLowerCase()
    .normalize("NFD")
    .replace(/\p{M}+/gu, "")
    .replace(/[_\-./()[\]]+/g, " ")
    .replace(/(pos|position|rot|rotation|turn)([xyz])$/, "$1 $2")
    .replace(/\s+/g, " ")
    .trim();

/** A mapping to begin with: to be looked at and changed before anything is done. */
export function guessMapping({ rows }: Table): Mapping {
  const titleRow = guessTitleRow(rows);
  const header = titleRow > 0;
  const first = rows[titleRow - 1] ?? [];
  const width = Math.max(...rows.slice(0, 50).map((row) => row.length));
  const body = rows.slice(titleRow, titleRow + 200);
  const columns: ColumnMeaning[] = Array.from({ length: width }, () => "ignore");
  if (header) {
    const given = new Set<ColumnMeaning>();
    for (const [meaning, words] of TITLES) {
      const titled = first.flatMap((cell, i) => {
        const title = plainTitle(cell);
        // "Univ./Adr." over 1/101 is both.
        const isBoth = meaning === "universe" && ADDRESS.test(title) && isLike("address", body, i) && !isWhole(body, i);
        return columns[i] === "ignore" && words.test(title) && !isBoth ? [i] : [];
      });
      // Of several columns with such a title, the one whose cells are like it.
      const at = titled.find((i) => isLike(meaning, body, i)) ?? titled[0];
      if (at === undefined || given.has(meaning)) continue;
      columns[at] = meaning;
      given.add(meaning);
    }
  } else guessFromCells(body, columns);
  return { titleRow, columns, comma: usesComma(body) };
}

/** Lines above the titles are looked through up to here. */
const TITLES_WITHIN = 20;

/** The row that reads most like titles, from 1; 0 where none does. */
function guessTitleRow(rows: Table["rows"]): number {
  let [best, most] = [0, 1];
  for (const [i, row] of rows.slice(0, TITLES_WITHIN).entries()) {
    const cells = row.map((cell) => cell.trim()).filter(Boolean);
    const named = cells.map(plainTitle).filter((title) => TITLES.some(([, words]) => words.test(title))).length;
    const numbers = cells.filter((cell) => /^[\d.,:/]+$/.test(cell)).length;
    if (named > most && numbers * 2 < cells.length) [best, most] = [i + 1, named];
    else if (i === 0 && named === 1 && cells.every((cell) => !/^\d/.test(cell))) best = 1;
  }
  return best;
}

const WHOLE = /^\d+$/;
const DECIMAL = /^[+-]?[\d.,]*\d\s*(m|°|%)?$/;
const YES_OR_NO = /^(0|1|yes|no|y|n|true|false|on|off|x|-|ja|nein|oui|non)$/i;
/** What the cells of a column look like; meanings of text take anything. */
const CELLS: Partial<Record<ColumnMeaning, RegExp>> = {
  number: WHOLE,
  universe: WHOLE,
  address: /^\d+(\s*[:./-]\s*\d{1,3})?(\s*[;+&]\s*\d+\s*[:./-]\s*\d{1,3})*$/,
  x: DECIMAL,
  y: DECIMAL,
  z: DECIMAL,
  turnX: DECIMAL,
  turnY: DECIMAL,
  turnZ: DECIMAL,
  scale: DECIMAL,
  correctPan: DECIMAL,
  correctTilt: DECIMAL,
  invertPan: YES_OR_NO,
  invertTilt: YES_OR_NO,
  swap: YES_OR_NO,
  virtualDimmer: YES_OR_NO,
  name: /[^\d\s]/,
  maker: /[a-z]/i,
  model: /[a-z]/i,
};

/** Whether most of a column's filled cells are like what it would mean. */
function isLike(meaning: ColumnMeaning, body: readonly string[][], column: number): boolean {
  const cells = body.map((row) => (row[column] ?? "").trim()).filter(Boolean);
  const pattern = CELLS[meaning];
  return !pattern || (cells.length > 0 && cells.filter((cell) => pattern.test(cell)).length * 2 > cells.length);
}

const isWhole = (body: readonly string[][], column: number): boolean =>
  body.every((row) => /^\d*$/.test((row[column] ?? "").trim()));

/** Without titles: addresses show by their form, numbers by being whole and each their own, names by their letters. */
function guessFromCells(body: readonly string[][], columns: ColumnMeaning[]): void {
  const every = (i: number, pattern: RegExp) =>
    body.length > 0 && body.every((row) => pattern.test((row[i] ?? "").trim()));
  const find = (pattern: RegExp, more: (i: number) => boolean = () => true) =>
    columns.findIndex((c, i) => c === "ignore" && every(i, pattern) && more(i));
  const put = (at: number, meaning: ColumnMeaning) => at >= 0 && (columns[at] = meaning);
  put(find(/^\d+\s*[:./]\s*\d{1,3}$/), "address");
  put(
    find(/^\d+$/, (i) => new Set(body.map((row) => row[i])).size === body.length),
    "number",
  );
  put(find(/[a-z]/i), "name");
  put(find(/[a-z]/i), "model");
}

/** Whether decimals are written with a comma: some cells are, and none with a point. */
function usesComma(body: readonly string[][]): boolean {
  const cells = body.flat().map((c) => c.trim());
  return (
    cells.some((c) => /^-?\d+,\d{1,2}$/.test(c)) &&
    !cells.some((c) => /^-?\d+\.\d+$/.test(c) && !/^\d+\.\d{3}$/.test(c))
  );
}
