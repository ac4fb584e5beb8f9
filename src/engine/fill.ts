/** From the player to what windows are shown: the frame's numbers, and how the lists stand. */
import type { BlackMove } from "@/core/play/black/plan";
import { listTimeAt } from "@/core/play/clock";
import { copyRaw } from "@/core/play/glide";
import type { Player } from "@/core/play/state";
import { cueProgress, nextPlace } from "@/core/play/run";
import { FROM_PROGRAMMER } from "@/core/play/stage";
import { paramKey } from "@/core/show/ids";
import { cuesOf } from "@/core/show/world";
import { LANE_FIELDS, SOURCE_DEFAULT, SOURCE_PROGRAMMER, type Half, type Layout } from "./frame";
import type { Playing } from "./messages";

export const layoutOf = ({ generation, rig, stage }: Player): Layout => ({
  generation,
  keys: [...rig.keys],
  attributes: rig.specs.map((spec) => spec.functions.map((fn) => fn.attribute)),
  universes: [...rig.universes],
  slots: stage.listNow.length,
});

/** @param bytes what leaves, slots held for a test included. */
export function fillHalf(half: Half, { stage, layers, runs, now }: Player, bytes: Uint8Array): void {
  half.value.set(stage.value);
  copyRaw(stage, half.raw);
  half.fn.set(stage.fn);
  half.bytes.set(bytes);
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

export function playingNow({ runs, world, stage, now }: Player): Playing {
  return {
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
              rate: run.clock.rate * 100,
              effectRate: run.effects.rate * 100,
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
