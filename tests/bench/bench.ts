/**
 * The engine under load, as ratios against a bare loop over arrays of the same size in the same run.
 * Run by `npm run bench`; never a test, since clocks differ.
 */
import { ripple } from "@/core/cue/looks";
import { allInForce, storedIn } from "@/core/cue/tracking";
import { newDesk, runLine } from "@/core/desk/desk";
import { play } from "@/core/play/lists/act";
import { setWorld } from "@/core/play/edit/edit";
import { workOff } from "@/core/play/arrive/arrive";
import { compute, createPlayer, setClocks } from "@/core/play/player";
import { prepareLists, preparing } from "@/core/play/arrive/prepare";
import type { Player } from "@/core/play/state";
import { compileRig } from "@/core/play/stage/rig";
import { applyIntents } from "@/core/show/change/intent";
import { INTENTS } from "@/core/intents";
import { hold } from "@/core/program/intents";
import { isRefusal } from "@/core/show/refusal";
import type { World } from "@/core/show/world";
import { stageTime } from "@/core/units/units";
import {
  allocatedInTick,
  clock,
  cueOf,
  goAll,
  listOf,
  measure,
  rigOf,
  stats,
  ticks,
  worldOf,
  type Stats,
} from "./parts";

/** Interpolation and quantisation over flat arrays, nothing else. */
function bareLoop(n: number): Stats {
  const [from, to, value] = [new Float64Array(n), new Float64Array(n), new Float64Array(n)];
  const bytes = new Uint8Array(n);
  for (let i = 0; i < n; i++) to[i] = i % 101;
  const pass = (share: number) => {
    for (let i = 0; i < n; i++) {
      const v = from[i]! + (to[i]! - from[i]!) * share;
      value[i] = v;
      bytes[i] = v * 2.55 + 0.5;
    }
  };
  for (let i = 0; i < 200; i++) pass(i / 200);
  return measure(400, (i) => pass(i / 400));
}

/** As many mixes over each other on every parameter, each by the share of one of 40 lists, and nothing else. */
function bareMixes(n: number, depth: number): Stats {
  const [value, target, which] = [new Float64Array(n), new Float64Array(n * depth), new Int32Array(n * depth)];
  const shares = new Float64Array(40);
  const bytes = new Uint8Array(n);
  for (let k = 0; k < n * depth; k++) [target[k], which[k]] = [k % 101, (k * 7) % 40];
  const pass = (share: number) => {
    for (let l = 0; l < 40; l++) shares[l] = share / (l + 1);
    for (let i = 0, k = 0; i < n; i++) {
      let v = 10;
      for (const stop = k + depth; k < stop; k++) v += (target[k]! - v) * shares[which[k]!]!;
      value[i] = v;
      bytes[i] = v * 2.55 + 0.5;
    }
  };
  for (let i = 0; i < 100; i++) pass(i / 100);
  return measure(200, (i) => pass(i / 200));
}

const rows: string[] = [];
const ms = (v: number) => `${v < 0.1 ? v.toFixed(4) : v.toFixed(2)} ms`;
const row = (what: string, s: Stats, bare?: Stats) =>
  rows.push(
    `| ${what} | ${ms(s.median)} | ${ms(s.p99)} | ${bare ? `${(s.median / bare.median).toFixed(2)} / ${(s.p99 / bare.p99).toFixed(2)}` : ""} |`,
  );

/** 2,000 cues over 6,400 parameters. */
function longShow() {
  const small = rigOf(100);
  const keys = compileRig(small).keys;
  const cues = Array.from({ length: 2000 }, (_, c) =>
    cueOf(
      c + 1,
      2,
      keys.filter((_, i) => (i + c) % 40 === 0),
      (i) => (i + c) % 101,
    ),
  );
  const world = worldOf(small, [listOf(1, cues)]);
  return { world, cues };
}
{
  // First of all, while nothing has run yet: as an engine meets it.
  const { world, cues } = longShow();
  const player = createPlayer(world);
  compute(player);
  prepareLists(world.show);
  const ready = preparing(world.show);
  while (!ready.next().done);
  player.inPieces = true;
  const jumps = Array.from({ length: 40 }, (_, i) =>
    jumpInPieces(player, cues[((i + 1) * 977) % 2000]!.id, 1 + i * 10),
  );
  for (const [what, some] of [
    ["the first jump an engine makes, into 2,000 cues", jumps.slice(0, 1)],
    ["39 more", jumps.slice(1)],
  ] as const) {
    row(`${what}: all of it`, stats(some.map((busy) => busy.reduce((a, b) => a + b, 0))));
    row(`${what}: longest without a tick`, stats(some.map((busy) => Math.max(...busy))));
  }
}

/** A jump as the engine's worker does it. @returns how long it is busy each time before a tick can come, milliseconds. */
function jumpInPieces(player: Player, cue: string, at: number): number[] {
  const busy: number[] = [];
  let since = clock();
  const piece = () => {
    const until = clock() + 8;
    const done = workOff(player, () => clock() < until);
    setClocks(player, stageTime(at));
    compute(player);
    const now = clock();
    busy.push(now - since);
    since = now;
    return done;
  };
  play(player, { kind: "go", list: "l1", cue }, stageTime(at));
  while (!piece());
  return busy;
}

