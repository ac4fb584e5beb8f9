/** Catches an edit that is accepted and makes a show that does not open again: every kind of intent, at and past each limit. */
import fc from "fast-check";
import { newDesk, runLine, type Desk } from "@/core/desk/desk";
import { canonical } from "@/core/exchange/canonical";
import { readShowFile, writeShowFile } from "@/core/exchange/showFile";
import { readShow } from "@/core/show/checking/check";
import { HandsSchema } from "@/core/show/hands";
import { applyIntents, type Intent } from "@/core/show/change/intent";
import { isRefusal, refusalText } from "@/core/show/refusal";
import { libraryType } from "@/core/fixture/library/library";
import { INTENTS } from "@/core/intents";
import { report, times } from "./scale";
import type { World } from "@/core/show/world";

function standing(): World {
  const desk = newDesk();
  for (const line of [
    "patch 3 dimmer as 1 at 1:1",
    "patch 2 petrel-spot as 11",
    "patch 1 kelp-wash as 90",
    "remove 90",
    "1 thru 3",
    'record group 1 "Some"',
    "1 thru 3 at 50",
    "record palette 1",
    "2 at 60",
    'record palette 2 "Other" each',
    "clear",
    "set palette 1 own 3",
    "3 palette 1",
    "record list 4 cue 1",
    "clear",
    'record wave "Tip" points 0 0, 50 100, 100 0',
    '1 thru 3 dimmer wave "Tip" low 0 high palette 2',
    'record effect 1 "Rise" cast',
    "clear",
    "11 colour stops #ff0000 #00ff00",
    "record effect 2",
    "clear",
    "1 thru 3 effect 1",
    "record list 4 cue 2",
    "clear",
    "11 pan at 5",
    "record cue 1",
    "11 pan at 9",
    "record cue 2",
    "clear",
    "1 thru 3 at 50",
    "record cue 1",
    "record list 2 cue 1",
    "clear",
    "1 at 80",
    "2 at 50 dimmer wave sine relative size 5",
    "record cue 2",
    "sign off cue 2",
    "set cue 2 3 dimmer at 33",
    "1 at full",
    "1 park",
    'draw truss from -6 7 to 6 7 name "Mast"',
    "output 1 artnet to 127.0.0.1",
    "11 pan at 10 tilt at 20",
    "record palette 9 each only position",
    "11 palette 9",
    "record palette 12 each only position",
    "11 pan at 13",
    "1 thru 3",
    "record group 12",
    "record list 1 cue 50 empty",
    "set list 1 cue 50 at 0:00:10",
    'record macro 1 "One" "none"',
    'record page 1 "One"',
    "put list 4 on page 1 place 1",
  ])
    runOrThrow(desk, line);
  return desk.world;
}
function runOrThrow(desk: Desk, line: string): void {
  const refusal = runLine(desk, line);
  if (refusal) throw new Error(`${line}: ${refusal.what}`);
}
const start = standing();
const [f1, f2] = Object.values(start.show.fixtures).map((f) => f.id) as [string, string];
const fourth = Object.values(start.show.lists).find((l) => l.number === 4)!.id;
const [linkedCue] = Object.keys(start.show.lists[fourth]!.cues) as [string];
const mover = Object.values(start.show.fixtures).find((f) => f.number === 11)!.id;
const [list, other] = Object.keys(start.show.lists) as [string, string];
const [group, later] = Object.keys(start.show.groups) as [string, string];
const [first, spare] = Object.keys(start.show.palettes) as [string, string];
const numbered = (number: number) => Object.values(start.show.palettes).find((p) => p.number === number)!.id;
const [cue, second] = Object.keys(start.show.lists[list]!.cues) as [string, string];
const [risen, walked] = Object.keys(start.show.effects) as [string, string];
const { voice } = start.show.effects[risen]!.voices[0]!;
const tip = Object.keys(start.show.waves)[0]!;
const key = `${f1}.0.Dimmer`;
const entry = { attribute: "Dimmer", value: 40, time: { delay: 1, fade: 2 } };
const { id: drawn, ...truss } = Object.values(start.show.scenery)[0]!;
const output = start.show.outputs["1"]!;

