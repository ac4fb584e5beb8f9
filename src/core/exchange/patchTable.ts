/** A patch from a table and to one (CSV, TSV): what each row would do is known before anything is done. */
import { LIBRARY } from "../fixture/library/library";
import { footprint, wantsVirtualDimmer, type FixtureType, type Mode } from "../fixture/type";
import { addressText, inTheWay, occupancyOf, occupy, parseOwnAddress, spanOf, type Occupancy } from "../show/address";
import { whyNot } from "../patch/clash";
import { modelOf } from "../show/model";
import { fixturesByNumber, fixtureNumbered } from "../show/world";
import type { Address, Fixture, Show } from "../show/schema";
import type { ColumnMeaning, Mapping } from "./patchColumns";
import { MEANING_TITLES } from "./patchColumns";
import { readNumber, unharmed, writeTable, type Table } from "./tableText";

/** A maker, model and mode as a table writes it, and what of the library it is. */
export interface TypeChoice {
  maker: string;
  model: string;
  mode: string;
  /** null: nothing of the library is like it; its rows are left out. */
  match: { type: string; mode: string } | null;
  rows: number;
}

/** A row that can be brought in: a fixture without its id. */
export interface ReadRow {
  /** Line in the table, from 1, titles counted. */
  line: number;
  fixture: Partial<Omit<Fixture, "id">> & Pick<Fixture, "number" | "type" | "mode" | "addresses">;
  /** The fixture of that number that it would change. */
  updates: string | null;
}

export interface LeftOut {
  line: number;
  why: string;
}

export interface PatchReading {
  rows: ReadRow[];
  leftOut: LeftOut[];
}

const simple = (text: string): string => text.toLowerCase().replace(/[^\p{L}\p{N}]+/gu, "");
/** What a choice of type is known by: the words of the table, in small letters. */
export const choiceKey = (maker: string, model: string, mode: string): string =>
  [maker, model, mode].map(simple).join("|");

const cellReader = (mapping: Mapping) => {
  const at = new Map(mapping.columns.map((meaning, i) => [meaning, i]));
  return (row: readonly string[], meaning: ColumnMeaning): string => {
    const text = row[at.get(meaning) ?? -1] ?? "";
    return meaning === "name" || meaning === "note" ? unharmed(text) : text.trim();
  };
};
const bodyOf = ({ rows, lines }: Table, mapping: Mapping) =>
  rows.map((row, i) => ({ row, line: lines[i]! })).slice(mapping.titleRow);

/** Each maker, model and mode that a table names, matched to the show's types and the library as well as can be. */
export function typeChoices(show: Pick<Show, "types">, table: Table, mapping: Mapping): TypeChoice[] {
  const cell = cellReader(mapping);
  const found = new Map<string, TypeChoice>();
  for (const { row } of bodyOf(table, mapping)) {
    const [maker, model, mode] = [cell(row, "maker"), cell(row, "model"), cell(row, "mode")];
    const key = choiceKey(maker, model, mode);
    const known = found.get(key);
    if (known) known.rows += 1;
    else found.set(key, { maker, model, mode, rows: 1, match: matchType(show, maker, model, mode) });
  }
  return [...found.values()];
}

function matchType(show: Pick<Show, "types">, maker: string, model: string, mode: string): TypeChoice["match"] {
  if (simple(model) === "") return null;
  const known = [...Object.values(show.types), ...LIBRARY];
  const likely = known.filter(
    (t) =>
      [t.model, `${t.maker} ${t.model}`, t.id].map(simple).includes(simple(model)) &&
      (simple(maker) === "" || simple(t.maker) === simple(maker)),
  );
  const type = likely[0];
  if (!type) return null;
  const wanted = simple(mode);
  const size = /^(\d+)(ch|channels?|kanal|dmx)?$/.exec(wanted)?.[1];
  const found =
    wanted === ""
      ? type.modes[0]
      : (type.modes.find((m) => simple(m.name) === wanted) ??
        (size ? type.modes.find((m) => footprint(m) === Number(size)) : undefined));
  return found ? { type: type.id, mode: found.name } : null;
}

/**
 * An address in one column or two: "4.013", "4/13", "4:13", "13" beside a universe, or an absolute number
 * (513 = 2:1). Empty is unpatched. @returns undefined where it is none of these.
 */
export function readAddresses(universe: string, address: string): Address[] | undefined {
  const parts = address
    .split(/[;+&]| and /)
    .map((p) => p.trim())
    .filter(Boolean);
  if (parts.length === 0) return universe === "" || /^\d+$/.test(universe) ? [] : undefined;
  const read = parts.map((part): Address | undefined => {
    const both = /^(\d{1,5})\s*[.:/\-]\s*(\d{1,3})(\(\d{1,2}\))?$/.exec(part);
    if (both) return parseOwnAddress(`${both[1]}:${both[2]}${both[3] ?? ""}`);
    if (!/^\d{1,8}$/.test(part)) return undefined;
    if (universe !== "")
      return /^\d{1,5}$/.test(universe) ? { universe: Number(universe), slot: Number(part) } : undefined;
    return { universe: Math.floor((Number(part) - 1) / 512) + 1, slot: ((Number(part) - 1) % 512) + 1 };
  });
  return read.every((a) => a !== undefined && a.universe >= 1 && a.universe <= 63_999)
    ? (read as Address[])
    : undefined;
}

