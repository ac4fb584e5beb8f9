/**
 * A deck under load: 200 lists, 40 of them running at once, chases, morphs, timecode and lists by hand among them,
 * as ratios against a bare loop that mixes as many parameters in the same run. Run by `npm run bench`.
 */
import { play } from "@/core/play/lists/act";
import { advance } from "@/core/play/lists/due";
import { compute, createPlayer } from "@/core/play/player";
import { compileRig } from "@/core/play/stage/rig";
import type { CueList } from "@/core/show/schema";
import { stageTime } from "@/core/units/units";
import { cueOf, listOf, measure, rigOf, ticks, worldOf } from "./parts";

const LISTS = 200;
const RUNNING = 40;
/** Parameters of a list: 32 fixtures of 64. */
const SHARE = 32 * 64;

const show = rigOf(2048);
const rig = compileRig(show);
const keysOf = (list: number) => {
  const from = (list * SHARE) % rig.size;
  return rig.keys.slice(from, from + SHARE);
};

const KINDS = ["list", "chase", "morph", "timecode"] as const;
const kindOf = (list: number) => KINDS[list % KINDS.length]!;

const lists: CueList[] = Array.from({ length: LISTS }, (_, k) => {
  const keys = keysOf(k);
  const cues = Array.from({ length: 8 }, (_, c) => ({
    ...cueOf(c + 1, 2, keys, (i) => (i * (c + 3) * 7) % 100),
    ...(kindOf(k) === "timecode" ? { at: c * 60 } : {}),
  }));
  const made = listOf(k + 1, cues);
  if (kindOf(k) === "timecode") return { ...made, timecode: true };
  if (kindOf(k) === "morph") return { ...made, kind: "morph" };
  if (kindOf(k) === "chase") return { ...made, kind: "chase", bpm: 90 + (k % 30) };
  return made;
});
const player = createPlayer(worldOf(show, lists));
play(player, { kind: "timecode", does: "run" }, stageTime(0));
lists.slice(0, RUNNING).forEach((list, k) => {
  if (kindOf(k) === "timecode") return;
  if (kindOf(k) === "morph") play(player, { kind: "level", list: list.id, value: 30 + k }, stageTime(0));
  else play(player, { kind: "go", list: list.id }, stageTime(0));
});
advance(player, stageTime(0.1));
compute(player);

const count = RUNNING * SHARE;
const [from, to] = [new Float64Array(count).fill(10), new Float64Array(count).fill(90)];
const bytes = new Uint8Array(count);
const pass = (p: number) => {
  for (let i = 0; i < count; i++) bytes[i] = (from[i]! + (to[i]! - from[i]!) * p) * 2.55 + 0.5;
};
for (let i = 0; i < 60; i++) pass(i / 60);
const bare = measure(400, (i) => pass(i / 400));
ticks(player, 0.1, 60);
const tick = ticks(player, 2, 400);
let now = 2 + 400 / 44;
const press = measure(100, (i) => {
  now += 1 / 44;
  const list = lists[(i * 4) % RUNNING]!;
  play(player, { kind: "go", list: list.id }, stageTime(now));
  advance(player, stageTime(now));
  compute(player);
});
const locate = measure(40, (i) => {
  now += 1 / 44;
  play(player, { kind: "timecode", does: "at", frames: (i * 137) % 480 }, stageTime(now));
  advance(player, stageTime(now));
  compute(player);
});

const ms = (v: number) => `${v.toFixed(2)} ms`;
const row = (what: string, s: { median: number; p99: number }, ratio = "") =>
  console.log(`| ${what} | ${ms(s.median)} | ${ms(s.p99)} | ${ratio} |`);
console.log("| what | median | p99 | against the bare loop (median / p99) |\n|---|---|---|---|");
row(`bare loop of ${count.toLocaleString("en")} mixes`, bare);
row(
  "200 lists, 40 running (a quarter each cue lists, chases, morphs, timecode): a tick",
  tick,
  `${(tick.median / bare.median).toFixed(2)} / ${(tick.p99 / bare.p99).toFixed(2)}`,
);
row("a go among them to bytes, without the postings between threads", press);
row("a locate of timecode, ten lists following", locate);
