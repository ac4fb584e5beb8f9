/** What every bench of the engine is made of: rigs, lists, measured times, and ticks. */
import { Session } from "node:inspector/promises";
import { newTimes } from "@/core/cue/times";
import type { FixtureType } from "@/core/fixture/type";
import { play } from "@/core/play/lists/act";
import { advance } from "@/core/play/lists/due";
import { compute } from "@/core/play/player";
import type { Player } from "@/core/play/state";
import type { Cue, CueList, Fixture, Show } from "@/core/show/schema";
import { newHands, newList, newShow, type World } from "@/core/show/world";
import { stageTime } from "@/core/units/units";

const CHANNELS = 64;
const type: FixtureType = {
  id: "bench-64",
  maker: "Generic",
  model: "Bench 64",
  kind: "wash",
  modes: [
    {
      name: "all",
      cells: 0,
      channels: ["Dimmer", ...Array.from({ length: CHANNELS - 1 }, (_, i) => `Bench${i}`)].map((attribute) => ({
        cell: 0,
        bytes: 1 as const,
        functions: [{ attribute, dmxFrom: 0, dmxTo: 255, from: 0, to: 100 }],
      })),
    },
  ],
};

export function rigOf(fixtures: number): Show {
  const show = newShow("Bench");
  show.types[type.id] = type;
  const perUniverse = 512 / CHANNELS;
  for (let i = 0; i < fixtures; i++) {
    const fixture: Fixture = {
      id: `f${i + 10}`,
      number: i + 1,
      name: "Bench",
      type: type.id,
      mode: "all",
      addresses: [{ universe: 1 + Math.floor(i / perUniverse), slot: 1 + (i % perUniverse) * CHANNELS }],
      virtualDimmer: false,
      place: { x: 0, y: 0, z: 0 },
      turn: { x: 0, y: 0, z: 0 },
      invertPan: false,
      invertTilt: false,
      swap: false,
      scale: 100,
      correct: { pan: 0, tilt: 0 },
      note: "",
    };
    show.fixtures[fixture.id] = fixture;
  }
  show.nextId = 10_000_000;
  return show;
}

let ids = 1_000_000;
export function cueOf(number: number, fade: number, keys: Iterable<string>, value: (i: number) => number): Cue {
  const entries: Cue["entries"] = {};
  let i = 0;
  for (const key of keys) entries[key] = { attribute: key.split(".")[2]!, value: value(i++) };
  return {
    id: `c${ids++}`,
    number,
    name: "",
    note: "",
    times: newTimes(fade),
    trigger: { kind: "go" },
    reach: null,
    fresh: false,
    assert: false,
    entries,
  };
}

export const listOf = (number: number, cues: Cue[]): CueList => ({
  ...newList(`l${number}`, number),
  cues: Object.fromEntries(cues.map((c) => [c.id, c])),
});
export const worldOf = (show: Show, lists: CueList[]): World => {
  const full = { ...show, lists: Object.fromEntries(lists.map((l) => [l.id, l])) };
  return { show: full, hands: newHands(full) };
};

export const clock = (): number => Number(process.hrtime.bigint()) / 1e6;
export interface Stats {
  median: number;
  p99: number;
}
export function stats(samples: number[]): Stats {
  const sorted = [...samples].sort((a, b) => a - b);
  return {
    median: sorted[Math.floor(sorted.length / 2)]!,
    p99: sorted[Math.min(sorted.length - 1, Math.floor(sorted.length * 0.99))]!,
  };
}
export function measure(times: number, work: (i: number) => void): Stats {
  const samples: number[] = [];
  for (let i = 0; i < times; i++) {
    const start = clock();
    work(i);
    samples.push(clock() - start);
  }
  return stats(samples);
}

export function ticks(player: Player, from: number, count: number): Stats {
  return measure(count, (i) => {
    advance(player, stageTime(from + (i + 1) / 44));
    compute(player);
  });
}
/** Bytes a tick allocates by the heap's own samples, over 20,000 ticks; the loop around them is left out. */
export async function allocatedInTick(player: Player): Promise<string> {
  const count = 20_000;
  const tickThem = (from: number) => {
    for (let i = 0; i < count; i++) {
      advance(player, stageTime(from + i / 44));
      compute(player);
    }
  };
  tickThem(1);
  const session = new Session();
  session.connect();
  await session.post("HeapProfiler.startSampling", {
    samplingInterval: 256,
    includeObjectsCollectedByMajorGC: true,
    includeObjectsCollectedByMinorGC: true,
  } as never);
  tickThem(1000);
  const { profile } = (await session.post("HeapProfiler.stopSampling")) as { profile: { head: HeapNode } };
  const inTick = (node: HeapNode, inside: boolean): number =>
    (inside ? node.selfSize : 0) +
    node.children.reduce(
      (sum, child) => sum + inTick(child, inside || ["advance", "compute"].includes(child.callFrame.functionName)),
      0,
    );
  return (inTick(profile.head, false) / count).toFixed(2);
}
interface HeapNode {
  selfSize: number;
  callFrame: { functionName: string };
  children: HeapNode[];
}

export const goAll = (player: Player, at: number) => {
  for (const id of Object.keys(player.world.show.lists)) play(player, { kind: "go", list: id }, stageTime(at));
};
