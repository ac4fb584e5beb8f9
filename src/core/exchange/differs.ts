/** What differs between a record of this show and one that came over, value by value, in words. */
import { attributeInfo, withUnit } from "../fixture/attribute";
import { diffOf, type Change } from "../show/change/diff";
import { splitKey, type Id } from "../show/ids";
import { itemText } from "../show/model";
import type { Cue, CueList, Show } from "../show/schema";
import { plain } from "../units/units";
import { canonical } from "./canonical";
import { plural } from "../units/plural";

export interface Differing {
  /** "cue 5, 71 Pan", "name". */
  where: string;
  here: string;
  there: string;
}

/**
 * What differs, in the order of fixtures and cues; lists are compared cue by cue, by number.
 * @param show the show with both in it, to name things by. @param most so many are put in words; `more` counts the rest.
 */
export function differsIn(show: Show, here: object, there: object, most = 200): { differs: Differing[]; more: number } {
  const changes = diffOf(comparable(here), comparable(there)).flatMap(wholeEntries);
  const seen = new Set<string>();
  const whole = changes.filter(({ path }) => !seen.has(path.join("/")) && seen.add(path.join("/")));
  const differs = whole.slice(0, most).map(({ path, from, to }): Differing => ({
    where: whereText(show, path),
    here: valueText(show, from, path),
    there: valueText(show, to, path),
  }));
  return { differs, more: whole.length - differs.length };

  /** An entry is told as a whole, whatever of it differs. */
  function wholeEntries(change: Change): Change[] {
    const k = change.path.findIndex(isKey);
    if (k < 0 || k === change.path.length - 1) return [change];
    const path = change.path.slice(0, k + 1);
    return [{ path, from: at(comparable(here), path), to: at(comparable(there), path) }];
  }
}

const isKey = (name: string): boolean => /^(f\d+\.)?\d+\.[A-Z]\S*$/.test(name);
const at = (value: unknown, path: readonly string[]): unknown =>
  path.reduce<unknown>((inner, name) => (inner as Record<string, unknown> | undefined)?.[name], value);

const known = new WeakMap<object, object>();

/** Without ids; cues by their numbers, what is listed by its turn. */
function comparable(record: object): object {
  const before = known.get(record);
  if (before) return before;
  const { id: _i, number: _n, cues, ...rest } = record as { id?: Id; number?: number; cues?: CueList["cues"] };
  const made = {
    ...(turned(rest) as object),
    ...(cues ? { cues: Object.fromEntries(Object.values(cues).map((cue) => [plain(cue.number, 3), bare(cue)])) } : {}),
  };
  known.set(record, made);
  return made;
}

function bare({ id: _i, number: _n, signed: _s, then: _t, reach, ...cue }: Cue): object {
  return { ...(turned(cue) as object), reach: reach !== null };
}

/** Lists of things as records by their turn, so that each is compared with its like. */
function turned(value: unknown): unknown {
  if (typeof value !== "object" || value === null) return value;
  if (Array.isArray(value) && !value.some((v) => typeof v === "object" && v !== null)) return value;
  return Object.fromEntries(
    Object.entries(value).map(([key, inner]) => [Array.isArray(value) ? String(Number(key) + 1) : key, turned(inner)]),
  );
}

/** Parts of a record that say nothing by themselves. */
const SILENT = new Set(["entries", "own", "values", "types", "any"]);
const spaced = (name: string): string => name.replace(/([a-z])([A-Z])/g, "$1 $2").toLowerCase();

function whereText(show: Show, path: readonly string[]): string {
  const parts: string[] = [];
  for (let k = 0; k < path.length; k++) {
    const name = path[k]!;
    if (name === "cues" && path[k + 1] !== undefined) parts.push(`cue ${path[++k]!}`);
    else if (isKey(name)) parts.push(keyText(show, name));
    else if (show.types[name]) parts.push(show.types[name].model);
    else if (/^f\d+(\.\d+)?$/.test(name)) parts.push(itemText(show, name));
    else if (!SILENT.has(name)) parts.push(spaced(name));
  }
  return parts.join(", ") || "all of it";
}

/** "71 Pan" of a fixture's parameter, "Pan" of any fixture of a type. */
function keyText(show: Show, key: string): string {
  if (!key.startsWith("f")) {
    const [cell, head] = [key.slice(0, key.indexOf(".")), key.slice(key.indexOf(".") + 1)];
    return `${cell === "0" ? "" : `cell ${cell} `}${attributeInfo(head).label}`;
  }
  const { fixture, cell, head } = splitKey(key);
  return `${itemText(show, cell > 0 ? `${fixture}.${cell}` : fixture)} ${attributeInfo(head).label}`;
}

function valueText(show: Show, value: unknown, path: readonly string[]): string {
  const cue = path[path.length - 2] === "cues";
  if (value === undefined) return cue ? "not there" : "nothing";
  if (cue) return `stores ${countText((value as Cue).entries)}`;
  if (typeof value === "number") return plain(value, 3);
  if (typeof value === "boolean") return value ? "on" : "off";
  if (typeof value === "string") return /^[a-z]\d+$/.test(value) ? recordText(show, value) : value || "nothing";
  if (value === null) return "none";
  if (Array.isArray(value))
    return (
      value
        .slice(0, 12)
        .map((v: unknown) => (typeof v === "string" && /^f\d/.test(v) ? itemText(show, v) : plainly(v)))
        .join(", ") + (value.length > 12 ? ` and ${value.length - 12} more` : "") || "none"
    );
  if (isKey(path.at(-1) ?? "")) return entryText(show, value as Record<string, unknown>);
  return plainly(value);
}

function countText(entries: object): string {
  const n = Object.keys(entries).length;
  return plural(n, "value");
}

const plainly = (value: unknown): string => {
  const text = canonical(value).replace(/["{}]/g, "").replaceAll(",", ", ").replaceAll(":", " ");
  return text.length > 80 ? `${text.slice(0, 79)}…` : text;
};

/** "35°", "palette 3 Lagoon", "an effect, 50 %". */
function entryText(show: Show, entry: Record<string, unknown>): string {
  const { attribute, value, effect, time } = entry as {
    attribute?: string;
    value?: unknown;
    effect?: unknown;
    time?: object;
  };
  const said =
    typeof value === "number"
      ? withUnit(value, attribute ?? "")
      : typeof value === "object" && value !== null
        ? "palette" in value
          ? recordText(show, value.palette as Id)
          : "aim" in value
            ? `at ${(value.aim as number[]).map((m) => plain(m, 2)).join(" ")} m`
            : "released"
        : "";
  const own = time ? Object.entries(time).map(([name, s]) => `${name} ${plain(s as number)} s`) : [];
  return [said, effect !== undefined ? "an effect" : "", ...own].filter(Boolean).join(", ") || plainly(entry);
}

/** "palette 3 Lagoon", whatever of the show has that id. */
function recordText(show: Show, id: Id): string {
  const found = [
    ["palette", show.palettes[id]],
    ["effect", show.effects[id]],
    ["wave", show.waves[id]],
    ["fixture", show.fixtures[id]],
    ["list", show.lists[id]],
    ["macro", show.macros[id]],
    ["group", show.groups[id]],
  ] as const;
  for (const [what, record] of found) if (record) return `${what} ${record.number} ${record.name}`.trim();
  return "something that is not here";
}
