/** Catches lighting data that comes back otherwise than it went out, and texts that are not what they seem. */
import fc from "fast-check";
import { lookOf } from "../cue/looks";
import { newDesk, performOn, runLine, wait, type Desk } from "../desk/desk";
import { libraryType } from "../fixture/library/library";
import { putType } from "../rig/typeIntent";
import { isRefusal, type Refusal } from "../show/refusal";
import { cuesOf, fixturesByNumber, groupsByNumber, listsByNumber } from "../show/world";
import { isAscii, readAscii, type AsciiData } from "./ascii";
import { importAscii } from "./asciiIntent";
import { writeAscii } from "./asciiWrite";
import { runs } from "@tests/setup/runs";

const read = (text: string): AsciiData => {
  const data = readAscii(text);
  if (isRefusal(data)) throw new Error(data.what);
  return data;
};
function brought(text: string, desk = newDesk(), update = false): Desk {
  const { left, ...carried } = read(text);
  const refusal: Refusal | undefined = performOn(desk, {
    intents: [importAscii.of({ ...carried, update })],
    events: [],
  });
  if (refusal) throw new Error(refusal.what);
  return desk;
}
const does = (desk: Desk, ...lines: string[]) => {
  for (const line of lines) {
    const refusal = runLine(desk, line);
    if (refusal) throw new Error(`${line}: ${refusal.what}`);
  }
};
/** The lit channels of each cue with their levels, by fixture number. */
const looks = ({ world: { show } }: Desk) =>
  listsByNumber(show).flatMap((list) =>
    cuesOf(list).map((cue, at) => [
      list.number,
      cue.number,
      [...lookOf(show, list, at)].map(([id, values]) => [show.fixtures[id]!.number, Math.round(values[0]! * 10) / 10]),
    ]),
  );

test("a text as others write it comes in, and what it says besides is named", () => {
  const text = [
    "! Example",
    "Ident 3:0",
    "Manufacturer Nobody",
    "PATCH 1 1<1@HFF 2<2@80 3,514",
    "$Special 12",
    "CUE 1",
    "TEXT  House, half  ",
    "UP 4.5 1",
    "DOWN 1:02",
    "CHAN 1@50 2/FL 3=H80",
    "CUE 2",
    "FOLLOWON 3",
    "LINK 1",
    "CHAN 2@0 3@H80 9@lots",
    "CUE 2.5",
    "CHAN 1<20",
    "GROUP 7",
    "TEXT Front",
    "CHAN 1@FL 3@FL",
    "SUB 1",
    "CHAN 1@10",
    "ENDDATA",
    "CUE 99",
  ].join("\r\n");
  const data = read(text);
  expect(data.left.map((l) => l.line)).toEqual([5, 14]);
  const desk = brought(text);
  const { show } = desk.world;
  expect(fixturesByNumber(show).map((f) => [f.number, f.addresses, f.scale])).toEqual([
    [1, [{ universe: 1, slot: 1 }], 100],
    [2, [{ universe: 1, slot: 2 }], 80],
    [3, [{ universe: 2, slot: 2 }], 100],
  ]);
  expect(groupsByNumber(show).map((g) => [g.number, g.name, g.members.length])).toEqual([[7, "Front", 2]]);
  const [one, two, three] = cuesOf(listsByNumber(show)[0]!);
  expect(one!.name).toBe("House, half");
  expect(one!.times).toMatchObject({ up: 4.5, delayUp: 1, down: 62, delayDown: 0 });
  expect(two!.then).toBe(one!.id);
  expect(three!.trigger).toEqual({ kind: "auto", after: 3 });
  expect(looks(desk)).toEqual([
    [
      1,
      1,
      [
        [1, 50],
        [2, 100],
        [3, 50.2],
      ],
    ],
    [1, 2, [[3, 50.2]]],
    [1, 2.5, [[1, 20]]],
    [101, 1, [[1, 10]]],
  ]);
});

test("what is none of it is refused, and a long one is bounded", () => {
  expect(isRefusal(readAscii("Number, Name\n1, Spot"))).toBe(true);
  expect(isRefusal(readAscii("IDENT 3:0\n".repeat(200_001)))).toBe(true);
});