/** A small type with as many of its fields as it takes. */
const own = {
  id: "own",
  maker: "Brine",
  model: "Own",
  kind: "spot",
  guid: "6F8C2A54-9C1B-4E0E-8B51-0A2E5D6C7B81",
  physical: { beamAngle: 12, size: [0.2, 0.2, 0.4] },
  pictures: { net: "iVBORw0K" },
  modes: [
    {
      name: "one",
      cells: 1,
      channels: [
        {
          cell: 0,
          bytes: 1,
          slots: [2],
          default: 1,
          highlight: 1,
          functions: [
            {
              attribute: "Sparkle",
              dmxFrom: 0,
              dmxTo: 99,
              from: 1,
              to: 1,
              steps: [{ value: 1, name: "net", dmxFrom: 0, dmxTo: 99, colour: "#ffffff", picture: "net" }],
              info: { label: "Sparkle", family: "Beam", unit: "slot" },
            },
          ],
        },
        {
          cell: 1,
          bytes: 1,
          slots: [1],
          functions: [
            {
              attribute: "ColorAdd_R",
              dmxFrom: 0,
              dmxTo: 255,
              from: 0,
              to: 100,
              emitter: { xy: [0.7, 0.29], flux: 20 },
            },
            {
              attribute: "ColorAdd_G",
              dmxFrom: 0,
              dmxTo: 255,
              from: 0,
              to: 100,
              master: { channel: 0, from: 0, to: 9 },
            },
          ],
        },
      ],
    },
  ],
};

