/** The columns of the patch table: what each shows of a fixture, and what a typed text makes of it. */
import { curveText, readCurve } from "@/core/fixture/dimmerCurve";
import { addressText, parseOwnAddress, runFrom } from "@/core/show/address";
import type { FixtureChange } from "@/core/patch/intents";
import { footprint } from "@/core/fixture/type";
import { modeOf } from "@/core/fixture/parameters";
import { readNumber } from "@/core/exchange/tableText";
import { alongStops } from "@/core/select/spread";
import type { Address, Fixture, Show } from "@/core/show/schema";
import { plain } from "@/core/units/units";
import type { SheetColumn } from "@/ui/base/sheet/view";

export interface Column extends SheetColumn {
  text(fixture: Fixture, show: Show): string;
  /** Changes of fixtures, in order, from a text typed for all of them; a string says why not. */
  put?(text: string, fixtures: readonly Fixture[], show: Show): FixtureChange[] | string;
}

const same = (fixtures: readonly Fixture[], change: (f: Fixture) => FixtureChange): FixtureChange[] =>
  fixtures.map(change);

/** "5", or "-4 to 4" and "0 to 10 to 0" spread over the rows. */
export function spreadNumbers(text: string, count: number, low = -Infinity, high = Infinity): number[] | string {
  const stops = text
    .split(/\sto\s/i)
    .map((part) => part.trim())
    .map((t) => readNumber(t, /^[+-]?\d+,\d+$/.test(t)));
  if (stops.some((s) => s === undefined))
    return `"${text}" is not a number. Type one, or a range over the rows such as -4 to 4`;
  if (stops.some((s) => s! < low || s! > high)) return `"${text}" is outside ${low} to ${high}`;
  return Array.from(
    { length: count },
    (_, k) => Math.round(alongStops(stops as number[], count < 2 ? 0 : k / (count - 1)) * 1000) / 1000,
  );
}

function numeric(
  id: string,
  title: string,
  hint: string,
  get: (f: Fixture) => number,
  set: (f: Fixture, v: number) => FixtureChange,
  more: Partial<Column> & { low?: number; high?: number } = {},
): Column {
  return {
    id,
    title,
    hint,
    width: 52,
    kind: "number",
    ...more,
    text: (f) => plain(get(f), 3),
    put(text, fixtures) {
      const numbers = spreadNumbers(text, fixtures.length, more.low, more.high);
      return typeof numbers === "string" ? numbers : fixtures.map((f, k) => set(f, numbers[k]!));
    },
  };
}

const YES = /^(yes|y|on|true|1|x)$/i;
const NO = /^(no|n|off|false|0|)$/i;
const yes = (
  id: "invertPan" | "invertTilt" | "swap" | "virtualDimmer" | "outOfService",
  title: string,
  hint: string,
): Column => ({
  id,
  title,
  hint,
  width: 56,
  kind: "yes",
  text: (f) => (f[id] ? "yes" : "no"),
  put: (text, fixtures) =>
    YES.test(text.trim())
      ? same(fixtures, () => ({ [id]: true }))
      : NO.test(text.trim())
        ? same(fixtures, () => ({ [id]: false }))
        : `"${text}" is neither yes nor no`,
});

const sizeOf = (show: Show, f: Fixture): number => footprint(modeOf(show.types[f.type]!, f.mode)!);

/** One start runs on by footprint; several, divided by spaces, are all of one fixture's; empty is unpatched. */
function putAddress(text: string, fixtures: readonly Fixture[], show: Show): FixtureChange[] | string {
  const parts = text
    .trim()
    .split(/[\s,;+&]+/)
    .filter(Boolean);
  if (parts.length === 0 || /^(unpatched|-)$/i.test(text.trim())) return same(fixtures, () => ({ addresses: [] }));
  const read = parts.map((part) => parseOwnAddress(part.replace(/^(\d+)[./](\d+)/, "$1:$2")));
  if (read.some((a) => !a))
    return `"${text}" is not an address. An address is universe:slot, such as 1:101, or 2:1(2) of the second DMX break`;
  if (read.length > 1)
    return fixtures.length === 1 ? [{ addresses: read as Address[] }] : "Several addresses go to one fixture at a time";
  return runFrom(
    read[0]!,
    fixtures.map((f) => sizeOf(show, f)),
  ).map((a) => ({ addresses: [a] }));
}

const turn = (axis: "x" | "y" | "z") =>
  numeric(
    `turn${axis.toUpperCase()}`,
    `turn ${axis}`,
    `Turned about the ${axis} axis, degrees`,
    (f) => f.turn[axis],
    (f, v) => ({ turn: { ...f.turn, [axis]: v } }),
    { hidden: axis !== "z", width: 58 },
  );
const place = (axis: "x" | "y" | "z", hint: string) =>
  numeric(
    `place${axis.toUpperCase()}`,
    axis,
    hint,
    (f) => f.place[axis],
    (f, v) => ({ place: { ...f.place, [axis]: v } }),
    { width: 64 },
  );

