/** Why: the whole stack behind a parameter's value (SEMANTICS 6). */
import { z } from "../units/zod";
import type { ParamKey } from "../show/ids";
import { finish } from "./arrive";
import type { Player } from "./state";
import { EFFECT, HIGHEST, LATEST, OVER, cueOfLayer } from "./layers";
import { playedAt } from "./playing";
import { progress } from "./progress";
import { ownValue, weightOf } from "./stage";

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
  stamp: z.number().optional(),
  priority: z.number().optional(),
  /** Percent. */
  level: z.number().optional(),
  /** 0..1: how much of it counts, and how far its fade is. */
  weight: z.number().optional(),
  progress: z.number().optional(),
  /** Hidden by what lies above it. */
  hidden: z.boolean(),
});
export type WhyStep = z.infer<typeof WhyStepSchema>;
const WHAT: Record<number, WhyStep["what"]> = {
  [LATEST]: "list",
  [HIGHEST]: "highest",
  [OVER]: "takeover",
  [EFFECT]: "effect",
};

export const WhySchema = z.object({
  key: z.string(),
  steps: z.array(WhyStepSchema),
  value: z.number(),
  attribute: z.string(),
  /** Where it goes on the wire. */
  bytes: z.array(z.object({ universe: z.number(), slot: z.number(), bytes: z.array(z.number()) })),
});
export type Why = z.infer<typeof WhySchema>;

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
    steps.push({
      what: WHAT[role]!,
      ...(run ? { list: run.id } : {}),
      cue: cueOfLayer(layers, at),
      attribute: name(layers.toFn[at]!),
      value:
        role === EFFECT
          ? playedAt(stage.effects[layers.ownTo[at]!]!, stage.effectNow[layers.list[at]!]! - layers.ownFrom[at]!)
          : ownValue(stage, at),
      stamp: layers.stamp[at]!,
      priority: layers.priority[at]!,
      level: layers.scaled[at] || role === HIGHEST || role === OVER ? stage.listLevel[layers.list[at]!]! * 100 : 100,
      weight,
      progress: Math.min(
        progress(now, layers.ownAt[at]!, layers.ownDelay[at]!, layers.ownFade[at]!),
        progress(now, layers.weightAt[at]!, layers.weightDelay[at]!, layers.weightFade[at]!),
      ),
      hidden: weight <= 0,
    });
  }
  if (stage.held.on[p]) {
    if (!stage.blind) cover();
    steps.push({
      what: "programmer",
      value: stage.held.value[p]!,
      attribute: name(stage.held.fn[p]!),
      hidden: stage.blind,
    });
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
    .filter((out) => out.param === p)
    .map((out) => ({
      universe: rig.universes[Math.floor(out.offset / 512)]!,
      slot: (out.offset % 512) + 1,
      bytes: [...player.frame.slice(out.offset, out.offset + out.bytes)],
    }));
  return { key, steps, value: stage.value[p]!, attribute: name(stage.fn[p]!), bytes };
}
