/** Catches an effect that is not a column like any other: one wave on one attribute, tracked, faded, stopped, kept and explained. */
import { newDesk, performOn, runLine, wait, type Desk } from "../desk/desk";
import { recordCue } from "../cue/intents/recordIntents";
import { ripple } from "../cue/looks";
import { storedIn, inForceAt } from "../cue/tracking";
import { setWorld } from "./edit/edit";
import { advance } from "./lists/due";
import { compute, createPlayer } from "./player";
import { restorePlay, savePlay } from "./keep/saved";
import { readSaved } from "./keep/savedSchema";
import { whyOf } from "./why";
import { isRefusal } from "../show/refusal";
import { readShow } from "../show/checking/check";
import type { WaveVoice } from "../show/effectSchema";
import { NO_SPREAD } from "../show/spreadSchema";
import type { Effect, Entry } from "../show/value";
import { stageTime } from "../units/units";

const wave = (change: Partial<WaveVoice> = {}): Effect => ({
  plays: {
    attribute: "Dimmer",
    wave: "triangle",
    range: { low: 20, high: 80 },
    bpm: 30,
    across: 360,
    start: 0,
    width: 100,
    direction: "forward",
    spread: NO_SPREAD,
    ...change,
  },
  at: 0,
  of: 1,
});
const WAVE = wave();
const key = (desk: Desk, number = 1) =>
  `${Object.values(desk.world.show.fixtures).find((f) => f.number === number)!.id}.0.Dimmer`;
const run = (desk: Desk, ...lines: string[]) => {
  for (const line of lines) expect(runLine(desk, line)).toBeUndefined();
};
const store = (desk: Desk, cue: number, entry: Partial<Entry>, fade = 0, number = 1) =>
  expect(
    performOn(desk, {
      intents: [
        recordCue.of({
          list: 1,
          cue,
          times: { up: fade, down: fade, delayUp: 0, delayDown: 0 },
          entries: { [key(desk, number)]: { attribute: "Dimmer", ...entry } },
        }),
      ],
      events: [],
    }),
  ).toBeUndefined();
const level = (desk: Desk, number = 1) => desk.player.stage.value[desk.player.rig.index.get(key(desk, number))!]!;

/** A wave in cue 1 over a value of 50, a value for another fixture in cue 2, the stop in cue 3. */
function show(fade = 0): Desk {
  const desk = newDesk();
  run(desk, "patch 2 dimmer as 1 at 1:1");
  store(desk, 1, { value: 50, effect: WAVE }, fade);
  store(desk, 2, { value: 70 }, 0, 2);
  store(desk, 3, { effect: { stop: true } }, fade);
  return desk;
}

test("a wave runs from its go, tracks through a later cue without starting anew, and its stop leaves the value", () => {
  const desk = show();
  run(desk, "go");
  const seen: number[] = [];
  for (let i = 0; i < 8; i++, wait(desk, 0.25)) seen.push(level(desk));
  expect(seen.map((v) => Math.round(v * 1e6) / 1e6)).toEqual([20, 35, 50, 65, 80, 65, 50, 35]);
  wait(desk, 0.5);
  run(desk, "go");
  expect(level(desk)).toBeCloseTo(50);
  wait(desk, 0.25);
  expect(level(desk)).toBeCloseTo(65);
  run(desk, "go");
  expect(level(desk)).toBeCloseTo(50);
  wait(desk, 10);
  expect(level(desk)).toBeCloseTo(50);
  expect(desk.player.layers.role.some((role, at) => role === 3 && desk.player.layers.head.includes(at))).toBe(false);
});

test("it fades in and out with its cue, over the value beneath", () => {
  const desk = show(2);
  run(desk, "go");
  // Half in: the value at 25 of 0..50 by its own mix, and the wave at its height mixed by half.
  wait(desk, 1);
  expect(level(desk)).toBeCloseTo(25 + (80 - 25) * 0.5);
  wait(desk, 3);
  expect(level(desk)).toBeCloseTo(20);
  run(desk, "go list 1 cue 3");
  wait(desk, 1);
  expect(level(desk)).toBeCloseTo(50 + (80 - 50) * 0.5);
  wait(desk, 1);
  expect(level(desk)).toBeCloseTo(50);
});

