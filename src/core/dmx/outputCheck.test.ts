/** Catches outputs that clash on the wire and are not told. */
import { newDesk, performOn, runLine } from "../desk/desk";
import { runsOf } from "../units/runs";
import { outputFindings } from "./outputCheck";

const found = (...lines: string[]) => {
  const desk = newDesk();
  for (const line of lines) expect(runLine(desk, line)).toBeUndefined();
  return { desk, findings: outputFindings(desk.world.show) };
};

test("numbers as runs", () => {
  expect(runsOf([7, 2, 1, 3])).toEqual([
    [1, 3],
    [7, 7],
  ]);
  expect(runsOf([])).toEqual([]);
});

test("patched universes that go nowhere are told, and their cure cures them", () => {
  const { desk, findings } = found(
    "patch 90 kelp-wash as 1 at 1:1",
    "patch 1 dimmer as 900 at 7:1",
    "output 2 sacn to 127.0.0.1",
  );
  expect(findings.map((f) => f.what)).toEqual([
    "Universe 1 is patched but has no output",
    "Universe 3 is patched but has no output",
    "Universe 7 is patched but has no output",
  ]);
  for (const { intents } of findings) expect(performOn(desk, { intents, events: [] })).toBeUndefined();
  expect(outputFindings(desk.world.show)).toEqual([]);
});

test("two universes that meet on the wire are told; the same number elsewhere, or of the other protocol, is not one", () => {
  const outputs = [
    "output 1 artnet to 10.0.0.5 as 4",
    "output 3 artnet to 10.0.0.6 as 4",
    "output 4 sacn to 10.0.0.5 as 4",
  ];
  expect(found(...outputs).findings).toEqual([]);
  const { desk, findings } = found(...outputs, "output 2 artnet to 10.0.0.7 and 10.0.0.5 as 4");
  expect(findings.map((f) => f.what)).toEqual([
    "Universes 1 and 2 both go out as Art-Net 4 (net 0, sub-net 0, universe 4)",
  ]);
  expect(performOn(desk, { intents: findings[0]!.intents, events: [] })).toBeUndefined();
  expect(outputFindings(desk.world.show)).toEqual([]);
});
