/** Running a script or show test on a virtual clock: no real time passes. */
import { readAscii } from "../exchange/ascii";
import { importAscii } from "../exchange/asciiIntent";
import { writeAscii } from "../exchange/asciiWrite";
import { bringFrom } from "../exchange/bringIntent";
import { requestOf } from "../exchange/bringLine";
import { readGdtf, writeGdtf } from "../exchange/gdtf/file";
import { piecesNew, planMvr } from "../exchange/mvr/plan";
import { readMvr } from "../exchange/mvr/read";
import { writeMvr } from "../exchange/mvr/write";
import { typeNamed } from "../rig/swap";
import { putType } from "../rig/typeIntent";
import { importFixtures } from "../exchange/importIntent";
import { guessMapping } from "../exchange/patchColumns";
import { readPatch, typeChoices, writePatch } from "../exchange/patchTable";
import { writeCues } from "../exchange/cueTable";
import { readTable } from "../exchange/tableText";
import { attempt, isRefusal, refusalText, type Refusal } from "../show/refusal";
import type { Show } from "../show/schema";
import { newHands } from "../show/world";
import { contextOf, newDesk, performOn, runLine, wait, type Desk } from "./desk";
import { checkExpectation } from "./expectation";
import type { ScriptAct, ScriptArgs } from "../command/scriptLines";
import { readLine } from "../command/read";
import { savePlay } from "../play/keep/saved";

/** The outside of a script: files, relative to it, and where printed lines go. */
export interface ScriptFiles {
  open(name: string): Show | Refusal;
  save(name: string, show: Show): Refusal | undefined;
  print(line: string): void;
  readText(name: string): string | Refusal;
  writeText(name: string, text: string): Refusal | undefined;
  readBytes(name: string): Uint8Array | Refusal;
  writeBytes(name: string, bytes: Uint8Array): Refusal | undefined;
}

export interface ScriptResult {
  passed: number;
  /** "LINE expected ... got ...". */
  failures: { line: number; text: string }[];
}

/** A line that must be refused: does it on a copy of the standing and tells whether it was. */
function checkRefused(desk: Desk, text: string): string | undefined {
  const before = desk.world;
  const played = JSON.stringify(savePlay(desk.player));
  const refusal = runLine(desk, text);
  if (!refusal) return `expected a refusal of: ${text} got it done`;
  const same = desk.world === before && JSON.stringify(savePlay(desk.player)) === played;
  return same ? undefined : `expected nothing changed by: ${text} got a change`;
}

/** Runs a script to its end, or to the first line refused outside `refuse`. */
export function runScript(source: string, files: ScriptFiles): ScriptResult {
  const desk = newDesk(undefined, files.print);
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
    const outcome = doAct(desk, files, read.script);
    if (isRefusal(outcome)) {
      fail(`refused: ${refusalText(outcome)}`);
      return result;
    }
    if (outcome === "passed") result.passed += 1;
    else if (outcome !== "done") fail(outcome.wrong);
  }
  return result;
}

/** What became of a script line; a refusal ends the script. */
type Outcome = "done" | "passed" | { wrong: string } | Refusal;

