/** Why: the whole stack behind a parameter's value (SEMANTICS 6). */
import { z } from "../units/zod";
import type { ParamKey } from "../show/ids";
import { finish } from "./arrive/arrive";
import type { Player } from "./state";
import { isFrom, isStop } from "../show/effectSchema";
import { heldCycles, PLAYS } from "./stage/heldEffects";
import { cueOfLayer, EFFECT, EFFECT_HIGHEST, EFFECT_OVER, HIGHEST, isEffect, LATEST, OVER } from "./stage/layers";
import { playedAt, type Playing } from "./stage/playing";
import { bend, progress } from "./stage/progress";
import { between } from "./stage/layMorph";
import { levelShown, type ListRun } from "./lists/run";
import { cuesOf } from "../show/world";
import { ownValue } from "./stage/arbitration";
import { cyclesOf, weightOf } from "./stage/stage";

export const WhyStepSchema = z.object({
  /** What contributes, lowest first. */
  what: z.enum([
    "default",
    "list",
    "effect",
    "highest",
    "takeover",
    "programmer",
    "highlight",
    "limiter",
    "grand",
    "blackout",
    "park",
  ]),
  list: z.string().optional(),
  cue: z.string().optional(),
  attribute: z.string().optional(),
  value: z.number(),
  /** Of an effect: which (the show's, or null), and where it stands in its cycle, 0..1. */
  effect: z.object({ id: z.string().nullable(), phase: z.number() }).optional(),
  /** Of a morph: the cues its level lies between, none for what lies below, how far from the first, 0..1, and its level, percent. */
  between: z.object({ from: z.string().nullable(), to: z.string(), share: z.number(), level: z.number() }).optional(),
  stamp: z.number().optional(),
  priority: z.number().optional(),
  /** Percent. */
  level: z.number().optional(),
  /** 0..1: how much of it counts, and how far its fade is. */
  weight: z.number().optional(),
  progress: z.number().optional(),
  /** Moved in black: on its way, held because another source lights the fixture, or there already. */
  black: z.enum(["moves", "held", "there"]).optional(),
  /** Hidden by what lies above it. */
  hidden: z.boolean(),
});
export type WhyStep = z.infer<typeof WhyStepSchema>;
const WHAT: Record<number, WhyStep["what"]> = {
  [LATEST]: "list",
  [HIGHEST]: "highest",
  [OVER]: "takeover",
  [EFFECT]: "effect",
  [EFFECT_HIGHEST]: "effect",
  [EFFECT_OVER]: "effect",
};

export const WhySchema = z.object({
  key: z.string(),
  steps: z.array(WhyStepSchema),
  value: z.number(),
  attribute: z.string(),
  /** Where it goes on the wire. */
  bytes: z.array(
    z.object({
      universe: z.number(),
      slot: z.number(),
      bytes: z.array(z.number()),
      /** The attribute whose channel carries it, where it has none of its own: a dimmer that is worked out. */
      of: z.string().optional(),
    }),
  ),
});
export type Why = z.infer<typeof WhySchema>;

/** How a list's move in black of a parameter stands. */
function blackOf(run: ListRun | undefined, key: ParamKey): WhyStep["black"] {
  const move = run?.black.find((m) => m.begun && m.to.some((t) => t.key === key));
  return move && (move.done ? "there" : move.since === null ? "held" : "moves");
}

/** Between which looks a morph stands. */
function morphed({ world }: Player, run: ListRun): Pick<WhyStep, "between"> {
  const list = world.show.lists[run.id];
  if (list?.kind !== "morph") return {};
  const level = levelShown(run, list);
  const { from, to, share } = between(list, level);
  const cues = cuesOf(list);
  return cues[to] ? { between: { from: cues[from]?.id ?? null, to: cues[to].id, share, level } } : {};
}

/** What an effect gives over what lies below it, and where it stands. */
function seenOf(plays: Playing, cycles: number, below: WhyStep | undefined) {
  const value = playedAt(plays, cycles, below?.value ?? 0, plays.fn, 1);
  const x = cycles + plays.offset;
  const id = isStop(plays.effect) || !isFrom(plays.effect) ? null : plays.effect.from;
  return { value, seen: { id, phase: x - Math.floor(x) } };
}