test("intensities, patch, groups and simple times go out and come back", () => {
  const level = fc.integer({ min: 0, max: 100 });
  const cue = fc.record({
    sel: fc.integer({ min: 1, max: 6 }),
    level,
    fade: fc.integer({ min: 0, max: 90 }),
    auto: fc.boolean(),
  });
  fc.assert(
    fc.property(fc.array(cue, { minLength: 1, maxLength: 8 }), fc.integer({ min: 1, max: 5 }), (cues, last) => {
      const desk = newDesk();
      does(
        desk,
        "patch 4 dimmer as 1 at 1:1",
        "patch 2 gull-scroller as 5 at 3:510",
        `1 thru ${last}`,
        'record group 3 "Some"',
        "none",
      );
      cues.forEach(({ sel, level: at, fade, auto }, k) =>
        does(
          desk,
          `${sel} at ${at}`,
          `record cue ${k + 1} "Cue ${k}" up ${fade} down ${fade + 1}${auto ? " auto 2" : ""}`,
          "clear",
        ),
      );
      const { text } = writeAscii(desk.world.show);
      const again = brought(text);
      expect(looks(again)).toEqual(looks(desk));
      const patchOf = (d: Desk) => read(writeAscii(d.world.show).text).patch;
      expect(patchOf(again)).toEqual(patchOf(desk));
      expect(read(writeAscii(again.world.show).text)).toEqual(read(text));
      // Brought in over itself nothing looks different.
      expect(looks(brought(text, desk, true))).toEqual(looks(again));
    }),
    { numRuns: runs(40) },
  );
});

test("mutilated texts never throw", () => {
  const base = "IDENT 3:0\nPATCH 1 1<1@HFF\nCUE 1\nUP 3\nCHAN 1@50 2@FL\nGROUP 1\nCHAN 1@FL\n";
  fc.assert(
    fc.property(fc.array(fc.tuple(fc.nat(base.length), fc.string({ maxLength: 6 })), { maxLength: 6 }), (cuts) => {
      let text = base;
      for (const [at, put] of cuts) text = text.slice(0, at) + put + text.slice(at + put.length);
      const data = readAscii(text);
      if (isRefusal(data)) return;
      const { left, ...carried } = data;
      const desk = newDesk();
      performOn(desk, { intents: [importAscii.of({ ...carried, update: true })], events: [] });
    }),
    { numRuns: runs(300) },
  );
});

test("snaps, parts, submasters, consoles' own words and banners come in as they are meant", () => {
  const text = [
    "$$MYCONSOLE version 7",
    "!".repeat(5000),
    "PATCH 1 1<1@100 1<2@80 2<3@100 3<4@100",
    "SUB 2",
    "TEXT House! left",
    "CHAN 1@50 2@FL",
    "CUE 1",
    "TEXT Bang!",
    "UP 0",
    "DOWN 0",
    "CHAN 1@100",
    "CUE 2",
    "UP 5",
    "CHAN 1@50",
    "PART 1",
    "UP 2 1",
    "DOWN 9",
    "CHAN 2@80",
    "PART 2",
    "UP 0",
    "CHAN 3@60",
    "ENDDATA",
  ].join("\n");
  expect(isAscii(text)).toBe(true);
  expect([isAscii("!".repeat(60)), isAscii("Number,Name\n1,Cue"), isAscii("Patch list 2026\n\nNr,Name\n1,A")]).toEqual([
    false,
    false,
    false,
  ]);
  expect([isAscii("Patch 2\nNr,Name"), isAscii("! made by hand\rIDENT\t3:0\r")]).toEqual([false, true]);
  const data = readAscii(text);
  if (isRefusal(data)) throw new Error(data.what);
  expect(data.left.map(({ line, why }) => [line, why])).toEqual([
    [1, "$$MYCONSOLE is its console's own word and is not carried"],
    [3, "channel 1: its dimmers stand at 100 % and 80 %; the first counts for all"],
  ]);
  const desk = newDesk();
  const { left: _, ...carried } = data;
  expect(performOn(desk, { intents: [importAscii.of({ ...carried, update: false })], events: [] })).toBeUndefined();
  const levels = () => [...desk.player.frame.slice(0, 4)];
  const says = (line: string) => expect(runLine(desk, line)).toBeUndefined();
  says("go list 1");
  expect(levels()).toEqual([255, 255, 0, 0]);
  says("go list 1");
  // The second part snaps; the first waits a second and takes two; the cue itself takes five.
  expect(levels()).toEqual([255, 255, 0, 153]);
  wait(desk, 2);
  expect(levels()).toEqual([204, 204, 102, 153]);
  wait(desk, 3);
  expect(levels()).toEqual([128, 128, 204, 153]);
  says("back list 1");
  wait(desk, 60);
  says("release all");
  wait(desk, 60);
  says("level list 102 at 100");
  expect(levels()).toEqual([128, 128, 255, 0]);
  expect(Object.values(desk.world.show.lists).find((l) => l.number === 102)).toMatchObject({
    kind: "submaster",
    name: "House! left",
  });
  expect(writeAscii(desk.world.show).text).toContain("TEXT Bang!");
});

test("a show that has changed its dimmer type gets dimmers of that", () => {
  const desk = newDesk();
  const own = { ...libraryType("dimmer")!, modes: [{ ...libraryType("dimmer")!.modes[0]!, name: "mine" }] };
  expect(performOn(desk, { intents: [putType.of({ type: own })], events: [] })).toBeUndefined();
  const { show } = brought("CUE 1\nCHAN 5@50\nENDDATA\n", desk).world;
  expect(fixturesByNumber(show).map((f) => [f.number, f.mode])).toEqual([[5, "mine"]]);
});