test("ticks do not matter, a pause holds it, the list's rate does not, and its level scales it", () => {
  const [often, once] = [show(), show()];
  for (const desk of [often, once]) run(desk, "go", "rate list 1 at 300");
  for (let i = 0; i < 37; i++) wait(often, 0.1);
  wait(once, 3.7);
  expect(level(often)).toBeCloseTo(level(once), 9);
  expect(level(once)).toBeCloseTo(20 + 60 * 0.3);
  run(once, "pause list 1");
  wait(once, 0.9);
  expect(level(once)).toBeCloseTo(20 + 60 * 0.3);
  run(once, "go", "level list 1 at 50");
  expect(level(once)).toBeCloseTo((20 + 60 * 0.3) / 2);
});

test("a later list hides it, its own does not; release takes it along", () => {
  const desk = show();
  run(desk, "1 at 90", "record list 2 cue 1 fade 0", "clear", "go", "go list 2");
  wait(desk, 0.3);
  expect(level(desk)).toBeCloseTo(90);
  run(desk, "release list 2");
  wait(desk, 2);
  expect(level(desk)).toBeCloseTo(20 + 60 * 0.3);
  run(desk, "set list 1 releasetime 0", "release list 1");
  expect(level(desk)).toBe(0);
});

test("saved and opened again it goes on in its cycle; an edit of its speed does not jump", () => {
  const desk = show();
  run(desk, "go");
  wait(desk, 0.6);
  const saved = readSaved(JSON.stringify(savePlay(desk.player)))!;
  const again = createPlayer(desk.world, stageTime(saved.now));
  restorePlay(again, saved);
  for (const player of [again, desk.player]) {
    advance(player, stageTime(1.1));
    compute(player);
  }
  expect([...again.frame]).toEqual([...desk.player.frame]);
  const before = level(desk);
  desk.time = stageTime(1.1);
  const { show: now } = desk.world;
  const list = Object.values(now.lists)[0]!;
  const cue = Object.values(list.cues).find((c) => c.number === 1)!;
  const faster = {
    ...cue,
    entries: { [key(desk)]: { attribute: "Dimmer", value: 50, effect: wave({ bpm: 60 }) } },
  };
  const edited = { ...now, lists: { [list.id]: { ...list, cues: { ...list.cues, [cue.id]: faster } } } };
  setWorld(desk.player, { ...desk.world, show: edited });
  compute(desk.player);
  expect(level(desk)).toBeCloseTo(before);
  wait(desk, 0.2);
  // 0.55 of the cycle and 0.2 more.
  expect(level(desk)).toBeCloseTo(20 + 60 * (2 - 2 * 0.75));
});

test("looks, ripple, tracking, files and Why know it", () => {
  const desk = show();
  const list = () => Object.values(desk.world.show.lists)[0]!;
  expect(inForceAt(storedIn(list()), key(desk), 1, false, "effect")?.at).toBe(0);
  expect(inForceAt(storedIn(list()), key(desk), 2, false, "effect")).toBeUndefined();
  const before = desk.world.show;
  store(desk, 1, { effect: wave({ range: { low: 20, high: 90 } }) });
  const numbers = ripple(before, desk.world.show).map((r) => list().cues[r.cue]!.number);
  expect(numbers).toEqual([2]);
  expect(isRefusal(readShow(JSON.parse(JSON.stringify(desk.world.show))))).toBe(false);
  run(desk, "go");
  wait(desk, 1);
  expect(whyOf(desk.player, key(desk))!.steps.map((s) => [s.what, s.value])).toEqual([
    ["default", 0],
    ["list", 50],
    ["effect", 90],
  ]);
  expect(runLine(desk, "undo")).toBeUndefined();
  expect(level(desk)).toBeCloseTo(80);
});