const show = rigOf(2048);
const rig = compileRig(show);
const bare = bareLoop(rig.size);
row(`bare loop over ${rig.size.toLocaleString("en")} parameters`, bare);

{
  const player = createPlayer(
    worldOf(show, [listOf(1, [cueOf(1, 0, rig.keys, () => 10), cueOf(2, 1000, rig.keys, (i) => i % 101)])]),
  );
  goAll(player, 0);
  compute(player);
  goAll(player, 0.01);
  compute(player);
  ticks(player, 0.02, 200);
  row("everything in one fade", ticks(player, 6, 400), bare);
}
{
  const tenth = rig.keys.filter((_, i) => i % 10 === 0);
  const player = createPlayer(
    worldOf(show, [listOf(1, [cueOf(1, 0, rig.keys, () => 10), cueOf(2, 1000, tenth, (i) => i % 101)])]),
  );
  goAll(player, 0);
  compute(player);
  goAll(player, 0.01);
  compute(player);
  ticks(player, 0.02, 200);
  row("one in ten moving", ticks(player, 6, 400), bare);
  play(player, { kind: "go", list: "l1", cue: Object.keys(player.world.show.lists.l1!.cues)[0]! }, stageTime(20));
  ticks(player, 20, 10);
  row("nothing moving", ticks(player, 30, 400), bare);
}
{
  const desk = newDesk();
  for (const line of [
    "patch 100 kelp-wash as 1 at 1:1",
    "1 thru 100 at full pan at 90",
    "record cue 1 fade 80000",
    "clear",
    "1 thru 100 at 20",
    "record list 2 cue 1 fade 70000",
    "clear",
    "go list 1",
    "go list 2",
  ])
    runLine(desk, line);
  rows.push(
    `| allocated in a tick, two lists fading over each other | ${await allocatedInTick(desk.player)} bytes | | |`,
  );
}
{
  const lists = Array.from({ length: 40 }, (_, l) =>
    listOf(l + 1, [
      cueOf(
        1,
        100 + l,
        rig.keys.filter((_, i) => i % 8 === l % 8),
        (i) => (i * (l + 3)) % 101,
      ),
    ]),
  );
  const player = createPlayer(worldOf(show, lists));
  goAll(player, 0);
  compute(player);
  ticks(player, 0.1, 20);
  const mixes = bareMixes(rig.size, 5);
  row(`bare loop of ${(rig.size * 5).toLocaleString("en")} mixes`, mixes);
  row("40 lists overlapping, five fades on each parameter, against as many bare mixes", ticks(player, 2, 60), mixes);
}
{
  const { world, cues } = longShow();
  const player = createPlayer(world);
  compute(player);
  const build = measure(1, () => void storedIn(world.show.lists.l1!));
  row("first look at 2,000 cues", build);
  row(
    "state of any cue of 2,000",
    measure(60, (i) => void allInForce(world.show.lists.l1!, (i * 977) % 2000, world.show)),
  );
  row(
    "jump to any of 2,000 cues, stage computed",
    measure(60, (i) => {
      play(player, { kind: "go", list: "l1", cue: cues[(i * 977) % 2000]!.id }, stageTime(i * 10));
      compute(player);
    }),
  );
  const target = cues[700]!;
  const key = Object.keys(target.entries)[0]!;
  const edit = (value: number): World => {
    const list = world.show.lists.l1!;
    const cue = { ...target, entries: { ...target.entries, [key]: { attribute: key.split(".")[2]!, value } } };
    return { ...world, show: { ...world.show, lists: { l1: { ...list, cues: { ...list.cues, [cue.id]: cue } } } } };
  };
  row(
    "ripple of one edit in 2,000 cues",
    measure(20, (i) => void ripple(world.show, edit(i).show)),
  );
  row(
    "an edit reaching the running list",
    measure(20, (i) => {
      setWorld(player, edit(i + 30));
      compute(player);
    }),
  );
}
{
  const desk = newDesk();
  runLine(desk, "patch 100 kelp-wash as 1 at 1:1");
  row(
    "a typed line to changed bytes, without the two postings between threads (100 fixtures)",
    measure(60, (i) => void runLine(desk, `1 thru 100 at ${i}`)),
  );
}
{
  const player = createPlayer(worldOf(show, [listOf(1, [])]));
  compute(player);
  let world = player.world;
  row(
    "a drag on one fixture among 2,048, held to bytes",
    measure(60, (i) => {
      const done = applyIntents(INTENTS, world, [
        hold.of({ values: { "f10.0.Dimmer": { attribute: "Dimmer", value: i } } }),
      ]);
      if (isRefusal(done)) throw new Error(done.what);
      world = done.world;
      setWorld(player, world, ["f10.0.Dimmer"]);
      compute(player);
    }),
  );
}
{
  const kelp = newDesk();
  for (let i = 0; i < 4; i++) runLine(kelp, `patch 1000 kelp-wash as ${1 + i * 1000}`);
  row(
    "compile of 4,000 fixtures",
    measure(5, () => void compileRig({ ...kelp.world.show })),
  );
}
console.log(`| what | median | p99 | against the bare loop (median / p99) |\n|---|---|---|---|\n${rows.join("\n")}`);