/** The stack of a parameter at the player's time; undefined for one that does not exist. */
export function whyOf(player: Player, key: ParamKey): Why | undefined {
  finish(player);
  const { rig, stage, layers } = player;
  const p = rig.index.get(key);
  if (p === undefined) return undefined;
  const spec = rig.specs[p]!;
  const name = (fn: number) => spec.functions[fn]!.attribute;
  const ids = new Map([...player.runs.values()].map((run) => [run.slot, run]));
  const steps: WhyStep[] = [{ what: "default", value: spec.default, attribute: spec.head, hidden: false }];
  const cover = () => steps.forEach((step) => (step.hidden = true));
  for (let at = layers.head[p]!; at >= 0; at = layers.next[at]!) {
    const run = ids.get(layers.list[at]!);
    const now = stage.listNow[layers.list[at]!]!;
    const weight = weightOf(stage, at);
    const role = layers.role[at]!;
    if (role === LATEST && weight >= 1) cover();
    const plays = isEffect(role) ? stage.effects[layers.ownTo[at]!] : undefined;
    if (isEffect(role) && !plays) continue;
    const below = steps.findLast((step) => !step.hidden);
    const played = plays && seenOf(plays, cyclesOf(stage, at), below);
    const black = isEffect(role) ? undefined : blackOf(run, key);
    steps.push({
      ...(black ? { black } : {}),
      ...(played ? { effect: played.seen } : {}),
      what: WHAT[role]!,
      ...(run ? { list: run.id, ...morphed(player, run) } : {}),
      cue: cueOfLayer(layers, at),
      attribute: name(layers.toFn[at]!),
      value: isEffect(role) ? played!.value : ownValue(stage, at),
      stamp: layers.stamp[at]!,
      priority: layers.priority[at]!,
      level: layers.scaled[at] || role === HIGHEST || role === OVER ? stage.listLevel[layers.list[at]!]! * 100 : 100,
      weight,
      progress: Math.min(
        bend(progress(now, layers.ownAt[at]!, layers.ownDelay[at]!, layers.ownFade[at]!), layers.ownBend[at]!),
        bend(
          progress(now, layers.weightAt[at]!, layers.weightDelay[at]!, layers.weightFade[at]!),
          layers.weightBend[at]!,
        ),
      ),
      hidden: weight <= 0,
    });
  }
  const held = stage.heldEffects.way[p] === PLAYS ? stage.heldEffects.playing[p] : undefined;
  if (held && stage.held.on[p] === 0) {
    const below = steps.findLast((step) => !step.hidden);
    const { value, seen } = seenOf(held, heldCycles(stage.heldEffects, p, stage.now), below);
    steps.push({ what: "programmer", effect: seen, value, attribute: name(held.fn), hidden: stage.blind });
  }
  if (stage.held.on[p]) {
    if (!stage.blind) cover();
    steps.push({
      what: "programmer",
      value: stage.held.value[p]!,
      attribute: name(stage.held.fn[p]!),
      hidden: stage.blind,
    });
    if (held) {
      const { value, seen } = seenOf(held, heldCycles(stage.heldEffects, p, stage.now), steps.at(-1));
      steps.push({ what: "programmer", effect: seen, value, attribute: name(held.fn), hidden: stage.blind });
    }
  }
  if (stage.highlight.on[p]) {
    cover();
    steps.push({
      what: "highlight",
      value: stage.highlight.value[p]!,
      attribute: name(stage.highlight.fn[p]!),
      hidden: false,
    });
  }
  if (stage.limit[p] !== 1) steps.push({ what: "limiter", value: stage.limit[p]! * 100, hidden: false });
  if (rig.scaled[p]) {
    if (stage.grand !== 1) steps.push({ what: "grand", value: stage.grand * 100, hidden: false });
    if (stage.blackout) steps.push({ what: "blackout", value: 0, hidden: false });
  }
  if (stage.park.on[p]) {
    cover();
    steps.push({ what: "park", value: stage.park.value[p]!, attribute: name(stage.park.fn[p]!), hidden: false });
  }
  const bytes = rig.feeds[p]!.map((i) => rig.outputs[i]!)
    .filter((out) => out.param === p || (spec.virtual && (out.dimmer === p || out.cellDimmer === p)))
    .map((out) => ({
      ...(out.param === p ? {} : { of: out.functions[0]!.attribute }),
      universe: rig.universes[Math.floor(out.offset / 512)]!,
      slot: (out.offset % 512) + 1,
      bytes: out.at.map((at) => player.frame[at]!),
    }));
  return { key, steps, value: stage.value[p]!, attribute: name(stage.fn[p]!), bytes };
}
