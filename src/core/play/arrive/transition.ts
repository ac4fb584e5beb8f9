/** One transition as the engine plays it: every fixture's intensity from the cue before to this one, sampled. */
import { isIntensity } from "../../program/light";
import { moveTime } from "../../cue/times";
import { attributeInfo } from "../../fixture/attribute";
import { modelOf } from "../../show/model";
import { IdSchema, paramKey, splitKey, type Id } from "../../show/ids";
import { z } from "../../units/zod";
import type { CueList, Show } from "../../show/schema";
import { cuesOf, fixturesByNumber, newHands } from "../../show/world";
import { stageTime } from "../../units/units";
import { play } from "../lists/act";
import { advance } from "../lists/due";
import { isEffect, readFade } from "../stage/layers";
import { compute, createPlayer } from "../player";
import type { Player } from "../state";

export const CurveSchema = z.object({
  fixtures: z.array(IdSchema),
  /** Percent, one for each time. */
  values: z.array(z.number()),
  /** When it begins and ends to move, seconds after the go; null where it does not. */
  moves: z.object({ from: z.number(), to: z.number() }).nullable(),
  /** The longest own timing of an entry of the cue, where any has one. */
  own: z.object({ delay: z.number(), fade: z.number() }).nullable(),
});
export type Curve = z.infer<typeof CurveSchema>;

export const TransitionSchema = z.object({
  /** Seconds after the go. */
  times: z.array(z.number()),
  /** When the cue is complete. */
  complete: z.number(),
  /** Fixtures that do the same are one curve; those that stay dark are left out. */
  curves: z.array(CurveSchema),
  /** Cues that follow by themselves, with when they come. */
  follows: z.array(z.object({ cue: IdSchema, at: z.number() })),
  /** Fixtures that move in black out of this cue, with when, and the cue they get ready for. */
  black: z.array(z.object({ fixtures: z.array(IdSchema), from: z.number(), to: z.number(), lights: IdSchema })),
});
export type Transition = z.infer<typeof TransitionSchema>;

/** So much longer than the longest fade that everything moved in black is where it goes. */
const SETTLED = 3600;

/** A show whose list waits for every go, with nothing held: its transition stands alone. */
function standing(show: Show, list: CueList): Show {
  const cues = Object.fromEntries(
    Object.values(list.cues).map((cue) => [cue.id, { ...cue, trigger: { kind: "go" as const } }]),
  );
  return { ...show, lists: { [list.id]: { ...list, cues } } };
}

/** How bright a fixture is on stage, percent: its Dimmer times its brightest cell's; 100 without one. */
function brightness(player: Player, id: Id): number {
  const { show } = player.world;
  const { specs } = modelOf(show, show.fixtures[id]!);
  let [own, cells, some] = [100, -1, false];
  for (const spec of specs) {
    if (!isIntensity(spec)) continue;
    some = true;
    const value = player.stage.value[player.rig.index.get(paramKey(id, spec.cell, spec.head))!]!;
    if (spec.cell === 0) own = value;
    else cells = Math.max(cells, value);
  }
  return some ? (cells < 0 ? own : (own * cells) / 100) : 100;
}

/** When a fixture's intensity begins and ends to move, seconds after the go; null where it does not. */
function movesOf({ layers, rig, world: { show } }: Player, id: Id, arrived: number): Curve["moves"] {
  let [from, to] = [Infinity, -Infinity];
  for (const spec of modelOf(show, show.fixtures[id]!).specs) {
    const param = isIntensity(spec) ? rig.index.get(paramKey(id, spec.cell, spec.head)) : undefined;
    if (param === undefined) continue;
    for (let at = layers.head[param]!; at >= 0; at = layers.next[at]!)
      for (const fade of [
        readFade(layers, at, "weight"),
        ...(isEffect(layers.role[at]!) ? [] : [readFade(layers, at, "own")]),
      ]) {
        if (fade.from === fade.to || fade.at < arrived) continue;
        from = Math.min(from, fade.at + fade.delay - arrived);
        to = Math.max(to, fade.at + fade.delay + fade.fade - arrived);
      }
  }
  return from <= to ? { from, to } : null;
}

