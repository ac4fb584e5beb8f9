/**
 * Effects under load: a wave, or stops, on each of 131,072 parameters, as ratios against a bare loop that computes the
 * same over the same arrays in the same run. Run by `npm run bench`.
 */
import { PLAIN_PHASING } from "@/core/effect/words";
import { compute, createPlayer } from "@/core/play/player";
import { compileRig } from "@/core/play/stage/rig";
import type { Voice } from "@/core/show/effectSchema";
import type { Player } from "@/core/play/state";
import { allocatedInTick, cueOf, goAll, listOf, measure, rigOf, ticks, worldOf, type Stats } from "./parts";

const show = rigOf(2048);
const rig = compileRig(show);
const n = rig.size;

const sine: Voice = { ...PLAIN_PHASING, attribute: "", wave: "sine", range: { low: 10, high: 90 }, bpm: 30 };
const walk: Voice = {
  ...PLAIN_PHASING,
  of: { attribute: "" },
  bpm: 20,
  stops: [
    { value: 10, curve: "smooth", hold: 30 },
    { value: 90, curve: "linear" },
    { value: 40, curve: "snap" },
  ],
};

function playing(voice: Voice, keys = rig.keys): Player {
  const cue = cueOf(1, 0, keys, () => 50);
  keys.forEach((key, i) => {
    const attribute = key.split(".")[2]!;
    const plays = "of" in voice ? { ...voice, of: { attribute } } : { ...voice, attribute };
    cue.entries[key] = { attribute, effect: { plays, at: i % 97, of: 97 } };
  });
  const player = createPlayer(worldOf(show, [listOf(1, [cue])]));
  goAll(player, 0);
  compute(player);
  ticks(player, 0.02, 60);
  return player;
}

function bare(value: (u: number, i: number) => number): Stats {
  const [offset, values, low, span] = [0, 1, 2, 3].map(() => new Float64Array(n)) as [
    Float64Array,
    Float64Array,
    Float64Array,
    Float64Array,
  ];
  const bytes = new Uint8Array(n);
  for (let i = 0; i < n; i++) [offset[i], low[i], span[i]] = [(i % 97) / 97, 10, 80];
  const pass = (cycles: number) => {
    for (let i = 0; i < n; i++) {
      const x = cycles - offset[i]!;
      const v = low[i]! + span[i]! * value(x - Math.floor(x), i);
      values[i] = v;
      bytes[i] = v * 2.55 + 0.5;
    }
  };
  for (let i = 0; i < 60; i++) pass(i / 60);
  return measure(200, (i) => pass(i / 88));
}

const ms = (v: number) => `${v.toFixed(3)} ms`;
const row = (what: string, s: Stats, of?: Stats) =>
  console.log(
    `| ${what} | ${ms(s.median)} | ${ms(s.p99)} | ${of ? `${(s.median / of.median).toFixed(2)} / ${(s.p99 / of.p99).toFixed(2)}` : ""} |`,
  );

console.log("| what | median | p99 | against the bare loop (median / p99) |\n|---|---|---|---|");
const sines = bare((u) => 0.5 - 0.5 * Math.cos(2 * Math.PI * u));
row(`bare loop of ${n.toLocaleString("en")} sines`, sines);
const waving = playing(sine);
row("as many parameters with a wave each", ticks(waving, 6, 200), sines);

const stops = [0, 1, 0.375];
const walks = bare((u) => {
  const x = u * 3;
  const at = Math.floor(x);
  const p = x - at;
  const share = at === 0 ? (p < 0.3 ? 0 : ((p - 0.3) / 0.7) ** 2 * (3 - (2 * (p - 0.3)) / 0.7)) : at === 1 ? p : 0;
  const from = stops[at]!;
  return from + (stops[(at + 1) % 3]! - from) * share;
});
row(`bare loop of ${n.toLocaleString("en")} places between three stops`, walks);
row("as many parameters with stops each", ticks(playing(walk), 6, 200), walks);

for (const [what, voice] of [
  ["waves", sine],
  ["stops", walk],
] as const)
  console.log(
    `| allocated in a tick of 1,000 ${what} | ${await allocatedInTick(playing(voice, rig.keys.slice(0, 1000)))} bytes | | |`,
  );
