/** Catches an intent whose line, typed, does something else. */
import fc from "fast-check";
import { COMMANDS, readLine } from "../command/read";
import { SETTINGS } from "../command/settings";
import { demoWorld } from "@tests/setup/demo";
import { hold } from "../program/intents";
import { diffOf, type Change } from "../show/change/diff";
import { isRefusal, refusalText } from "../show/refusal";
import { RELEASE, type Entry } from "../show/value";
import { allTargets } from "../show/model";
import type { ParamKey } from "../show/ids";
import { setFixtures } from "../patch/intents";
import { EMPTY_HISTORY } from "../show/change/history";
import type { World } from "../show/world";
import type { PlayEvent } from "../play/events";
import { contextOf, newDesk, runLine, type Desk } from "./desk";
import { perform } from "./perform";
import { linesOf } from "./lines";
import { runs } from "@tests/setup/runs";

const world = demoWorld();

function deskOf(from: World, ...lines: string[]): Desk {
  const desk = newDesk(from);
  for (const line of lines) {
    const refusal = runLine(desk, line);
    if (refusal) throw new Error(`${line}: ${refusalText(refusal)}`);
  }
  return desk;
}
const busy = deskOf(
  world,
  "patch 2 gannet-profile as 301 at 9:1",
  "sign off cue 2",
  "set cue 2 87 dimmer at 12",
  "1 palette 41",
  "1 zoom at 20",
  'record palette 99 "Blue spot" type',
  "clear",
  "21 thru 24 at 20",
  "1 thru 12 at full pan at 10 delay 0 to 2",
  "1 thru 3 tilt wave sine relative size 5",
  "3 palette 25",
  "3 pan at 12",
  "1 thru 12",
).world;
const desk = deskOf(busy, "go list 1");

/** Reads and does lines one after another on a world. */
function does(lines: readonly string[], from: World): { world: World; events: PlayEvent[] } {
  let now = from;
  const events: PlayEvent[] = [];
  for (const line of lines) {
    const read = readLine(line, { ...contextOf(desk), world: now });
    if (read === undefined) continue;
    const done = isRefusal(read) ? read : perform({ world: now, history: EMPTY_HISTORY }, read);
    if (isRefusal(done)) throw new Error(`${line}: ${refusalText(done)}`);
    now = done.world;
    events.push(...done.events);
  }
  return { world: now, events };
}

/** Numbers without the last digits: a spread worked out in another way may have others. */
const rounded = (of: unknown): string =>
  JSON.stringify(of, (_, value: unknown) => (typeof value === "number" ? Math.round(value * 1e9) / 1e9 : value)) ?? "";
const isNoise = ({ from, to }: Change): boolean => rounded(from) === rounded(to);

const changing = [...COMMANDS, ...SETTINGS].filter((c) => !["undo", "redo"].includes(c.example));

test.each(changing.map((c) => c.example))("%s", (example) => {
  const read = readLine(example, contextOf(desk));
  if (read === undefined || isRefusal(read)) throw new Error("not read");
  const lines = linesOf(busy, read.intents, read.events);
  const [once, again] = [does([example], busy), does(lines, busy)];
  // The selection before this one may be another.
  const apart = diffOf(once.world, again.world).filter((c) => c.path[1] !== "last" && !isNoise(c));
  expect({ lines, apart, events: again.events }).toEqual({ lines, apart: [], events: once.events });
});

test.each([
  ["1 thru 12 pan at -20 to 20", "pan at -20 to 20"],
  ["spread mirror 2", "1 thru 12 at 0 to 100 to 0 delay 0 to 3"],
  ["71 cells", "at 10 to 50"],
  ["1 thru 3 + 71 thru 72", "colour at #2ad1c9 at 35"],
  ["spread by centre", "all at 20 to 80"],
])("after %s: %s", (first, line) => {
  const before = does(["1 thru 12", first], busy).world;
  const read = readLine(line, { ...contextOf(desk), world: before });
  if (read === undefined || isRefusal(read)) throw new Error("not read");
  const lines = linesOf(before, read.intents);
  const [was, is] = [does([line], before).world.hands, does(lines, before).world.hands];
  expect(Object.keys(is.held).sort()).toEqual(Object.keys(was.held).sort());
  for (const [key, { attribute, value, time }] of Object.entries(was.held)) {
    expect(is.held[key]).toMatchObject({ attribute, ...(time ? { time } : {}) });
    if (typeof value === "number") expect(is.held[key]!.value).toBeCloseTo(value, 9);
    else expect(is.held[key]!.value).toEqual(value);
  }
  expect(is.selection).toEqual(was.selection);
  // What stands over the whole selection needs no SEL of each.
  expect(lines.length).toBeLessThanOrEqual(2);
});

test("any values of any fixtures, held at once", () => {
  const { show } = busy;
  const targets = Object.keys(show.fixtures)
    .slice(0, 60)
    .flatMap((id) => allTargets(show, id))
    .filter((t) => t.attribute === "Pan" || t.attribute === "Dimmer");
  const entry = fc.oneof(
    fc.double({ min: 1e-6, max: 100, noNaN: true }),
    fc.integer({ min: 0, max: 4 }).map((n) => n * 10),
    fc.constant(RELEASE),
  );
  const timing = fc.option(fc.record({ delay: fc.double({ min: 1e-6, max: 9, noNaN: true }) }), { nil: undefined });
  fc.assert(
    fc.property(fc.dictionary(fc.constantFrom(...targets.map((t) => t.key)), fc.tuple(entry, timing)), (drawn) => {
      const values: Record<ParamKey, Entry> = {};
      for (const [key, [value, time]] of Object.entries(drawn))
        values[key] = { attribute: key.split(".")[2]!, value, ...(time ? { time } : {}) };
      if (Object.keys(values).length === 0) return;
      const { hands } = does(linesOf(busy, [hold.of({ values })]), busy).world;
      for (const [key, made] of Object.entries(values)) expect(hands.held[key]).toEqual(made);
      expect(hands.selection).toEqual(busy.hands.selection);
    }),
    { numRuns: runs(100) },
  );
});

test("changes of fixtures, each its own", () => {
  const ids = Object.keys(world.show.fixtures).slice(0, 4);
  const intent = setFixtures.of({
    changes: {
      [ids[0]!]: { name: 'The "old" one', note: "", scale: 80 },
      [ids[1]!]: { scale: 80, number: 9001, addresses: [] },
      [ids[2]!]: { place: { x: 0.1, y: -1e-7, z: 5 }, swap: true, correct: { pan: 3.5, tilt: -1 } },
      [ids[3]!]: {
        invertPan: true,
        addresses: [
          { universe: 40, slot: 100 },
          { universe: 41, slot: 1 },
        ],
      },
    },
    says: "",
  });
  const done = perform({ world, history: EMPTY_HISTORY }, { intents: [intent], events: [] });
  expect(does(linesOf(world, [intent]), world).world.show).toEqual(isRefusal(done) ? done : done.world.show);
});