function doAct(desk: Desk, files: ScriptFiles, act: ScriptAct): Outcome {
  switch (act.kind) {
    case "wait":
      wait(desk, act.args.time);
      return "done";
    case "open":
      return openShow(desk, files, act.args.file) ?? "done";
    case "save":
      return files.save(act.args.file, desk.world.show) ?? "done";
    case "importCsv":
      return importCsv(desk, files, act.args.file, act.args.update ? "update" : "add") ?? "done";
    case "exportCsv":
      return files.writeText(act.args.file, writePatch(desk.world.show)) ?? "done";
    case "exportCues":
      return files.writeText(act.args.file, writeCues(desk.world.show)) ?? "done";
    case "importAscii":
      return bringAscii(desk, files, act.args.file, act.args.update === true) ?? "done";
    case "exportAscii": {
      const { text, left } = writeAscii(desk.world.show);
      for (const what of left) files.print(`${act.args.file} left out: ${what}`);
      return files.writeText(act.args.file, text) ?? "done";
    }
    case "importGdtf":
      return bringGdtf(desk, files, act.args.file) ?? "done";
    case "exportGdtf": {
      const type = attempt(() => typeNamed(desk.world.show, act.args.of));
      return isRefusal(type) ? type : (files.writeBytes(act.args.file, writeGdtf(type)) ?? "done");
    }
    case "importMvr":
      return bringMvr(desk, files, act.args.file, act.args.update ? "update" : "add") ?? "done";
    case "exportMvr": {
      const { bytes, left } = writeMvr(desk.world.show);
      for (const what of left) files.print(`${act.args.file} left out: ${what}`);
      return files.writeBytes(act.args.file, bytes) ?? "done";
    }
    case "bring":
      return bringOver(desk, files, act.args) ?? "done";
    case "refuse":
      return judged(checkRefused(desk, act.args.line));
    case "print": {
      const wrong = checkExpectation(desk, act, files);
      return wrong === undefined ? "done" : { wrong };
    }
    default:
      return judged(checkExpectation(desk, act, files));
  }
}

const judged = (wrong: string | undefined): Outcome => (wrong === undefined ? "passed" : { wrong });

function bringGdtf(desk: Desk, files: ScriptFiles, name: string): Refusal | undefined {
  const bytes = files.readBytes(name);
  if (isRefusal(bytes)) return bytes;
  const read = readGdtf(bytes, desk.world.show);
  if (isRefusal(read)) return read;
  for (const note of read.notes) files.print(`${name} left out: ${note}`);
  return performOn(desk, { intents: [putType.of({ type: read.type })], events: [] });
}

function bringMvr(desk: Desk, files: ScriptFiles, name: string, how: "add" | "update"): Refusal | undefined {
  const bytes = files.readBytes(name);
  if (isRefusal(bytes)) return bytes;
  const read = readMvr(bytes, desk.world.show);
  if (isRefusal(read)) return read;
  const { rows, types } = planMvr(desk.world.show, read, how);
  for (const note of read.notes) files.print(`${name} left out: ${note}`);
  const groups = read.sets.filter((set) => set.kind === "group").length;
  if (groups + read.points.length > 0)
    files.print(
      `${name} left out: ${groups} groups and ${read.points.length} focus points: the import of the app brings them in`,
    );
  for (const { fixture, problem } of rows) if (problem) files.print(`${name} fixture ${fixture.number}: ${problem}`);
  return performOn(desk, {
    intents: [
      importFixtures.of({
        rows: rows.map(({ updates, fixture }) => ({ updates, fixture })),
        types,
        pieces: piecesNew(desk.world.show, read.pieces),
      }),
    ],
    events: [],
  });
}

function bringOver(desk: Desk, files: ScriptFiles, args: ScriptArgs["bring"]): Refusal | undefined {
  const show = files.open(args.file);
  if (isRefusal(show)) return show;
  const request = attempt(() => requestOf(desk.world.show, show, args));
  return isRefusal(request) ? request : performOn(desk, { intents: [bringFrom.of(request)], events: [] });
}

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

/** Lines that cannot be carried are told, not refused: the others come in. */
function bringAscii(desk: Desk, files: ScriptFiles, name: string, update: boolean): Refusal | undefined {
  const text = files.readText(name);
  if (isRefusal(text)) return text;
  const data = readAscii(text);
  if (isRefusal(data)) return data;
  const { left, ...carried } = data;
  for (const { line, why } of left) files.print(`${name}:${line} left out: ${why}`);
  return performOn(desk, { intents: [importAscii.of({ ...carried, update })], events: [] });
}

function openShow(desk: Desk, files: ScriptFiles, name: string): Refusal | undefined {
  const show = files.open(name);
  if (isRefusal(show)) return show;
  Object.assign(desk, newDesk({ show, hands: newHands(show) }, files.print));
  return undefined;
}