export const COLUMNS: readonly Column[] = [
  {
    id: "number",
    title: "No.",
    hint: "Fixture number: unique. A start typed over several rows counts on",
    width: 58,
    kind: "number",
    fixed: true,
    text: (f) => String(f.number),
    put(text, fixtures) {
      const from = /^\d{1,6}$/.test(text.trim()) ? Number(text) : 0;
      return from < 1
        ? `"${text}" is not a fixture number. Numbers are whole, from 1`
        : fixtures.map((_, k) => ({ number: from + k }));
    },
  },
  {
    id: "name",
    title: "Name",
    hint: "Name; one that ends in a number counts on",
    width: 128,
    kind: "text",
    text: (f) => f.name,
    put(text, fixtures) {
      const name = text.trim();
      let digits = name.length;
      while (digits > 0 && /\d/.test(name[digits - 1]!)) digits--;
      const counts = fixtures.length > 1 && digits < name.length;
      return fixtures.map((_, k) => ({
        name: (counts ? `${name.slice(0, digits)}${Number(name.slice(digits)) + k}` : name).slice(0, 200),
      }));
    },
  },
  {
    id: "type",
    title: "Type",
    hint: "Maker and model",
    width: 150,
    kind: "text",
    text: (f, show) => `${show.types[f.type]!.maker} ${show.types[f.type]!.model}`,
  },
  {
    id: "mode",
    title: "Mode",
    hint: "Mode of the type",
    width: 84,
    kind: "text",
    text: (f) => f.mode,
    put: (text, fixtures) => same(fixtures, () => ({ mode: text.trim() })),
  },
  {
    id: "addresses",
    title: "Address",
    hint: "universe:slot. A start typed over several rows runs on by footprint",
    width: 84,
    kind: "number",
    text: (f) => f.addresses.map(addressText).join(" "),
    put: putAddress,
  },
  {
    id: "footprint",
    title: "Slots",
    hint: "How many slots the mode takes",
    width: 50,
    kind: "number",
    text: (f, show) => String(sizeOf(show, f)),
    hidden: true,
  },
  yes("invertPan", "inv. pan", "Turns pan round at output"),
  yes("invertTilt", "inv. tilt", "Turns tilt round at output"),
  yes("swap", "swap", "Swaps pan and tilt at output"),
  numeric(
    "scale",
    "scale",
    "Percent of Dimmer at output",
    (f) => f.scale,
    (_, v) => ({ scale: v }),
    { low: 0, high: 200 },
  ),
  {
    id: "curve",
    title: "curve",
    hint: "Dimmer curve at output: linear, square, s, or points as 0 0, 40 60, 100 100",
    width: 74,
    kind: "text",
    hidden: true,
    text: (f) => curveText(f.curve),
    put(text, fixtures) {
      const curve = readCurve(text);
      return curve
        ? same(fixtures, () => ({ curve }))
        : `"${text}" is no curve: linear, square, s, or points in percent such as 0 0, 40 60, 100 100`;
    },
  },
  numeric(
    "preheat",
    "preheat",
    "The lamp never gets less than this, percent",
    (f) => f.preheat ?? 0,
    (_, v) => ({ preheat: v }),
    { low: 0, high: 100, hidden: true },
  ),
  yes("outOfService", "away", "Out of service, broken or away: sent dark, left out of Check and of counts"),
  numeric(
    "correctPan",
    "pan +°",
    "Hang correction: degrees added to pan",
    (f) => f.correct.pan,
    (f, v) => ({ correct: { ...f.correct, pan: v } }),
  ),
  numeric(
    "correctTilt",
    "tilt +°",
    "Hang correction: degrees added to tilt",
    (f) => f.correct.tilt,
    (f, v) => ({ correct: { ...f.correct, tilt: v } }),
  ),
  yes("virtualDimmer", "v. dim.", "Virtual dimmer: scales the emitters of a fixture without a dimmer"),
  place("x", "Metres across, stage left is positive"),
  place("y", "Metres upstage"),
  place("z", "Metres up"),
  turn("x"),
  turn("y"),
  turn("z"),
  {
    id: "position",
    title: "Position",
    hint: "Where it hangs, by name: a truss, a pipe, a floor",
    width: 110,
    kind: "text",
    hidden: true,
    text: (f) => f.position ?? "",
    put: (text, fixtures) => same(fixtures, () => ({ position: text.slice(0, 200) })),
  },
  {
    id: "note",
    title: "Note",
    hint: "What to remember",
    width: 130,
    kind: "text",
    text: (f) => f.note,
    put: (text, fixtures) => same(fixtures, () => ({ note: text.slice(0, 2000) })),
  },
];
export const columnOf = (id: string): Column | undefined => COLUMNS.find((c) => c.id === id);