/** One intent of each kind, with as many of its fields as it takes. */
const SAMPLES: Intent[] = [
  { kind: "restoreShow", show: start.show },
  { kind: "recordMacro", number: 3, name: "Some", lines: ["none", "go"] },
  { kind: "recordPage", number: 5, name: "Some" },
  { kind: "duplicatePage", page: Object.keys(start.show.pages)[0], as: 9 },
  { kind: "renumberPage", page: Object.keys(start.show.pages)[0], as: 8 },
  {
    kind: "putOnPage",
    page: 1,
    place: 4,
    put: { what: "list", id: Object.keys(start.show.lists)[0], pad: true, held: true },
  },
  { kind: "recordView", number: 2, name: "Some", place: "build", arrangement: { panel: "12" } },
  { kind: "deleteOfDeck", what: "macro", id: Object.keys(start.show.macros)[0] },
  { kind: "nameOfDeck", what: "macro", id: Object.keys(start.show.macros)[0], name: "Else" },
  { kind: "setTimecode", rate: "25", freewheel: 2 },
  { kind: "shiftTimes", list: Object.keys(start.show.lists)[0], by: 1.5 },
  {
    kind: "importAscii",
    patch: [{ channel: 900, dimmer: 600, level: 100 }],
    groups: [{ number: 40, name: "Ends", channels: [1, 900] }],
    cues: [{ page: 30, number: 1, name: "A", up: 3, down: 3, upWait: 0, downWait: 0, levels: [[900, 50]] }],
    update: true,
  },
  { kind: "fromVersion", show: start.show, what: "palette", id: Object.keys(start.show.palettes)[0] },
  { kind: "nameShow", name: "Lantern" },
  { kind: "select", items: [f1, f2] },
  { kind: "spread", spread: { mirror: 2, bunch: 1, repeat: 3, by: "steps", steps: { [f1]: 1 } } },
  { kind: "step", to: "next" },
  { kind: "order", how: "shuffle", seed: 4, items: [f2] },
  { kind: "recordGroup", number: 4, name: "Rail", members: [f1, f2] },
  { kind: "nameGroup", group, name: "Rail" },
  { kind: "deleteGroup", group },
  { kind: "changeGroup", group, items: [f1], out: false },
  { kind: "duplicateGroup", group, as: 44 },
  {
    kind: "setGroup",
    group,
    colour: "#ffb07a",
    sign: "sail",
    arrangement: { [f1]: { x: 1, y: 2 } },
    steps: { [f1]: 2 },
  },
  { kind: "orderGroups", groups: [later, group] },
  { kind: "recordPalette", number: 8, name: "Ember", width: "any", entries: { [key]: entry }, only: ["Intensity"] },
  { kind: "recordPalette", number: 1, entries: { [key]: { attribute: "Dimmer", value: { palette: spare } } } },
  { kind: "updatePalette", palette: first, type: true },
  { kind: "setPalette", palette: first, name: "Glow", number: 30, colour: "#ffb07a", shelf: false },
  { kind: "referPalette", palette: first, fixture: f2 },
  { kind: "exceptPalette", palette: first, items: [f2], own: true },
  { kind: "foldPalette", palette: first },
  { kind: "widenPalette", palette: first, width: "any" },
  { kind: "writePalette", palette: first, values: { [key]: { attribute: "Dimmer", value: 33 } }, type: false },
  { kind: "hardenCue", list: fourth, cue: linkedCue, palette: first },
  { kind: "startPalettes", families: ["Focus"] },
  { kind: "startGroups" },
  { kind: "dropLinks", palette: numbered(12), to: numbered(9) },
  { kind: "orderPalettes", palettes: [spare, first] },
  { kind: "shelvePalettes", palettes: [spare, first] },
  { kind: "deletePalette", palette: first },
  { kind: "replacePalette", palette: first, by: spare, merge: true },
  { kind: "recordEffect", number: 7, name: "Fall", cast: true, voices: [voice], items: [f1, f2], overwrite: true },
  { kind: "updateEffect", effect: walked },
  { kind: "setEffect", effect: risen, name: "Up", number: 9, colour: "#ffb07a", rate: 50, cast: [f1] },
  { kind: "setVoice", effect: risen, key: 1, voice: start.show.effects[walked]!.voices[0]!.voice },
  { kind: "setVoice", effect: walked, voice },
  { kind: "dropVoice", effect: walked, key: 1 },
  { kind: "muteVoices", effect: risen, keys: [1] },
  { kind: "deleteEffect", effect: risen },
  { kind: "playEffect", list: 5, effect: risen },
  {
    kind: "recordWave",
    name: "Dip",
    points: [
      [0, 100],
      [50, 0],
    ],
    join: "smooth",
    second: [[0, 50]],
    wave: tip,
  },
  { kind: "deleteWave", wave: tip },
  {
    kind: "copyCue",
    list,
    cue,
    thru: second,
    toList: 9,
    to: 7,
    bring: "seen",
    elsewhere: "defaults",
    onto: "overwrite",
    looks: "track",
  },
  { kind: "writeCue", list, cue, values: { [key]: entry }, unset: [`${f2}.0.Dimmer`], looks: "cueonly" },
  { kind: "hold", values: { [key]: { attribute: "Dimmer", effect: { plays: voice, at: 0, of: 1 } } } },
  { kind: "hold", values: { [key]: { attribute: "Dimmer", value: { palette: first } } } },
  { kind: "hold", values: { [key]: entry }, says: "holds" },
  { kind: "drop", keys: [key] },
  { kind: "keepOut", keys: [key], out: true },
  { kind: "clear" },
  { kind: "blind", on: true },
  { kind: "highlight", on: true },
  { kind: "identify", items: [f1] },
  { kind: "correctHang", fixtures: [mover] },
  { kind: "park", values: { [key]: entry } },
  { kind: "unpark", keys: [key] },
  { kind: "arm", list: other },
  { kind: "patch", count: 2, type: "dimmer", mode: "standard", from: 100, at: { universe: 5, slot: 1 }, name: "New" },
  { kind: "patch", count: 5, type: "petrel-spot", at: "auto", name: "Mast" },
  { kind: "address", fixtures: [f1, f2], at: { universe: 3, slot: 500 } },
  { kind: "unpatch", fixtures: [f1] },
  { kind: "renumber", fixtures: [f1, f2], from: 200 },
  {
    kind: "setFixtures",
    changes: {
      [f1]: {
        number: 300,
        name: "One",
        addresses: [{ universe: 7, slot: 9 }],
        place: { x: 1, y: 2, z: 3 },
        turn: { x: 1, y: 2, z: 3 },
        invertPan: true,
        swap: true,
        scale: 90,
        correct: { pan: 1, tilt: 2 },
        note: "gel",
      },
    },
    says: "sets",
  },
  {
    kind: "setFixtures",
    changes: {
      [f1]: {
        curve: {
          points: [
            [0, 10],
            [50, 60],
            [100, 90],
          ],
        },
        preheat: 8,
        outOfService: true,
        position: "Mast",
        uuid: "6F8C2A54-9C1B-4E0E-8B51-0A2E5D6C7B81",
      },
    },
    says: "sets",
  },
  { kind: "remove", fixtures: [f2] },
  { kind: "swapType", fixtures: [f1, f2], type: "kelp-wash", mode: "standard", at: { universe: 8, slot: 400 } },
  { kind: "swapType", fixtures: [f1], type: "tide-bar", at: "keep" },
  { kind: "duplicateFixtures", fixtures: [f1, f2], from: 700, at: { universe: 9, slot: 500 } },
  { kind: "copyProgramming", from: f1, to: [f2] },
  { kind: "putType", type: { ...libraryType("dimmer")!, model: "Changed" } },
  { kind: "putType", type: own },
  { kind: "removeType", type: "kelp-wash" },
  {
    kind: "bringFrom",
    show: start.show,
    picks: { palette: [first, spare], effect: [risen], list: [list], page: Object.keys(start.show.pages) },
    cues: { list, cues: [cue], into: 6 },
    fixtures: { [f1]: f2, [f2]: f1 },
    clash: "beside",
  },
  { kind: "copyUniverse", from: 1, to: 9 },
  { kind: "unpatchUniverse", universe: 1 },
  { kind: "setOutputs", universes: [1, 2], output },
  { kind: "setWire", wire: { source: "Barge", from: "", lost: { after: 3, over: 4 } } },
  {
    kind: "bringParts",
    groups: [{ name: "Bridge", numbers: [1, 2, 11] }],
    points: [{ name: "Centre", at: { x: 1, y: 2, z: 0 }, numbers: [11] }],
    as: "aim",
  },
  {
    kind: "importFixtures",
    rows: [
      {
        updates: null,
        fixture: {
          number: 400,
          type: "dimmer",
          mode: "standard",
          addresses: [{ universe: 11, slot: 3 }],
          name: "In",
          note: "x",
          scale: 50,
        },
      },
      { updates: f1, fixture: { number: 1, type: "dimmer", mode: "standard", addresses: [] } },
    ],
  },
  { kind: "drawScenic", piece: truss },
  { kind: "drawScenic", piece: truss, id: drawn },
  { kind: "eraseScenic", name: "Mast" },
  {
    kind: "recordCue",
    list: 1,
    cue: 5.5,
    name: "Tide",
    times: { up: 1, down: 2, delayUp: 3, delayDown: 4 },
    trigger: { kind: "auto", after: 2 },
    onto: "merge",
    looks: "cueonly",
    entries: { [key]: entry },
  },
  { kind: "recordCue", list: 3, cue: 1, empty: true },
  { kind: "updateCue", list, cue, all: true, looks: "cueonly" },
  { kind: "takeCue", list, cue, all: true },
  { kind: "recordSteps", list: 1, from: 40, fade: 2, others: "out" },
  {
    kind: "setCue",
    list,
    cue,
    name: "Tide",
    note: "bell",
    times: { up: 3, down: 2, delayUp: 1, delayDown: 0 },
    trigger: { kind: "autoDone", after: 1 },
    reach: { upTo: 2 },
    fresh: true,
    assert: true,
    family: { name: "Position", delay: 2, fade: 3 },
  },
  { kind: "setCue", list, cue, reach: { cue: second } },
  {
    kind: "setCue",
    list,
    cue,
    curve: "early",
    then: second,
    runs: "go list 1",
    meant: [f1],
    blackMoves: { on: false, fixtures: [f1] },
    ready: true,
  },
  { kind: "clean", list, cue, thru: second },
  { kind: "signOff", list, cue, thru: second },
  { kind: "dropSignature", list, cue: second },
  { kind: "bringBack", list, cue: second },
  { kind: "duplicateList", list, as: 9 },
  { kind: "deleteList", list },
  { kind: "deleteCue", list, cue, keepLooks: true },
  { kind: "blockCue", list, cue: second },
  { kind: "unblockCue", list, cue: second },
  { kind: "moveCue", list, cue, to: 8, keepLooks: true },
  { kind: "renumberCues", list, from: 10, step: 0.5 },
  {
    kind: "setList",
    list,
    change: {
      name: "Main",
      htp: true,
      letGo: true,
      bowOut: true,
      resume: true,
      priority: 3,
      backTime: 1,
      releaseTime: 2,
      end: "wrap",
      wrapDrop: false,
      blackMoves: false,
      blackTime: 2,
      ready: true,
    },
  },
];

