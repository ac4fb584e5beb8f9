/** Catches a PDF of the plan that is of another size than the sheet, or leaves something of it out. */
import { planSheet } from "@/core/exchange/paper/plan";
import { demoWorld } from "@tests/setup/demo";
import { sheetPdf } from "./planPaper";

test("the PDF is as large as the sheet, and says all that it says", async () => {
  const sheet = planSheet(demoWorld().show);
  const pdf = Buffer.from(await sheetPdf(sheet)).toString("latin1");
  expect(pdf.slice(0, 5)).toBe("%PDF-");
  const box = /MediaBox \[0 0 ([\d.]+) ([\d.]+)\]/.exec(pdf)!;
  const points = (millimetres: number) => (millimetres * 72) / 25.4;
  expect(Number(box[1])).toBeCloseTo(points(sheet.width), 1);
  expect(Number(box[2])).toBeCloseTo(points(sheet.height), 1);
  const said = new Map<string, number>();
  for (const [, text] of pdf.matchAll(/\(((?:[^()\\]|\\.)*)\) Tj/g)) said.set(text!, (said.get(text!) ?? 0) + 1);
  const marks = sheet.marks.flatMap((mark) => (mark.kind === "text" && mark.text !== "" ? [mark.text] : []));
  expect(marks.length).toBeGreaterThan(150);
  for (const text of new Set(marks))
    expect([text, said.get(text.replace(/[()\\]/g, "\\$&"))]).toEqual([text, marks.filter((t) => t === text).length]);
});
