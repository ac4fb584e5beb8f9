/** Playing as plain data, so that a reload picks the stage up where it was. */
import { z } from "../units/zod";
import { trackingOf } from "../cue/tracking";
import { IdSchema, ParamKeySchema, splitKey, type ParamKey } from "../show/ids";
import type { Entry } from "../show/value";
import { listTime, sequence, stageTime } from "../units/units";
import { finish } from "./arrive";
import { planFor, watchBlack } from "./black/move";
import type { BlackMove } from "./black/plan";
import { refresh } from "./edit";
import { placeOfCue } from "./run";
import { heldCycles, PLAYS } from "./heldEffects";
import { EFFECT_OVER, eachLayer, isEffect } from "./layers";
import { loadLimits } from "./overlays";
import { syncRuns } from "./player";
import { playingOf, type Playing } from "./playing";
import type { Player } from "./state";
import { putLayer, readLayer } from "./silent";
import { keepPlaying, touchAll } from "./stage";

const finite = z.number().finite();
const FadeSchema = z.object({
  from: finite,
  to: finite,
  at: finite,
  delay: finite,
  fade: finite,
  bend: z.number().int().min(0).max(3).optional(),
});

export const SavedPlaySchema = z.object({
  now: finite,
  sequence: z.number().int().min(0),
  grand: finite.min(0).max(1),
  blackout: z.boolean(),
  runs: z.array(
    z.object({
      id: IdSchema,
      cue: IdSchema.nullable(),
      next: IdSchema.nullable(),
      left: IdSchema.nullable(),
      carried: z.boolean(),
      flash: z.boolean(),
      flashed: z.boolean(),
      level: finite.min(0).max(100),
      arrived: finite,
      complete: finite,
      roundAt: finite.default(-1),
      since: finite.default(0),
      stamp: finite.default(0),
      time: finite,
      effectTime: finite.optional(),
      effectRate: finite.min(0).max(1000).default(1),
      rate: finite.min(0).max(10),
      paused: z.boolean(),
      /** How far its moves in black are. */
      black: z
        .array(
          z.object({
            fixture: IdSchema,
            left: finite,
            since: finite.nullable(),
            after: finite.nullable(),
            begun: z.boolean(),
            done: z.boolean(),
          }),
        )
        .default([]),
    }),
  ),
  /** Levels on their way to a value. */
  ramps: z
    .array(z.object({ list: IdSchema.nullable(), from: finite, to: finite, at: finite, seconds: finite.min(0) }))
    .default([]),
  /** How far held effects are in their cycles. */
  held: z.array(z.object({ key: ParamKeySchema, cycles: finite })).default([]),
  layers: z.array(
    z.object({
      key: ParamKeySchema,
      list: z.union([IdSchema, z.literal("")]),
      cue: IdSchema,
      stamp: finite,
      own: FadeSchema,
      weight: FadeSchema,
      /** Attributes that carry it; states saved before they were kept have the functions' places instead. */
      from: z.string().max(60).optional(),
      to: z.string().max(60).optional(),
      fromFn: z.number().int().min(0).optional(),
      toFn: z.number().int().min(0).optional(),
      role: z.number().int().min(0).max(EFFECT_OVER),
      scaled: z.boolean(),
    }),
  ),
});
export type SavedPlay = z.infer<typeof SavedPlaySchema>;

/** The running state, whole: lists with their clocks, layers, masters. Reading it back goes on from the same instant. */
export function savePlay(player: Player): SavedPlay {
  finish(player);
  const { layers, rig, stage } = player;
  const ids = new Map([...player.runs.values()].map((run) => [run.slot, run.id]));
  return {
    now: player.now,
    sequence: player.sequence,
    grand: stage.grand,
    blackout: stage.blackout,
    runs: [...player.runs.values()].map((run) => ({
      id: run.id,
      cue: run.cue,
      next: run.next,
      left: run.left,
      carried: run.carried,
      flash: run.flash,
      flashed: run.flashed,
      level: run.level,
      arrived: run.arrived,
      complete: run.complete,
      roundAt: run.roundAt,
      since: run.since,
      stamp: run.stamp,
      time: stage.listNow[run.slot]!,
      effectTime: stage.effectNow[run.slot]!,
      effectRate: run.effects.rate,
      rate: run.clock.rate,
      paused: run.clock.paused,
      black: run.black.map(({ fixture, left, since, after, begun, done }) => ({
        fixture,
        left,
        since,
        after: Number.isFinite(after) ? after : null,
        begun,
        done,
      })),
    })),
    ramps: player.ramps.map((r) => ({ ...r })),
    held: rig.keys.flatMap((key, p) =>
      stage.heldEffects.way[p] === PLAYS ? [{ key, cycles: heldCycles(stage.heldEffects, p, player.now) }] : [],
    ),
    layers: [...player.silent, ...[...eachLayer(layers)].map((at) => readLayer(layers, rig, at))].map(
      ({ priority: _priority, list, ...layer }) => ({ ...layer, list: ids.get(list) ?? "" }),
    ),
  };
}