const NUMBERS = [
  0,
  -1,
  1,
  0.0004,
  0.001,
  17,
  100,
  101,
  200,
  201,
  512,
  513,
  4097,
  5001,
  63_999,
  64_000,
  86_400,
  86_401,
  999_998,
  999_999,
  1_000_000,
  1e12,
  Number.MAX_SAFE_INTEGER,
  1e300,
  Infinity,
  NaN,
];
const TEXTS = [
  "",
  " ",
  "a".repeat(63),
  "a".repeat(199),
  "a".repeat(200),
  "a".repeat(201),
  "n".repeat(2001),
  "é".repeat(40),
  "\ud800",
  "🎭",
  "__proto__",
  "constructor",
  "toString",
  "f1",
  "f999",
  "c999",
  'quote " and \\ \n',
  "1",
  "224.0.0.1",
];

/** Every version of a value with one leaf at or past a limit. */
function* mutants(value: unknown): Generator<unknown> {
  if (typeof value === "number") yield* NUMBERS;
  else if (typeof value === "string") yield* TEXTS;
  else if (typeof value === "boolean") yield !value;
  else if (Array.isArray(value)) {
    yield [];
    yield Array.from({ length: 17 }, (_, i) => value[i % Math.max(1, value.length)]);
    for (const [i, part] of value.entries())
      for (const made of mutants(part)) yield value.map((v, k) => (k === i ? made : v));
  } else if (typeof value === "object" && value !== null) {
    for (const [name, part] of Object.entries(value)) {
      for (const made of name === "kind" ? [] : mutants(part)) yield { ...value, [name]: made };
      const { [name]: gone, ...rest } = value as Record<string, unknown>;
      void gone;
      if (name !== "kind") yield rest;
      if (/^[fgcl]\d/.test(name))
        for (const other of ["constructor", "__proto__", "f999.0.Dimmer", "f1.0.constructor"])
          yield { ...rest, [other]: part };
    }
  }
}

