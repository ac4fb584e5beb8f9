/** Catches what falls back, starts anew or never comes when another engine goes on: after a crash, a reload, a hand-over. */
import { readLine } from "@/core/command/read";
import { contextOf, newDesk, runLine, wait } from "@/core/desk/desk";
import { play as performPlay } from "@/core/play/lists/act";
import type { PlayEvent } from "@/core/play/events";
import { isRefusal } from "@/core/show/refusal";
import type { World } from "@/core/show/world";
import { startWorker } from "@tests/setup/engine";
import { CLOCK_EVERY_MS, type Running } from "./messages";

const RIG = ["patch 4 kelp-wash as 1 at 1:1", "record list 9 cue 1 empty"];
const TWO = ["1 thru 4 at 20 pan at 10", "record list 2 cue 1 fade 3", "1 thru 4 at 80 pan at -40"];

const STILL = "a morph by hand";

/** What is set up, what is played, and the seconds into it at which the engine goes. */
const KINDS: [what: string, sets: string[], plays: string[], end: number][] = [
  ["a fade", [...TWO, "record list 2 cue 2 fade 10", "clear"], ["go list 2", "go list 2"], 4],
  ["a still look that waits for its follow", [...TWO, "record list 2 cue 2 fade 1 auto 12", "clear"], ["go list 2"], 9],
  [
    "a still look that waits for timecode",
    [...TWO, "record list 2 cue 2 fade 1", "set list 2 timecode on", "set list 2 cue 2 at 0:00:10", "clear"],
    ["go list 2 cue 1", "timecode run"],
    7,
  ],
  [
    "a chase",
    [...TWO, "record list 2 cue 2", "set list 2 kind chase", "set list 2 bpm 40", "clear"],
    ["go list 2"],
    5.2,
  ],
  [
    "a chase of one still step in four seconds",
    [...TWO, "record list 2 cue 2", "set list 2 kind chase", "set list 2 bpm 15", "set list 2 share 0", "clear"],
    ["go list 2"],
    11,
  ],
  [
    "a tapped chase",
    [...TWO, "record list 2 cue 2", "set list 2 kind chase", "clear"],
    ["go list 2", "tap list 2", "wait 2", "tap list 2"],
    7,
  ],
  [
    "a submaster on its way",
    [...TWO, "record list 2 cue 1", "set list 2 kind submaster", "clear"],
    ["level list 2 at 100 over 8"],
    3,
  ],
  [STILL, [...TWO, "record list 2 cue 2", "set list 2 kind morph", "clear"], ["level list 2 at 35"], 6],
  [
    "a limiter on its way",
    [...TWO, "record list 2 cue 2", "record list 3 cue 1", "set list 3 kind limiter", "clear"],
    ["go list 2", "grand at 30 over 9"],
    4,
  ],
  [
    "a crossfade by hand",
    [...TWO, "record list 2 cue 2", "set list 2 fader crossfade", "clear"],
    ["go list 2 cue 1", "wait 5", "level list 2 at 45"],
    9,
  ],
  ["a held wave", ["1 thru 4 at full", "1 thru 4 tilt wave sine low -30 high 30 bpm 13"], [], 5],
  [
    "an effect of a list",
    ["1 thru 4 Dimmer wave sine low 0 high 100 bpm 17 across 180", "record list 2 cue 1", "clear"],
    ["go list 2"],
    6.3,
  ],
  [
    "a list at half its pace, paused and gone on with",
    [...TWO, "record list 2 cue 2 fade 6", "clear"],
    ["go list 2 cue 1", "wait 4", "rate list 2 at 50", "go list 2", "pause list 2", "wait 3", "go list 2"],
    2,
  ],
  [
    "a macro that waits",
    [...TWO, "record list 2 cue 2", 'record macro 1 "Later" "go list 2 cue 1" "wait 9" "go list 2"', "clear"],
    ["macro 1"],
    6,
  ],
  [
    "a move in the dark",
    [
      "1 at 50 pan at 100",
      "record list 2 cue 1",
      "1 at 0",
      "record list 2 cue 2",
      "1 at 50 pan at -100",
      "record list 2 cue 3",
      "set list 2 blackmoves on",
      "set list 2 blacktime 2",
      "clear",
    ],
    ["go list 2 cue 1", "wait 3", "go list 2"],
    2.5,
  ],
];
const LATER = [0.1, 2, 4.5, 9, 15];