const YES = new Set(["1", "yes", "y", "true", "on", "x", "ja", "oui"]);
const NO = new Set(["", "0", "no", "n", "false", "off", "-"]);

const wrong = (meaning: ColumnMeaning, text: string, why: string): string =>
  `${MEANING_TITLES[meaning].toLowerCase()} "${text}" ${why}`;

/** The settings of a row besides number, type and address; a text where one makes no sense. Cells left empty say nothing. */
function settingsOf(cell: (meaning: ColumnMeaning) => string, comma: boolean): Partial<Fixture> | string {
  const made: Partial<Fixture> = {};
  let bad: string | undefined;
  const number = (meaning: ColumnMeaning): number | undefined => {
    const text = cell(meaning);
    if (text === "") return undefined;
    const value = readNumber(text, comma);
    if (value === undefined || Math.abs(value) > 100_000) bad ??= wrong(meaning, text, "is not a number");
    return value;
  };
  const yes = (meaning: ColumnMeaning): boolean | undefined => {
    const text = cell(meaning).toLowerCase();
    if (text === "") return undefined;
    if (!YES.has(text) && !NO.has(text)) bad ??= wrong(meaning, text, "is neither yes nor no");
    return YES.has(text);
  };
  const point = (names: [ColumnMeaning, ColumnMeaning, ColumnMeaning]) => {
    const [x, y, z] = names.map(number) as [number?, number?, number?];
    return x === undefined && y === undefined && z === undefined ? undefined : { x: x ?? 0, y: y ?? 0, z: z ?? 0 };
  };
  const put = <K extends keyof Fixture>(key: K, value: Fixture[K] | undefined) =>
    value !== undefined && (made[key] = value);
  put("place", point(["x", "y", "z"]));
  put("turn", point(["turnX", "turnY", "turnZ"]));
  put("invertPan", yes("invertPan"));
  put("invertTilt", yes("invertTilt"));
  put("swap", yes("swap"));
  put("virtualDimmer", yes("virtualDimmer"));
  const scale = number("scale");
  if (scale !== undefined && (scale < 0 || scale > 200)) bad ??= wrong("scale", cell("scale"), "is not from 0 to 200");
  put("scale", scale);
  const [pan, tilt] = [number("correctPan"), number("correctTilt")];
  if (pan !== undefined || tilt !== undefined) made.correct = { pan: pan ?? 0, tilt: tilt ?? 0 };
  const [name, note] = [cell("name"), cell("note")];
  if (name.length > 200) bad ??= wrong("name", `${name.slice(0, 20)} ...`, "is longer than 200 characters");
  if (note.length > 2000) bad ??= wrong("note", `${note.slice(0, 20)} ...`, "is longer than 2000 characters");
  if (name !== "") made.name = name;
  if (note !== "") made.note = note;
  return bad ?? made;
}