const saved = (world: World): string => canonical(world);
/** The world as it comes back from a file, or from storage. */
function loaded(world: World, file = false): string {
  const show = file ? readShowFile(writeShowFile(world.show)) : readShow(JSON.parse(JSON.stringify(world.show)));
  if (isRefusal(show)) throw new Error(`does not open again: ${refusalText(show)}`);
  return canonical({ show, hands: HandsSchema.parse(JSON.parse(JSON.stringify(world.hands))) });
}

/** Applies an intent; where it is done, the show must open again and be the same. */
function tryOut(world: World, intent: Intent): World {
  const done = applyIntents(INTENTS, world, [intent]);
  if (isRefusal(done)) {
    const said = refusalText(done);
    if (said.length < 10 || /undefined|\[object|NaN /.test(said)) throw new Error(`refused without words: ${said}`);
    return world;
  }
  return done.world;
}

test("there is a sample of every kind of intent", () => {
  const kinds = new Set(SAMPLES.map((s) => s.kind));
  expect([...INTENTS.keys()].filter((kind) => !kinds.has(kind))).toEqual([]);
});

/** What carries a whole show is tried as it is. */
const OF_A_SHOW = new Set(["restoreShow", "fromVersion"]);

/** The mutants of an intent; a show that it carries along stays as it is. */
function* variants(sample: Intent): Generator<unknown> {
  const { show, ...rest } = sample;
  for (const made of mutants(rest)) yield show === undefined ? made : { ...(made as object), show };
}

let tried = 0;
let accepted = 0;
afterAll(() =>
  report("limits of every intent", {
    kinds: INTENTS.size,
    tried,
    accepted,
    refused: tried - accepted,
    "opened not again": 0,
  }),
);

test.each(SAMPLES.map((sample, i) => [`${i + 1} ${sample.kind}`, sample] as const))(
  "at and past each limit: %s",
  (_, sample) => {
    let done = 0;
    // All of them by `npm run attack`; one in seven, spread over all fields and limits, in every test run.
    const given = OF_A_SHOW.has(sample.kind)
      ? [sample]
      : [sample, ...[...variants(sample)].filter((_, i) => i % times(7, 1) === 0)];
    for (const mutant of given) {
      const after = tryOut(start, mutant as Intent);
      tried += 1;
      if (after === start) continue;
      done += 1;
      accepted += 1;
      try {
        expect(loaded(after)).toBe(saved(after));
      } catch (error) {
        throw new Error(`${JSON.stringify(mutant).slice(0, 400)}: ${(error as Error).message}`);
      }
    }
    expect(done).toBeGreaterThan(0);
  },
);

test("any sequence of intents near their limits leaves a show that opens again", () => {
  const near = SAMPLES.filter((s) => !OF_A_SHOW.has(s.kind)).flatMap((s) => [
    s,
    s,
    s,
    ...[...variants(s)].slice(0, 80),
  ]) as Intent[];
  fc.assert(
    fc.property(fc.array(fc.nat(near.length - 1), { maxLength: 30 }), (picks) => {
      const world = picks.reduce((now, pick) => tryOut(now, near[pick]!), start);
      expect(loaded(world, true)).toBe(saved(world));
    }),
    { numRuns: times(24, 1000) },
  );
});

test.each([
  [`patch 5 petrel-spot name "${"n".repeat(199)}"`, /longer than 200/],
  ["patch 5 petrel-spot as 999998", /999,999/],
  ["1 thru 3 renumber 999998", /999,999/],
  ["renumber list 1 from 999999 step 1", /999,999/],
  ["record cue 9 fade 90000", /86,400/],
  ["set cue 1 position fade 1000000", /86,400/],
  [`1 thru 3 name "${"n".repeat(199)}"`, /longer than 200/],
])("refused in words: %s", (line, words) => {
  const desk = newDesk(start);
  expect(refusalText(runLine(desk, line)!)).toMatch(words);
  expect(desk.world).toBe(start);
});

test("copying a universe over and over, and patching more than a show may hold, stop in words", () => {
  const desk = newDesk(start);
  const copies = Array.from({ length: 18 }, (_, i) => runLine(desk, `universe 1 copy to ${20 + i}`));
  expect(copies.filter((r) => !r)).toHaveLength(15);
  expect(copies.at(-1)!.what).toMatch(/more than 16 addresses/);
  const one = start.show.fixtures[f1]!;
  const many = Array.from({ length: 19_990 }, (_, i) => ({
    ...one,
    id: `f${1000 + i}`,
    number: 1000 + i,
    addresses: [],
  }));
  const full: World = {
    ...start,
    show: {
      ...start.show,
      nextId: 30_000,
      fixtures: { ...start.show.fixtures, ...Object.fromEntries(many.map((f) => [f.id, f])) },
    },
  };
  expect(isRefusal(applyIntents(INTENTS, full, [{ kind: "patch", count: 4, type: "dimmer", at: "unpatched" }]))).toBe(
    false,
  );
  const over = applyIntents(INTENTS, full, [{ kind: "patch", count: 6, type: "dimmer", at: "unpatched" }]);
  expect(isRefusal(over) && over.what).toMatch(/20,001 fixtures; 20,000 is the most/);
});
