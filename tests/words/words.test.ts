/** Catches a text of the app that nobody would say aloud, and a number with more decimals than people read. */
import { readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";
import fc from "fast-check";
import ts from "typescript";
import { attributesKnown, withUnit } from "@/core/fixture/attribute";
import { typedNumber } from "@/core/fixture/typedNumber";
import { valueText } from "@/ui/show/held/summary";
import type { Target } from "@/core/show/model";
import { runs } from "@tests/setup/runs";
import { PHRASES, SAID } from "./phrases";

const src = join(__dirname, "../../src");

/** What a file says to people, with the line: text between tags, strings and templates, what is put into them as {}. */
function textsIn(file: string): [line: number, text: string][] {
  const kind = file.endsWith("x") ? ts.ScriptKind.TSX : ts.ScriptKind.TS;
  const source = ts.createSourceFile(file, readFileSync(join(src, file), "utf8"), ts.ScriptTarget.Latest, true, kind);
  const found: [number, string][] = [];
  const walk = (node: ts.Node): void => {
    if (ts.isImportDeclaration(node)) return;
    const text = ts.isJsxText(node)
      ? node.text
      : ts.isStringLiteral(node) || ts.isNoSubstitutionTemplateLiteral(node)
        ? node.text
        : ts.isTemplateExpression(node)
          ? [node.head.text, ...node.templateSpans.map((s) => s.literal.text)].join("{}")
          : undefined;
    if (text !== undefined)
      found.push([
        source.getLineAndCharacterOfPosition(node.getStart(source)).line + 1,
        text.replace(/\s+/g, " ").trim(),
      ]);
    ts.forEachChild(node, walk);
  };
  walk(source);
  return found;
}

const files = readdirSync(src, { recursive: true, encoding: "utf8" }).filter(
  (f) => /\.tsx?$/.test(f) && !f.includes(".test."),
);
const texts = files.flatMap((file) => textsIn(file).map(([line, text]) => ({ where: `${file}:${line}`, text })));

test("no text contains a phrase of the list", () => {
  expect(texts.length).toBeGreaterThan(5000);
  const odd = texts.flatMap(({ where, text }) =>
    PHRASES.filter(([phrase]) => text.toLowerCase().includes(phrase)).map(
      ([phrase, better]) => `${where}: "${phrase}" in "${text.slice(0, 80)}"; better: ${better}`,
    ),
  );
  expect(odd).toEqual([]);
});

const number = fc.double({ min: -10_000, max: 10_000, noNaN: true });
const attribute = fc.constantFrom(
  ...attributesKnown().flatMap((a) => (a.unit === "slot" || a.unit === "state" ? [] : [a.name])),
);

test.each(SAID)("%j is said in %s", (text, file) => {
  expect(readFileSync(join(src, file), "utf8").replace(/\s+/g, " ")).toContain(text);
});

test("a number is shown with two decimals at most and its unit, and what is shown can be typed back", () => {
  fc.assert(
    fc.property(attribute, number, (name, value) => {
      const target = { fn: { attribute: name, dmxFrom: 0, dmxTo: 255, from: 0, to: 1 } } as Target;
      for (const text of [withUnit(value, name), valueText(value, value, name, target)]) {
        expect(text).toMatch(/^-?\d+(\.\d{1,2})?( ?[a-zA-Z%°]+)?$/);
        expect(Math.abs(typedNumber(name, text)! - value)).toBeLessThan(0.0501);
      }
    }),
    { numRuns: runs(300) },
  );
});
