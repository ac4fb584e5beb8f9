/** From the player to what windows are shown: the frame's numbers, and how the lists stand. */
import type { BlackMove } from "@/core/play/arrive/black/plan";
import { listTimeAt } from "@/core/play/lists/clock";
import { copyRaw } from "@/core/play/stage/glide";
import type { Player } from "@/core/play/state";
import { bpmOf } from "@/core/play/lists/kinds/chase";
import { eachLayer, isEffect } from "@/core/play/stage/layers";
import { cueProgress, nextPlace } from "@/core/play/lists/run";
import { FROM_PROGRAMMER } from "@/core/play/stage/stage";
import { framesAt } from "@/core/play/lists/timecode/clock";
import { paramKey } from "@/core/show/ids";
import { cuesOf } from "@/core/show/world";
import { LANE_FIELDS, SOURCE_DEFAULT, SOURCE_PROGRAMMER, type Half } from "./frame";
import { layoutOfRig, type Layout } from "./layout";
import type { Playing } from "./messages";

export const layoutOf = ({ generation, rig, stage }: Player): Layout =>
  layoutOfRig(rig, generation, stage.listNow.length);

/** @param bytes what leaves, slots held for a test included. */
export function fillHalf(half: Half, { stage, layers, runs, now, timecode, world }: Player, bytes: Uint8Array): void {
  half.value.set(stage.value);
  copyRaw(stage, half.raw);
  half.fn.set(stage.fn);
  half.bytes.set(bytes);
  half.clock[0] = framesAt(timecode, world.show.timecode, now);
  for (let p = 0; p < stage.source.length; p++) {
    const source = stage.source[p]!;
    half.source[p] =
      source >= 0 ? layers.list[source]! : source === FROM_PROGRAMMER ? SOURCE_PROGRAMMER : SOURCE_DEFAULT;
    half.cue[p] = source >= 0 ? layers.cue[source]! : 0;
  }
  for (const run of runs.values()) {
    const at = run.slot * LANE_FIELDS;
    half.lanes[at] = cueProgress(run, now);
    half.lanes[at + 1] = Math.max(0, Math.min(listTimeAt(run.clock, now), run.complete) - run.arrived);
    half.lanes[at + 2] = run.complete - run.arrived;
  }
}

/** Where a move in black points its fixture; undefined where it only changes other things. */
function headingOf({ fixture, to }: BlackMove): Playing["moving"][number] | undefined {
  const of = (head: string) => to.find((t) => t.key === paramKey(fixture, 0, head))?.value;
  const [pan, tilt] = [of("Pan"), of("Tilt")];
  return pan === undefined && tilt === undefined ? undefined : { fixture, pan: pan ?? 0, tilt: tilt ?? 0 };
}

/** So often it is looked at who has the stage, seconds. */
const LOOK = 0.25;
let looked: { player: Player; sequence: number; at: number; has: ReturnType<typeof lookAt> } | undefined;

/** Of all that each list holds, how much it has the stage for; looked at now and then, and after every event. */
function held(player: Player): ReturnType<typeof lookAt> {
  const fresh =
    looked?.player === player && looked.sequence === player.sequence && Math.abs(player.now - looked.at) < LOOK;
  if (!fresh) looked = { player, sequence: player.sequence, at: player.now, has: lookAt(player) };
  return looked!.has;
}

/** By who shows in each parameter, as the plan and Why tell it: priorities, what is held and what came back included. */
function lookAt({ layers, stage }: Player): (slot: number) => Playing["runs"][string]["has"] {
  const all = new Map<number, { of: number; has: number }>();
  for (const at of eachLayer(layers)) {
    if (isEffect(layers.role[at]!) || layers.weightTo[at] === 0) continue;
    const slot = layers.list[at]!;
    let count = all.get(slot);
    if (!count) all.set(slot, (count = { of: 0, has: 0 }));
    count.of += 1;
    const shows = stage.source[layers.param[at]!]!;
    if (shows >= 0 && layers.list[shows] === slot) count.has += 1;
  }
  return (slot) => {
    const count = all.get(slot);
    return !count || count.has === 0 ? "none" : count.has === count.of ? "all" : "some";
  };
}

export function playingNow(player: Player): Playing {
  const { runs, world, stage, now, timecode, waiting } = player;
  const hadBy = held(player);
  const of = world.show.timecode;
  return {
    timecode: {
      // While it runs, where it is stands in the frame.
      frames: Math.floor(timecode.speed === 0 ? framesAt(timecode, of, now) : timecode.base),
      speed: timecode.speed,
      outside: timecode.outside,
      lost: timecode.outside && timecode.speed !== 0 && now > timecode.heard + 0.25,
    },
    waiting: waiting.map((w) => w.macro),
    grand: stage.grand * 100,
    blackout: stage.blackout,
    moving: [...runs.values()].flatMap((run) =>
      run.black.flatMap((move) => (move.since === null || move.done ? [] : (headingOf(move) ?? []))),
    ),
    runs: Object.fromEntries(
      [...runs.values()].flatMap((run) => {
        const list = world.show.lists[run.id];
        if (!list) return [];
        const next = nextPlace(list, run);
        return [
          [
            run.id,
            {
              slot: run.slot,
              cue: run.cue,
              next: next < 0 ? null : cuesOf(list)[next]!.id,
              level: run.level,
              paused: run.clock.paused,
              rate: run.rate * 100,
              effectRate: run.effects.rate * 100,
              bpm: list.kind === "chase" ? bpmOf(list, run) * run.rate : null,
              byHand: run.hand && run.end !== null ? Math.abs(run.level - run.end) / 100 : null,
              flashed: run.flashed,
              tapped: list.kind === "chase" && run.bpm !== null,
              has: hadBy(run.slot),
              fading: run.cue === null && listTimeAt(run.clock, now) < run.complete,
            },
          ],
        ];
      }),
    ),
  };
}

/** Whether a cue is not complete yet, even if nothing of it moves. */
export function isArriving({ order, now }: Player): boolean {
  for (let i = 0; i < order.length; i++) if (order[i]!.cue !== null && cueProgress(order[i]!, now) < 1) return true;
  return false;
}