function prepared(sets: readonly string[]) {
  const desk = newDesk();
  for (const line of [...RIG, ...sets]) {
    const refusal = runLine(desk, line);
    if (refusal) throw new Error(`${line}: ${refusal.what}`);
  }
  return desk;
}

type Engine = Awaited<ReturnType<typeof startWorker>>;

/** Plays lines; a wait passes. @returns the seconds that passed. */
function play(
  world: World,
  lines: readonly string[],
  event: (event: PlayEvent) => void,
  pass: (seconds: number) => void,
) {
  const context = contextOf(newDesk(world));
  let passed = 0;
  for (const line of lines) {
    const wait = /^wait (.+)$/.exec(line);
    if (wait) {
      pass(Number(wait[1]));
      passed += Number(wait[1]);
      continue;
    }
    const macro = line === "macro 1" ? Object.values(world.show.macros)[0] : undefined;
    const read = readLine(macro ? macro.lines[0]! : line, context);
    if (!read || isRefusal(read) || read.events.length === 0) throw new Error(`${line} does not play`);
    for (const one of read.events) event(one);
    if (macro) event({ kind: "later", after: 9, macro: 1, lines: macro.lines.slice(2) });
  }
  return passed;
}

/** The bytes some seconds later, each time, with few ticks in between. */
const after = (pass: (seconds: number) => void, bytes: () => ArrayLike<number>): number[][] =>
  LATER.map((t, i) => (pass(t - (LATER[i - 1] ?? 0)), Array.from(bytes())));

/** What a window keeps of what an engine says. */
const keptOf = ({ said }: Engine): Running =>
  said.reduce<Running>(
    (kept, message) =>
      message.kind === "saved"
        ? { saved: message.saved, now: 0 }
        : message.kind === "clock"
          ? { ...kept, now: message.now }
          : kept,
    { saved: "", now: 0 },
  );

/** One worker for all: it is opened anew where another engine would be. */
let engine: Engine;
beforeAll(async () => void (engine = await startWorker()));

test.each(KINDS)("%s goes on where it was", async (what, sets, plays, end) => {
  const { world } = prepared(sets);
  engine.said.length = 0;
  engine.open(world);
  const passed = play(world, plays, engine.event, (seconds) => engine.pass(seconds * 1000));
  engine.pass(end * 1000);
  const kept = keptOf(engine);
  const { now } = JSON.parse(kept.saved) as { now: number };
  const lag = passed + end - Math.max(now, kept.now);
  // A clock that is told no more falls back without bound; where nothing counts nobody misses it.
  if (what !== STILL) expect(lag).toBeLessThanOrEqual((CLOCK_EVERY_MS + 50) / 1000);
  const whole = newDesk(world);
  play(
    world,
    plays,
    (event) => void performPlay(whole.player, event, whole.time),
    (seconds) => wait(whole, seconds),
  );
  wait(whole, end - lag);
  const meant = after(
    (seconds) => wait(whole, seconds),
    () => whole.player.frame,
  );
  engine.open(world, kept);
  const went = after((seconds) => engine.pass(seconds * 1000, 100), engine.bytes);
  const others = went.map((bytes, i) =>
    bytes.flatMap((byte, k) => (Math.abs(byte - meant[i]![k]!) > 1 && !isFine(k + 1) ? [k + 1] : [])),
  );
  expect(others).toEqual(LATER.map(() => []));
});

/** Slots of fine bytes of this rig: a unit in 65,535 turns them over. */
const isFine = (slot: number): boolean => [2, 4].includes(((slot - 1) % 12) + 1);
