/** Running a script or show test on a virtual clock: no real time passes. */
import { importFixtures } from "../exchange/importIntent";
import { guessMapping } from "../exchange/patchColumns";
import { readPatch, typeChoices, writePatch } from "../exchange/patchTable";
import { readTable } from "../exchange/tableText";
import { isRefusal, refusalText, type Refusal } from "../show/refusal";
import type { Show } from "../show/schema";
import { newHands } from "../show/world";
import { contextOf, newDesk, performOn, runLine, wait, type Desk } from "./desk";
import { checkExpectation } from "./expectation";
import type { Args } from "../command/grammar";
import { lex } from "../command/lexer";
import { readLine } from "../command/read";

/** The outside of a script: files, relative to it, and where printed lines go. */
export interface ScriptFiles {
  open(name: string): Show | Refusal;
  save(name: string, show: Show): Refusal | undefined;
  print(line: string): void;
  readText(name: string): string | Refusal;
  writeText(name: string, text: string): Refusal | undefined;
}

export interface ScriptResult {
  passed: number;
  /** "LINE expected ... got ...". */
  failures: { line: number; text: string }[];
}

/** A line that must be refused: does it on a copy of the standing and tells whether it was. */
function checkRefused(desk: Desk, text: string): string | undefined {
  const before = desk.world;
  const refusal = runLine(desk, text);
  if (!refusal) return `expected a refusal of: ${text} got it done`;
  return desk.world === before ? undefined : `expected nothing changed by: ${text} got a change`;
}

/** Runs a script to its end, or to the first line refused outside `refuse`. */
export function runScript(source: string, files: ScriptFiles): ScriptResult {
  const desk = newDesk();
  const result: ScriptResult = { passed: 0, failures: [] };
  const lines = source.split(/\r?\n/);
  for (const [index, text] of lines.entries()) {
    const fail = (why: string) => result.failures.push({ line: index + 1, text: why });
    const read = readLine(text, contextOf(desk), { script: true });
    if (read === undefined) continue;
    if (isRefusal(read)) {
      fail(`refused: ${refusalText(read)}`);
      return result;
    }
    if (!read.script) {
      const refusal = performOn(desk, read);
      if (!refusal) continue;
      fail(`refused: ${refusalText(refusal)}`);
      return result;
    }
    const { kind } = read.script;
    const given = read.script.args;
    const args =
      typeof given.line === "number"
        ? { ...given, text: text.slice(lex(text)[given.line]!.at).replace(/\s\/\/.*$/, "") }
        : given;
    if (kind === "wait") wait(desk, args.time as number);
    else if (FILE_ACTS[kind]) {
      const refusal = FILE_ACTS[kind](desk, files, args);
      if (!refusal) continue;
      fail(`refused: ${refusalText(refusal)}`);
      return result;
    } else {
      const wrong =
        kind === "refuse"
          ? checkRefused(desk, (args as { text: string }).text)
          : checkExpectation(desk, { kind, args }, files);
      if (wrong === undefined) result.passed += kind === "print" ? 0 : 1;
      else fail(wrong);
    }
  }
  return result;
}

const FILE_ACTS: Record<string, (desk: Desk, files: ScriptFiles, args: Args) => Refusal | undefined> = {
  open: (desk, files, args) => openShow(desk, files, args.file as string),
  save: (desk, files, args) => files.save(args.file as string, desk.world.show),
  importCsv: (desk, files, args) => importCsv(desk, files, args.file as string, args.update ? "update" : "add"),
  exportCsv: (desk, files, args) => files.writeText(args.file as string, writePatch(desk.world.show)),
};

/** Rows that cannot come in are told, not refused: the others come in. */
function importCsv(desk: Desk, files: ScriptFiles, name: string, how: "add" | "update"): Refusal | undefined {
  const text = files.readText(name);
  if (isRefusal(text)) return text;
  const table = readTable(text);
  if (isRefusal(table)) return table;
  const mapping = guessMapping(table);
  const { rows, leftOut } = readPatch(
    desk.world.show,
    table,
    mapping,
    typeChoices(desk.world.show, table, mapping),
    how,
  );
  for (const { line, why } of leftOut) files.print(`${name}:${line} left out: ${why}`);
  return performOn(desk, {
    intents: [importFixtures.of({ rows: rows.map(({ updates, fixture }) => ({ updates, fixture })) })],
    events: [],
  });
}

function openShow(desk: Desk, files: ScriptFiles, name: string): Refusal | undefined {
  const show = files.open(name);
  if (isRefusal(show)) return show;
  Object.assign(desk, newDesk({ show, hands: newHands(show) }));
  return undefined;
}
