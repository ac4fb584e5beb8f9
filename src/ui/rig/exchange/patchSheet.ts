/** A patch sheet for paper, opened in its own window and handed to the printer. */
import { footprint } from "@/core/fixture/type";
import { modelOf } from "@/core/show/model";
import { addressText } from "@/core/show/address";
import type { Fixture, Show } from "@/core/show/schema";
import { fixturesByNumber } from "@/core/show/world";

const escape = (text: string): string => text.replace(/[&<>"']/g, (c) => `&#${c.charCodeAt(0)};`);

/** The sheet as a page of its own: by universe and slot, unpatched ones last. Everything of the show is escaped. */
export function patchSheet(show: Show): string {
  const universes = [...new Set(Object.values(show.fixtures).flatMap((f) => f.addresses.map((a) => a.universe)))].sort(
    (a, b) => a - b,
  );
  const row = (f: Fixture, where: string) => {
    const { type, mode } = modelOf(show, f);
    return `<tr>${[where, f.number, f.name, `${type.maker} ${type.model}`, `${mode.name} (${footprint(mode)})`, f.note].map((cell) => `<td>${escape(String(cell))}</td>`).join("")}</tr>`;
  };
  const head = "<tr><th>Address</th><th>No.</th><th>Name</th><th>Type</th><th>Mode (slots)</th><th>Note</th></tr>";
  const parts = universes.map((universe) => {
    const own = fixturesByNumber(show)
      .flatMap((f) => f.addresses.filter((a) => a.universe === universe).map((a) => ({ f, a })))
      .sort((x, y) => x.a.slot - y.a.slot);
    return `<h2>Universe ${universe}</h2><table><thead>${head}</thead><tbody>${own.map(({ f, a }) => row(f, `${addressText(a)} - ${a.slot + footprint(modelOf(show, f).mode) - 1}`)).join("")}</tbody></table>`;
  });
  const rest = fixturesByNumber(show).filter((f) => f.addresses.length === 0);
  if (rest.length > 0)
    parts.push(
      `<h2>Unpatched</h2><table><thead>${head}</thead><tbody>${rest.map((f) => row(f, "")).join("")}</tbody></table>`,
    );
  const style =
    "body{font:11pt sans-serif;color:#000;background:#fff;margin:14mm}h1{font-size:16pt}h2{font-size:12pt;margin:6mm 0 2mm}table{border-collapse:collapse;width:100%}tr{break-inside:avoid}th,td{border-bottom:1px solid #999;padding:1mm 2mm;text-align:left;vertical-align:top}";
  return `<!doctype html><html lang="en"><meta charset="utf-8"><title>${escape(show.name)}: patch</title><style>${style}</style><h1>${escape(show.name)}: patch, ${Object.keys(show.fixtures).length} fixtures</h1>${parts.join("")}</html>`;
}

/** Prints the sheet from a frame that is out of sight. */
export function printPatchSheet(show: Show): void {
  const frame = document.createElement("iframe");
  frame.className = "out-of-sight";
  frame.title = "Patch sheet";
  frame.srcdoc = patchSheet(show);
  frame.addEventListener("load", () => {
    frame.contentWindow?.addEventListener("afterprint", () => frame.remove());
    frame.contentWindow?.print();
  });
  document.body.append(frame);
}
