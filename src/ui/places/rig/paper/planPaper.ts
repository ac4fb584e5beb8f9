/** The plan to scale out of the browser, as SVG or PDF. */
import { planSheet, sheetSvg, type Sheet } from "@/core/exchange/paper/plan";
import type { Show } from "@/core/show/schema";
import { saveFile } from "@/ui/base/files/saveFile";

const fileName = (show: Show, ending: string): string => `${show.name || "show"} plan.${ending}`;

export const exportPlanSvg = (show: Show): void =>
  saveFile(fileName(show, "svg"), new TextEncoder().encode(sheetSvg(planSheet(show))), "image/svg+xml");

/** The PDF writer is large: it is loaded when it is wanted. */
export async function exportPlanPdf(show: Show): Promise<void> {
  saveFile(fileName(show, "pdf"), await sheetPdf(planSheet(show)), "application/pdf");
}

const POINTS = 72 / 25.4;

/** A sheet as PDF. */
export async function sheetPdf({ width, height, marks }: Sheet): Promise<Uint8Array> {
  const { jsPDF } = await import("jspdf");
  const pdf = new jsPDF({
    unit: "mm",
    format: [width, height],
    orientation: width > height ? "landscape" : "portrait",
  });
  for (const mark of marks) {
    const ink = mark.grey ? 119 : 0;
    if (mark.kind === "text") {
      pdf.setTextColor(ink);
      pdf.setFont("helvetica", mark.strong ? "bold" : "normal");
      pdf.setFontSize(mark.size * POINTS);
      pdf.text(mark.text, mark.at[0], mark.at[1], {
        align: ({ start: "left", middle: "center", end: "right" } as const)[mark.anchor],
      });
      continue;
    }
    pdf.setDrawColor(ink);
    pdf.setLineWidth(mark.width);
    if (mark.kind === "circle") pdf.circle(mark.at[0], mark.at[1], mark.radius, "S");
    else {
      const [[x, y], ...rest] = mark.points as [readonly [number, number], ...(readonly [number, number])[]];
      const steps = rest.map(([a, b], k) => [a - mark.points[k]![0], b - mark.points[k]![1]]);
      pdf.lines(steps, x, y, [1, 1], "S", mark.closed === true);
    }
  }
  return new Uint8Array(pdf.output("arraybuffer"));
}