/** Puts a saved state on a fresh player. List clocks go on from the saved instant; what no longer exists is left out. */
export function restorePlay(player: Player, saved: SavedPlay): void {
  player.sequence = sequence(saved.sequence);
  player.stage.grand = saved.grand;
  player.stage.blackout = saved.blackout;
  for (const run of saved.runs) {
    const list = player.world.show.lists[run.id];
    const made = player.runs.get(run.id);
    if (!list || !made) continue;
    const cue = run.cue !== null && list.cues[run.cue] ? run.cue : null;
    Object.assign(made, {
      cue,
      next: run.next !== null && list.cues[run.next] ? run.next : null,
      left: run.left,
      carried: run.carried,
      flash: run.flash,
      flashed: run.flashed,
      level: run.level,
      arrived: listTime(run.arrived),
      complete: listTime(run.complete),
      roundAt: listTime(run.roundAt),
      since: listTime(run.since),
      stamp: sequence(run.stamp),
      clock: { base: listTime(run.time), anchor: player.now, rate: run.rate, paused: run.paused },
      effects: {
        base: listTime(run.effectTime ?? run.time),
        anchor: player.now,
        rate: run.effectRate,
        paused: run.paused,
      },
    });
    made.black = planFor(player, made, placeOfCue(list, cue), run.carried).map((move): BlackMove => {
      const old = run.black.find((m) => m.fixture === move.fixture);
      if (!old) return move;
      const { left, since, after, begun, done } = old;
      return {
        ...move,
        left,
        since: since === null ? null : listTime(since),
        after: listTime(after ?? -Infinity),
        begun,
        done,
      };
    });
    player.stage.listNow[made.slot] = run.time;
    player.stage.effectNow[made.slot] = run.effectTime ?? run.time;
  }
  player.ramps = saved.ramps
    .filter((r) => r.list === null || player.runs.has(r.list))
    .map((r) => ({ ...r, at: stageTime(r.at) }));
  syncRuns(player);
  loadLimits(player);
  for (const layer of saved.layers) {
    const run = player.runs.get(layer.list);
    const list = player.world.show.lists[layer.list];
    if (!run || !list) continue;
    const functions = player.rig.specs[player.rig.index.get(layer.key) ?? -1]?.functions;
    const [from, to] = [
      layer.from ?? functions?.[layer.fromFn ?? 0]?.attribute,
      layer.to ?? functions?.[layer.toFn ?? 0]?.attribute,
    ];
    if (from === undefined || to === undefined) continue;
    const entry = list.cues[layer.cue]?.entries[layer.key];
    const plays = isEffect(layer.role) && entry ? playingAt(player, layer.key, entry) : undefined;
    if (isEffect(layer.role) && !plays) continue;
    const made = {
      key: layer.key,
      list: run.slot,
      priority: list.priority,
      stamp: layer.stamp,
      cue: layer.cue,
      own: plays ? { ...layer.own, to: keepPlaying(player.stage, plays) } : layer.own,
      weight: layer.weight,
      role: layer.role,
      scaled: layer.scaled,
      from,
      to,
    };
    if (
      !putLayer(player.layers, player.rig, player.world.show, made) &&
      player.world.show.fixtures[splitKey(layer.key).fixture]
    )
      player.silent.push(made);
  }
  for (const { key, cycles } of saved.held) {
    const p = player.rig.index.get(key);
    if (p !== undefined) Object.assign(player.stage.heldEffects.cycles, { [p]: cycles });
  }
  // What was edited after the last save is on stage all the same.
  for (const run of player.runs.values()) {
    const list = player.world.show.lists[run.id]!;
    if (run.cue !== null) refresh(player, run, list, trackingOf(list, player.world.show).columns.keys(), !list.letGo);
  }
  touchAll(player.stage);
  watchBlack(player);
}

function playingAt({ rig, world }: Player, key: ParamKey, entry: Entry): Playing | undefined {
  const p = rig.index.get(key);
  return p === undefined ? undefined : playingOf(world.show, key, rig.specs[p]!, rig.mixes[p]!, entry);
}

/** A saved state from text, null where it is none. */
export function readSaved(text: string): SavedPlay | null {
  try {
    const parsed = SavedPlaySchema.safeParse(JSON.parse(text));
    return parsed.success ? parsed.data : null;
  } catch {
    return null;
  }
}
