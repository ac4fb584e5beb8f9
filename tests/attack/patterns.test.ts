/** Catches a regular expression that takes for ever over text made for it. */
import { readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";
import ts from "typescript";
import { report } from "./scale";

const LENGTH = 10_000;
const SHORT = 28;
const MOST_MS = 50;
const src = join(__dirname, "../../src");

interface Found {
  where: string;
  pattern: RegExp;
}

function patternsIn(file: string): Found[] {
  const source = ts.createSourceFile(file, readFileSync(join(src, file), "utf8"), ts.ScriptTarget.Latest);
  const found: Found[] = [];
  const walk = (node: ts.Node): void => {
    if (ts.isRegularExpressionLiteral(node)) {
      const end = node.text.lastIndexOf("/");
      found.push({
        where: `${file} ${node.text}`,
        pattern: new RegExp(node.text.slice(1, end), node.text.slice(end + 1)),
      });
    }
    ts.forEachChild(node, walk);
  };
  walk(source);
  return found;
}

const SAMPLES: Record<string, string> = {
  d: "1",
  D: "x",
  w: "a",
  W: "-",
  s: " ",
  S: "a",
  t: "\t",
  n: "\n",
  r: "\r",
  b: "",
  B: "",
};

/** One character for each thing a pattern asks for, in the order it asks. */
function partsOf({ source }: RegExp): string[] {
  const parts: string[] = [];
  for (let i = 0; i < source.length; i++) {
    const c = source[i]!;
    if (c === "\\") {
      const next = source[++i]!;
      parts.push(SAMPLES[next] ?? next);
    } else if (c === "[") {
      const end = source.indexOf("]", i + 2);
      const inside = source.slice(i + 1, end);
      parts.push(
        inside.startsWith("^")
          ? (["a", " ", "1", '"', "!"].find((s) => !inside.includes(s)) ?? "é")
          : inside.startsWith("\\")
            ? (SAMPLES[inside[1]!] ?? inside[1]!)
            : inside[0]!,
      );
      i = end;
    } else if (c === ".") parts.push("a");
    else if (c === "{") i = source.indexOf("}", i);
    else if (c === "(" && source[i + 1] === "?") i += /^\(\?<[=!]/.test(source.slice(i)) ? 3 : 2;
    else if (!"^$()|?*+".includes(c)) parts.push(c);
  }
  return parts.filter((part) => part !== "");
}

/** Long texts of what a pattern asks for, each begun well, repeated, and ended badly. */
function textsFor(pattern: RegExp, length: number): string[] {
  const parts = partsOf(pattern);
  const all = parts.join("");
  const repeated = new Set([...parts, ...parts.slice(1).map((part, i) => parts[i]! + part), all]);
  return [...repeated].flatMap((part) => {
    const long = part.repeat(Math.ceil(length / Math.max(1, part.length))).slice(0, length);
    return [`${long}\u0000`, `${parts[0] ?? ""}${long}\u0000`, `\u0000${long}`];
  });
}

/** The least of three, so that other work on the machine is not counted. */
function took(pattern: RegExp, text: string): number {
  let least = Infinity;
  for (let i = 0; i < 3 && least > MOST_MS; i++) {
    const before = performance.now();
    text.replace(pattern, "");
    least = Math.min(least, performance.now() - before);
  }
  return least;
}

/** Of short texts first: work that doubles with each character shows there, and would never end with long ones. */
function worstOf(pattern: RegExp): number {
  let worst = 0;
  for (const length of [SHORT, LENGTH])
    for (const text of textsFor(pattern, length)) {
      worst = Math.max(worst, took(pattern, text));
      if (worst > MOST_MS) return worst;
    }
  return worst;
}

test("every regular expression is done with 10,000 characters of its own parts within 50 ms", () => {
  const files = readdirSync(src, { recursive: true, encoding: "utf8" }).filter(
    (file) => /\.tsx?$/.test(file) && !file.includes(".test."),
  );
  const found = files.flatMap(patternsIn);
  expect(found.length).toBeGreaterThan(50);
  const slow = found.flatMap(({ where, pattern }) => {
    const worst = worstOf(pattern);
    return worst > MOST_MS ? [`${where}: ${Math.round(worst)} ms`] : [];
  });
  report("regular expressions", { tried: found.length, slow: slow.length });
  expect(slow).toEqual([]);
  // What takes long is told.
  expect(worstOf(/a*b/)).toBeGreaterThan(MOST_MS);
  expect(worstOf(/^(\s|!.*)*(ident|clear)\b/i)).toBeGreaterThan(MOST_MS);
});
