/** Outputs typed or pasted as a table: a universe a line, each with its protocol, destination, number and priority. */
import { z } from "../units/zod";
import type { Output } from "../show/schema";
import { numberRange, usualNumber } from "./wire";

export interface OutputTable {
  rows: { universe: number; output: Output | null }[];
  /** Lines that are none, and why. */
  wrong: { line: number; why: string }[];
}

const MOST_LINES = 4096;
const HostsSchema = z.array(z.ipv4()).min(1).max(8);
const PROTOCOLS: Readonly<Record<string, Output["protocol"]>> = {
  artnet: "artnet",
  "art-net": "artnet",
  "art-net4": "artnet",
  sacn: "sacn",
  "e1.31": "sacn",
};
const whole = (text: string, low: number, high: number): number | undefined =>
  /^\d{1,6}$/.test(text) && Number(text) >= low && Number(text) <= high ? Number(text) : undefined;

/** What one line says; a text where it is none. Columns: universe, protocol, destination, number, priority. */
function rowOf(cells: readonly string[]): OutputTable["rows"][number] | string {
  const [first = "", kind = "", to = "", number = "", priority = ""] = cells;
  const universe = whole(first, 1, 63_999);
  if (universe === undefined) return `"${first}" is no universe`;
  const word = kind.toLowerCase().replaceAll(" ", "");
  if (word === "off" || word === "none" || word === "notsent") return { universe, output: null };
  const protocol = PROTOCOLS[word];
  if (!protocol) return `"${kind}" is no protocol: artnet, sacn or off`;
  const hosts = HostsSchema.safeParse(to.split(/[\s&]+/).filter((w) => w !== "" && w !== "and"));
  const mode = to.toLowerCase();
  const where =
    mode === "broadcast" || (mode === "multicast" && protocol === "sacn")
      ? mode
      : hosts.success
        ? { unicast: hosts.data }
        : undefined;
  if (where === undefined)
    return `"${to}" is no destination: up to 8 addresses such as 127.0.0.1, ${protocol === "sacn" ? "broadcast or multicast" : "or broadcast"}`;
  const [low, high] = numberRange(protocol);
  const as = number === "" ? usualNumber(protocol, universe) : whole(number, low, high);
  if (as === undefined) return `"${number}" is no number: from ${low} to ${high}`;
  const before = priority === "" ? 100 : whole(priority, 0, 200);
  if (before === undefined) return `"${priority}" is no priority: from 0 to 200`;
  return { universe, output: { protocol, to: where, number: as, priority: protocol === "sacn" ? before : 100 } };
}

/** Reads lines whose cells are divided by tabs, semicolons or commas; a first line of titles and empty lines say nothing. */
export function readOutputs(text: string): OutputTable {
  const table: OutputTable = { rows: [], wrong: [] };
  const lines = text.split(/\r?\n/);
  if (lines.length > MOST_LINES)
    return { rows: [], wrong: [{ line: MOST_LINES + 1, why: `there are more than ${MOST_LINES} lines` }] };
  const seen = new Set<number>();
  lines.forEach((line, k) => {
    if (line.trim() === "" || (k === 0 && /univers/i.test(line))) return;
    const divider = line.includes("\t") ? "\t" : line.includes(";") ? ";" : ",";
    const row = rowOf(line.split(divider).map((cell) => cell.trim()));
    if (typeof row === "string") return void table.wrong.push({ line: k + 1, why: row });
    if (seen.has(row.universe))
      return void table.wrong.push({ line: k + 1, why: `universe ${row.universe} is listed twice` });
    seen.add(row.universe);
    table.rows.push(row);
  });
  return table;
}

/** The outputs of a show as such a table. */
export const writeOutputs = (universes: readonly number[], outputs: Readonly<Record<string, Output>>): string =>
  [
    ["universe", "protocol", "to", "number", "priority"],
    ...universes.map((universe) => {
      const output = outputs[universe];
      return output
        ? [
            universe,
            output.protocol,
            typeof output.to === "string" ? output.to : output.to.unicast.join(" "),
            output.number,
            output.priority,
          ]
        : [universe, "off", "", "", ""];
    }),
  ]
    .map((cells) => cells.join("\t"))
    .join("\n");

/** An address so many further on: the last number counts on, and carries. @returns undefined past the last address. */
export function addressOn(host: string, by: number): string | undefined {
  const value = host.split(".").reduce((sum, part) => sum * 256 + Number(part), 0) + by;
  return value < 0 || value >= 256 ** 4
    ? undefined
    : [24, 16, 8, 0].map((shift) => Math.floor(value / 2 ** shift) % 256).join(".");
}
