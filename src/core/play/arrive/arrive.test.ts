/** Catches an arrival that comes to something else when it is started in pieces with looks at the stage in between. */
import fc from "fast-check";
import { recordCue } from "../../cue/intents/recordIntents";
import { newDesk, performOn, runLine } from "../../desk/desk";
import { PLAIN_PHASING } from "../../effect/words";
import type { Effect } from "../../show/value";
import { fixturesByNumber } from "../../show/world";
import { stageTime } from "../../units/units";
import { play } from "../lists/act";
import { workOff } from "./arrive";
import { advance } from "../lists/due";
import type { PlayEvent } from "../events";
import { compute, createPlayer, setClocks } from "../player";
import type { Player } from "../state";
import { runs } from "@tests/setup/runs";

const desk = newDesk();
for (const line of [
  "patch 12 kelp-wash as 1",
  "1 thru 12 at full pan at 90 zoom at 10",
  "record cue 1 fade 4",
  "clear",
  "1 thru 12 at 10 to 90 pan at -90 colour at #ff2040",
  "record cue 2 fade 3 auto 2.3",
  "clear",
  "1 thru 6 pan at 50 tilt at 20",
  "3 thru 12 at 30",
  "record list 2 cue 1 fade 2.5",
  "clear",
  "1 thru 12 pan at 10 zoom at 40 strobe at 4",
  "record list 2 cue 2 fade 1",
  "clear",
])
  if (runLine(desk, line)) throw new Error(line);
// Some of it under a wave: cue 1 of list 1 starts it, cue 1 of list 2 another, cue 2 of list 2 stops that.
const wave = (low: number, high: number, bpm: number): Effect => ({
  plays: { ...PLAIN_PHASING, attribute: "Zoom", wave: "triangle", range: { low, high }, across: 0, bpm },
  at: 0,
  of: 1,
});
const effects: [number, number, Effect][] = [
  [1, 1, wave(10, 40, 20)],
  [2, 1, wave(15, 60, 33)],
  [2, 2, { stop: true }],
];
for (const [list, cue, effect] of effects)
  performOn(desk, {
    intents: [
      recordCue.of({
        list,
        cue,
        entries: Object.fromEntries(
          fixturesByNumber(desk.world.show)
            .slice(4, 9)
            .map(({ id }) => [`${id}.0.Zoom`, { attribute: "Zoom", effect }]),
        ),
      }),
    ],
    events: [],
  });
const lists = Object.values(desk.world.show.lists);
const [first, second] = lists as [(typeof lists)[0], (typeof lists)[0]];
const event = fc.constantFrom<PlayEvent>(
  ...lists.flatMap(({ id, cues }): PlayEvent[] => [
    { kind: "go", list: id },
    ...Object.keys(cues).map((cue): PlayEvent => ({ kind: "go", list: id, cue })),
    { kind: "back", list: id },
    { kind: "assert", list: id },
    { kind: "pause", list: id },
    { kind: "release", list: id },
    { kind: "level", list: id, value: 40 },
  ]),
);
const story = fc.array(fc.record({ event, wait: fc.integer({ min: 0, max: 1500 }) }), { minLength: 2, maxLength: 10 });

/** As the engine does: so many pieces, then the stage as it is by then. Returns whether something was left. */
function look(player: Player, at: number, pieces: number): boolean {
  let left = pieces;
  while (workOff(player, () => left-- > 0)) {
    advance(player, stageTime(at));
    if (!player.unfinished) break;
  }
  if (player.unfinished) setClocks(player, stageTime(at));
  compute(player);
  return player.unfinished !== undefined;
}

test("cut into pieces or whole, the stage is the same", () => {
  let left = 0;
  fc.assert(
    fc.property(story, fc.integer({ min: 20, max: 300 }), fc.integer({ min: 0, max: 2 }), (steps, every, pieces) => {
      const [whole, cut] = [createPlayer(desk.world), createPlayer(desk.world)];
      cut.inPieces = true;
      let time = 0;
      for (const { event: made, wait } of steps) {
        for (const player of [whole, cut]) play(player, made, stageTime(time));
        const end = time + wait / 1000;
        for (let t = time; t < end; t += every / 1000) if (look(cut, t, pieces)) left += 1;
        time = end;
      }
      advance(whole, stageTime(time));
      compute(whole);
      while (look(cut, time, 50));
      expect(cut.stage.value.every((v, i) => Math.abs(v - whole.stage.value[i]!) < 1e-6)).toBe(true);
      expect([...cut.frame]).toEqual([...whole.frame]);
      expect([...cut.runs.values()].map((r) => [r.cue, r.complete])).toEqual(
        [...whole.runs.values()].map((r) => [r.cue, r.complete]),
      );
      expect(cut.stage.waits.some((w) => w === 1)).toBe(false);
    }),
    {
      numRuns: runs(300),
      examples: [
        // Found at another seed: a look past what was due next had settled what that should still find.
        [
          [
            { event: { kind: "go", list: second.id, cue: Object.keys(second.cues)[0]! }, wait: 0 },
            { event: { kind: "go", list: first.id }, wait: 1301 },
            { event: { kind: "go", list: second.id }, wait: 400 },
            { event: { kind: "assert", list: first.id }, wait: 601 },
          ],
          200,
          1,
        ],
      ],
    },
  );
  expect(left).toBeGreaterThan(300);
});

test("one parameter that cannot be started is told of and holds up none of the others", () => {
  const player = createPlayer(desk.world);
  player.inPieces = true;
  const specs = [...player.rig.specs];
  const at = player.rig.index.get(`${fixturesByNumber(desk.world.show)[6]!.id}.0.Pan`)!;
  specs[at] = undefined as never;
  Object.assign(player.rig, { specs });
  expect(() => {
    play(player, { kind: "go", list: first.id }, stageTime(0));
    while (!workOff(player, () => true));
  }).toThrow();
  expect(player.unfinished).toBeUndefined();
  expect(player.stage.waits.some((w) => w === 1)).toBe(false);
  advance(player, stageTime(10));
  compute(player);
  const dimmer = player.rig.index.get(`${fixturesByNumber(desk.world.show)[0]!.id}.0.Dimmer`)!;
  expect(player.stage.value[dimmer]).toBeGreaterThan(0);
});
