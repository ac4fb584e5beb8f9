/** A patch sheet for paper, opened in its own window and handed to the printer. */
import { footprint } from "@/core/fixture/type";
import { modelOf } from "@/core/show/model";
import { addressText, spanOf } from "@/core/show/address";
import type { Fixture, Show } from "@/core/show/schema";
import { fixturesByNumber } from "@/core/show/world";
import { grouped } from "@/core/units/grouped";

const escape = (text: string): string => text.replace(/[&<>"']/g, (c) => `&#${c.charCodeAt(0)};`);

const STYLE =
  "body{font:11pt sans-serif;color:#000;background:#fff;margin:14mm}h1{font-size:16pt}h2{font-size:12pt;margin:6mm 0 2mm}table{border-collapse:collapse;width:100%;table-layout:fixed}th:nth-child(1){width:16%}th:nth-child(2){width:7%}th:nth-child(5){width:19%}th:nth-child(6){width:15%}td{overflow-wrap:anywhere}tr{break-inside:avoid}th,td{border-bottom:1px solid #999;padding:1mm 2mm;text-align:left;vertical-align:top}";
const LABELS =
  "@page{margin:8mm}body{font:10pt sans-serif;color:#000;background:#fff;margin:0;display:grid;grid-template-columns:repeat(3,1fr);gap:0}div{border:1px dashed #aaa;padding:4mm;height:26mm;break-inside:avoid;overflow:hidden}b{font-size:22pt;display:block;line-height:1}span{color:#444;font-size:9pt}";

const page = (title: string, style: string, body: string): string =>
  `<!doctype html><html lang="en"><meta charset="utf-8"><title>${escape(title)}</title><style>${style}</style>${body}</html>`;

const NOWHERE = "Without a position";

/** The sheet as a page of its own: by universe and slot, or by where things hang. Everything of the show is escaped. */
export function patchSheet(show: Show, by: "universe" | "position" = "universe"): string {
  const row = (f: Fixture, where: string) => {
    const { type, mode } = modelOf(show, f);
    const note = [f.outOfService && "OUT OF SERVICE", f.note].filter(Boolean).join(". ");
    return `<tr>${[where, f.number, f.name, `${type.maker} ${type.model}`, `${mode.name} (${footprint(mode)})`, note].map((cell) => `<td>${escape(String(cell))}</td>`).join("")}</tr>`;
  };
  const head = "<tr><th>Address</th><th>No.</th><th>Name</th><th>Type</th><th>Mode (slots)</th><th>Note</th></tr>";
  const table = (title: string, rows: readonly string[]) =>
    `<h2>${escape(title)}</h2><table><thead>${head}</thead><tbody>${rows.join("")}</tbody></table>`;
  const parts = by === "universe" ? byUniverse(show, row, table) : byPosition(show, row, table);
  const out = Object.values(show.fixtures).filter((f) => f.outOfService).length;
  const count = `${Object.keys(show.fixtures).length - out} fixtures${out > 0 ? `, ${out} out of service` : ""}`;
  return page(`${show.name}: patch`, STYLE, `<h1>${escape(show.name)}: patch, ${count}</h1>${parts.join("")}`);
}

type Row = (f: Fixture, where: string) => string;
type TableOf = (title: string, rows: readonly string[]) => string;

function byUniverse(show: Show, row: Row, table: TableOf): string[] {
  const universes = [...new Set(Object.values(show.fixtures).flatMap((f) => f.addresses.map((a) => a.universe)))].sort(
    (a, b) => a - b,
  );
  const parts = universes.map((universe) => {
    const own = fixturesByNumber(show)
      .flatMap((f) => f.addresses.filter((a) => a.universe === universe).map((a) => ({ f, a })))
      .sort((x, y) => x.a.slot - y.a.slot);
    return table(
      `Universe ${universe}`,
      own.map(({ f, a }) =>
        row(f, `${addressText(a)} - ${a.slot + spanOf(modelOf(show, f).mode, f.addresses, a).size - 1}`),
      ),
    );
  });
  const rest = fixturesByNumber(show).filter((f) => f.addresses.length === 0);
  return rest.length > 0
    ? [
        ...parts,
        table(
          "Unpatched",
          rest.map((f) => row(f, "")),
        ),
      ]
    : parts;
}

function byPosition(show: Show, row: Row, table: TableOf): string[] {
  const positions = grouped(fixturesByNumber(show), (f) => f.position || NOWHERE);
  const order = [...positions.keys()].sort(
    (a, b) => Number(a === NOWHERE) - Number(b === NOWHERE) || a.localeCompare(b, "en"),
  );
  return order.map((name) =>
    table(
      name,
      positions.get(name)!.map((f) => row(f, f.addresses.map(addressText).join(" + "))),
    ),
  );
}

/** Labels to cut out, one for each fixture: number, name, address, mode. */
export function labelSheet(show: Show): string {
  const label = (f: Fixture) => {
    const { type, mode } = modelOf(show, f);
    return `<div><b>${f.number}</b>${escape(f.name)}<br>${escape(f.addresses.map(addressText).join(" + ") || "unpatched")}<br><span>${escape(`${type.model}, ${mode.name}${f.position ? `, ${f.position}` : ""}`)}</span></div>`;
  };
  return page(`${show.name}: labels`, LABELS, fixturesByNumber(show).map(label).join(""));
}

/** Prints a page from a frame that is out of sight. */
function printPage(title: string, html: string): void {
  const frame = document.createElement("iframe");
  frame.className = "out-of-sight";
  frame.title = title;
  frame.srcdoc = html;
  frame.addEventListener("load", () => {
    frame.contentWindow?.addEventListener("afterprint", () => frame.remove());
    frame.contentWindow?.print();
  });
  document.body.append(frame);
}

export const printPatchSheet = (show: Show, by: "universe" | "position" = "universe"): void =>
  printPage("Patch sheet", patchSheet(show, by));
export const printLabels = (show: Show): void => printPage("Labels", labelSheet(show));