/** Reads a table row by row against a show; `work.step()` does up to `count` rows and tells whether any are left. */
export function patchReader(
  show: Show,
  table: Table,
  mapping: Mapping,
  choices: readonly TypeChoice[],
  how: "add" | "update",
) {
  const body = bodyOf(table, mapping);
  const cell = cellReader(mapping);
  const byChoice = new Map(choices.map((c) => [choiceKey(c.maker, c.model, c.mode), c.match]));
  const types = new Map<string, FixtureType>([...LIBRARY, ...Object.values(show.types)].map((t) => [t.id, t]));
  const result: PatchReading = { rows: [], leftOut: [] };
  const numberOf = new Map(fixturesByNumber(show).map((f) => [f.id, f.number]));
  const willChange = new Set(
    how === "update" ? body.flatMap(({ row }) => fixtureNumbered(show, Number(cell(row, "number")))?.id ?? []) : [],
  );
  const taken: Occupancy = occupancyOf(show, willChange);
  const seen = new Set<number>();
  let next = (fixturesByNumber(show).at(-1)?.number ?? 0) + 1;
  let at = 0;

  /** What a row gives, or why not. */
  function readRow(row: readonly string[], line: number): ReadRow | string {
    const of = (meaning: ColumnMeaning) => cell(row, meaning);
    const numberText = of("number");
    const number = numberText === "" ? next : readNumber(numberText, mapping.comma);
    if (number === undefined || !Number.isInteger(number) || number < 1 || number > 999_999)
      return wrong("number", numberText, "is not a whole number from 1");
    const old = fixtureNumbered(show, number);
    if (seen.has(number)) return `number ${number} is in the table twice`;
    if (old && how === "add") return `number ${number} is taken by ${old.name || "another fixture"}`;
    const [maker, model, mode] = [of("maker"), of("model"), of("mode")];
    const match =
      model === "" && old ? { type: old.type, mode: old.mode } : byChoice.get(choiceKey(maker, model, mode));
    const label = [maker, model, mode].filter(Boolean).join(", ");
    if (!match) return label === "" ? "it names no model" : `"${label}" is not in the library`;
    if (old && old.type !== match.type)
      return `fixture ${number} is of another type; changing types is a step of its own`;
    const fixtureMode = types.get(match.type)?.modes.find((m) => m.name === match.mode) as Mode;
    const hasAddress = mapping.columns.includes("address");
    const addresses = hasAddress ? readAddresses(of("universe"), of("address")) : (old?.addresses ?? []);
    if (!addresses)
      return wrong("address", [of("universe"), of("address")].filter(Boolean).join(" "), "is not understood");
    if (addresses.length > 16) return "it has more than 16 addresses";
    const settings = settingsOf(of, mapping.comma);
    if (typeof settings === "string") return settings;
    for (const address of addresses) {
      const { size } = spanOf(fixtureMode, addresses, address);
      const why = whyNot(taken, address, size, (id) => numberOf.get(id));
      if (why) return why;
      occupy(taken, address, size, `line ${line}`);
      numberOf.set(`line ${line}`, number);
    }
    return {
      line,
      updates: old?.id ?? null,
      fixture: {
        virtualDimmer: old && old.mode === match.mode ? old.virtualDimmer : wantsVirtualDimmer(fixtureMode),
        ...settings,
        number,
        type: match.type,
        mode: match.mode,
        addresses,
      },
    };
  }

  /**
   * A fixture whose own row is left out stays where it is: rows that would have taken its place are left
   * out as well, and so on until all that is left can be.
   */
  function settle(): void {
    for (;;) {
      const coming = new Set(result.rows.map((r) => r.updates));
      const staying: Occupancy = new Map();
      for (const id of willChange)
        if (!coming.has(id))
          for (const a of show.fixtures[id]!.addresses)
            occupy(
              staying,
              a,
              spanOf(modelOf(show, show.fixtures[id]!).mode, show.fixtures[id]!.addresses, a).size,
              id,
            );
      const stays = ({ fixture }: ReadRow) => {
        const mode = types.get(fixture.type)!.modes.find((m) => m.name === fixture.mode)!;
        return (
          fixture.addresses
            .map((a) => inTheWay(staying, a, spanOf(mode, fixture.addresses, a).size))
            .find((id) => id !== null) ?? null
        );
      };
      const out = result.rows.filter((row) => stays(row) !== null);
      if (out.length === 0) return;
      result.leftOut.push(
        ...out.map((row) => ({
          line: row.line,
          why: `its address stays with fixture ${show.fixtures[stays(row)!]!.number}, whose own row is left out`,
        })),
      );
      result.leftOut.sort((a, b) => a.line - b.line);
      result.rows = result.rows.filter((row) => !out.includes(row));
    }
  }

  return {
    total: body.length,
    done: () => at,
    result,
    step(count: number): boolean {
      for (const end = Math.min(body.length, at + count); at < end; at++) {
        const { row, line } = body[at]!;
        const read = readRow(row, line);
        if (typeof read === "string") result.leftOut.push({ line, why: read });
        else {
          seen.add(read.fixture.number);
          next = Math.max(next, read.fixture.number + 1);
          result.rows.push(read);
        }
      }
      if (at === body.length && willChange.size > 0) settle();
      return at < body.length;
    },
  };
}

/** All of it at once: for scripts. */
export function readPatch(
  show: Show,
  table: Table,
  mapping: Mapping,
  choices: readonly TypeChoice[],
  how: "add" | "update",
): PatchReading {
  const reader = patchReader(show, table, mapping, choices, how);
  while (reader.step(1000));
  return reader.result;
}

const EXPORTED: ColumnMeaning[] = [
  "number",
  "name",
  "maker",
  "model",
  "mode",
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
];
const yesNo = (value: boolean): string => (value ? "yes" : "no");

/** The patch as CSV that this and other programs read: numbers with a point, addresses as universe:slot. */
export function writePatch(show: Show): string {
  const rows = fixturesByNumber(show).map((f) => {
    const { type } = modelOf(show, f);
    return [
      f.number,
      f.name,
      type.maker,
      type.model,
      f.mode,
      f.addresses.map(addressText).join("; "),
      f.place.x,
      f.place.y,
      f.place.z,
      f.turn.x,
      f.turn.y,
      f.turn.z,
      yesNo(f.invertPan),
      yesNo(f.invertTilt),
      yesNo(f.swap),
      f.scale,
      f.correct.pan,
      f.correct.tilt,
      yesNo(f.virtualDimmer),
      f.note,
    ].map(String);
  });
  return writeTable([EXPORTED.map((meaning) => MEANING_TITLES[meaning]), ...rows]);
}
