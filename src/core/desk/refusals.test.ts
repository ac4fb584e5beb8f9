/** Catches bad input that changes something or is refused without a clear reason. */
import { isRefusal, refusalText } from "../show/refusal";
import { contextOf, newDesk, runLine } from "./desk";
import { complete, readLine } from "../command/read";

function rig() {
  const desk = newDesk();
  for (const line of [
    "patch 5 kelp-wash as 1 at 1:1",
    "patch 2 dimmer as 11 at 2:1",
    "patch 1 tide-bar as 71 at 3:1",
    "1 at 50",
    "record cue 1",
    "clear",
  ])
    runLine(desk, line);
  return desk;
}

test.each([
  ["patch 1 dimmer as 30 at 1:60", /1:60 is in use by fixture 5/],
  ["patch 1 kelp-wash as 1 at 9:1", /number 1 is taken/],
  ["patch 1 kelp-wash as 40 at 9:505", /past 512/],
  ["patch 1 dimmer as 40 at 9:513", /slots go from 1 to 512/],
  ["patch 1 petrel-spott as 40", /no fixture type petrel-spott.*petrel-spot/],
  ["patch 1 petrel-spot mode huge", /no mode huge.*standard \(23 channels\), compact \(16 channels\)/],
  ["99", /no fixture 99.*from 1 to 71/],
  ["71.13", /no cell 13.*71\.1 to 71\.12/],
  ["1.1", /no cell 1.*no cells/],
  ["group 4", /no group 4/],
  ["at 50", /nothing is selected/],
  ["record group 1", /nothing is selected/],
  ["record cue 2", /nothing is held/],
  ["1 pan at 300", /outside the range of fixture 1.*-270° to 270°/],
  ["11 pan at 10", /none of the selected fixtures has pan/],
  ["11 colour at #ff0000", /none of the selected fixtures has colour/],
  ["go list 9", /no list 9/],
  ["go list 1 cue 9", /no cue 9/],
  ["back list 1", /not running/],
  ["1 at", /not finished.*a value/],
  ["1 at fifty", /"fifty" is not understood after "1 at"/],
  ['1 name "Mast', /not closed/],
  ["1 renumber 11", /number 11 is taken/],
  ["redo", /nothing to redo/],
  ["level list 1 at 120", /0 to 100/],
])("%s", (line, message) => {
  const desk = rig();
  const before = desk.world;
  const refusal = runLine(desk, line);
  expect(refusal && refusalText(refusal)).toMatch(message);
  expect(desk.world).toBe(before);
});

test("short forms count only where they can mean one thing", () => {
  const context = contextOf(rig());
  const short = (line: string) => {
    const read = readLine(line, context, { abbreviate: true });
    return isRefusal(read) ? refusalText(read) : read?.command.syntax;
  };
  expect(short("1..5 @ full")).toBe("[<sel>] <settings>");
  expect(short("gr 5")).toMatch(/could be group, green, grand/);
  expect(short("blac on")).toBe("blackout (on | off)");
  expect(isRefusal(readLine("blac on", context))).toBe(true);
});

test("completion offers what could follow", () => {
  const context = contextOf(rig());
  const offers = (line: string) => complete(line, context).map((c) => c.text);
  expect(offers("patch 3 ")).toEqual(expect.arrayContaining(["petrel-spot", "kelp-wash"]));
  expect(offers("patch 3 petrel-s")).toEqual(["petrel-spot"]);
  expect(offers("1 ")).toEqual(expect.arrayContaining(["at", "thru", "colour", "pan", "renumber"]));
  expect(complete("set cue 1 no", context)[0]?.line).toBe("set cue 1 note ");
});