/** A player that has just been given go into a cue, out of the one before it; and the cue's place. */
export function beforeGo(show: Show, list: CueList, cue: Id): { player: Player; place: number } | undefined {
  const place = cuesOf(list).findIndex((c) => c.id === cue);
  if (place < 0) return undefined;
  const shown = standing(show, list);
  const player = createPlayer({ show: shown, hands: newHands(shown) });
  if (place > 0) play(player, { kind: "go", list: list.id, cue: cuesOf(list)[place - 1]!.id, over: 0 }, stageTime(0));
  advance(player, stageTime(SETTLED));
  play(player, { kind: "go", list: list.id }, stageTime(SETTLED));
  return { player, place };
}

/** Brings a player to so many seconds after its go. */
export function goneOn(player: Player, seconds: number): void {
  advance(player, stageTime(SETTLED + seconds));
  compute(player);
}

/**
 * The transition into a cue.
 * @param samples how many instants are looked at, 2 and more.
 * @returns undefined where there is no such cue.
 */
export function transitionOf(show: Show, list: CueList, cue: Id, samples = 120): Transition | undefined {
  const began = beforeGo(show, list, cue);
  if (!began) return undefined;
  const { player, place } = began;
  const run = player.runs.get(list.id)!;
  const complete = Math.max(0, run.complete - run.arrived);
  const span = Math.max(complete, 0.5);
  const times = Array.from({ length: samples }, (_, k) => (k / (samples - 1)) * span);
  const moves = new Map(fixturesByNumber(show).map((f) => [f.id, movesOf(player, f.id, run.arrived)]));
  const rows = new Map<Id, number[]>(fixturesByNumber(show).map((f) => [f.id, []]));
  const begun = new Map<Id, { from: number; to: number; lights: Id }>();
  const watch = () => {
    for (const { fixture, since, left, lights } of run.black)
      if (since !== null)
        begun.set(fixture, {
          from: since - run.arrived,
          to: since + left - run.arrived,
          lights: cuesOf(list)[lights]!.id,
        });
  };
  for (const time of times) {
    goneOn(player, time);
    watch();
    for (const [id, values] of rows) values.push(brightness(player, id));
  }
  // What begins only when the cue is complete.
  goneOn(player, complete + 0.001);
  watch();
  const entries = Object.entries(cuesOf(list)[place]!.entries);
  const byCurve = new Map<string, Curve>();
  for (const [id, values] of rows) {
    if (values.every((v) => v <= 0)) continue;
    const own = entries
      .filter(([key, e]) => splitKey(key).fixture === id && e.time && attributeInfo(e.attribute).family === "Intensity")
      .map(([, e]) => moveTime(cuesOf(list)[place]!.times, e.attribute, false, e.time))
      .sort((a, b) => b.delay + b.fade - a.delay - a.fade)[0];
    const name = `${values.map((v) => v.toFixed(2)).join()} ${JSON.stringify([own, moves.get(id)])}`;
    const same = byCurve.get(name);
    if (same) same.fixtures.push(id);
    else
      byCurve.set(name, {
        fixtures: [id],
        values,
        moves: moves.get(id) ?? null,
        own: own ? { delay: own.delay, fade: own.fade } : null,
      });
  }
  return {
    times,
    complete,
    curves: [...byCurve.values()],
    follows: followsOf(list, place, complete),
    black: alike(begun),
  };
}

/** Fixtures that move alike together, the earliest first. */
function alike(moves: ReadonlyMap<Id, { from: number; to: number; lights: Id }>): Transition["black"] {
  const found = new Map<string, Transition["black"][number]>();
  for (const [id, { from, to, lights }] of moves) {
    const name = `${from.toFixed(3)} ${to.toFixed(3)} ${lights}`;
    const same = found.get(name);
    if (same) same.fixtures.push(id);
    else found.set(name, { fixtures: [id], from, to, lights });
  }
  return [...found.values()].sort((a, b) => a.from - b.from);
}

/** The cues that come by themselves after one, one after another, with when. */
function followsOf(list: CueList, place: number, complete: number): Transition["follows"] {
  const found: Transition["follows"] = [];
  let [at, done] = [0, complete];
  for (const cue of cuesOf(list).slice(place + 1)) {
    if (cue.trigger.kind === "go") break;
    at = (cue.trigger.kind === "auto" ? at : done) + cue.trigger.after;
    const { up, down, delayUp, delayDown } = cue.times;
    done = at + Math.max(up + delayUp, down + delayDown);
    found.push({ cue: cue.id, at });
  }
  return found;
}
