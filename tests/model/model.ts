/**
 * A second player, slow and plain: it keeps the story of what was done and works every value out from
 * the words of the semantics. No arrays, no caches, no layers shared between events: each contribution
 * is a closure over time. Intensity and one smooth attribute only, which is what arbitration is about.
 */
import { judgeModel, restart, watchModel, type ModelMove } from "./black";

export interface ModelEntry {
  value?: number | "release" | undefined;
  effect?: ModelEffect | "stop" | undefined;
}

/** A wave between two values, or around what lies underneath; by the words of section 7. */
export interface ModelEffect {
  wave: "sine" | "triangle" | "square" | "rampup";
  around: boolean;
  /** Low and high, or centre and size. */
  a: number;
  b: number;
  bpm: number;
  start: number;
  width: number;
  bounce: boolean;
}

const WAVE: Record<ModelEffect["wave"], (u: number) => number> = {
  sine: (u) => 0.5 - 0.5 * Math.cos(2 * Math.PI * u),
  triangle: (u) => 1 - Math.abs(2 * u - 1),
  square: (u) => (u < 0.5 ? 1 : 0),
  rampup: (u) => u,
};

/** What an effect gives after so many cycles over a base. */
function modelWave(effect: ModelEffect, cycles: number, base: number, level: number, range: [number, number]): number {
  const x = cycles + effect.start / 360;
  const turn = x - 2 * Math.floor(x / 2);
  const u = effect.bounce ? (turn > 1 ? 2 - turn : turn) : x - Math.floor(x);
  const w = WAVE[effect.wave](u < effect.width / 100 ? u / (effect.width / 100) : 1);
  if (!effect.around) return (effect.a + (effect.b - effect.a) * w) * level;
  return Math.min(range[1], Math.max(range[0], base + (effect.a + effect.b * (2 * w - 1)) * level));
}

export interface ModelCue {
  number: number;
  /** Parameter to entry. */
  entries: Record<string, ModelEntry>;
  up: number;
  down: number;
  fresh: boolean;
  /** Last cue number covered; undefined for all. */
  reach?: number;
  /** Fixtures, by number, whose moves in the dark are meant. */
  meant?: number[];
}

export interface ModelList {
  cues: ModelCue[];
  priority: number;
  htp: boolean;
  backTime: number;
  releaseTime: number;
  /** Whether it moves in black, over how long, and whether what comes up is ready. */
  black?: boolean;
  blackTime?: number;
  ready?: boolean;
}

/** In force by the words: scan back, the first entry that covers; a fresh start ends the scan. Values and effects each on their own. */
function scan<T>(
  list: ModelList,
  index: number,
  says: (cue: ModelCue) => T | undefined,
): { value: T; at: number } | undefined {
  for (let j = index; j >= 0; j--) {
    const cue = list.cues[j]!;
    const value = says(cue);
    const covers = cue.reach === undefined || j === index || list.cues[index]!.number <= cue.reach;
    if (value !== undefined && covers) return { value, at: j };
    if (cue.fresh) return undefined;
  }
  return undefined;
}
export function modelInForce(list: ModelList, index: number, param: string): { value: number; at: number } | undefined {
  const found = scan(list, index, (cue) => cue.entries[param]?.value);
  return found && found.value !== "release" ? { value: found.value, at: found.at } : undefined;
}
export function effectInForce(list: ModelList, index: number, param: string, intensity: boolean) {
  const found = scan(list, index, (cue) => cue.entries[param]?.effect);
  if (!found || found.value === "stop") return undefined;
  const value = modelInForce(list, index, param);
  const hushed = intensity && found.value.around && value !== undefined && value.value === 0 && value.at > found.at;
  return { effect: found.value, at: found.at, hushed };
}

type OverTime = (t: number) => number;
const clamp = (v: number) => Math.min(1, Math.max(0, v));
/** Every time at which anything begins or ends to change. */
export const turns = new Set<number>();
export const ramp = (at: number, fade: number): OverTime => {
  turns.add(at).add(at + fade);
  return (t) => (fade <= 0 ? (t >= at ? 1 : 0) : clamp((t - at) / fade));
};

export interface Contribution {
  list: number;
  priority: number;
  stamp: number;
  own: OverTime;
  weight: OverTime;
  leaving: boolean;
  /** Of an effect: what it plays, and the cycles run at a time. */
  plays?: ModelEffect;
  cycles?: OverTime;
  hushed?: boolean;
}

export interface ModelPlayer {
  lists: ModelList[];
  intensity: Set<string>;
  standing: (number | null)[];
  level: number[];
  /** Speed of each list's effects. */
  speed: number[];
  contributions: Map<string, Contribution[]>;
  stamp: number;
  black: ModelMove[][];
  /** The stamp of each list's last go. */
  lastGo: number[];
}

export const newModel = (lists: ModelList[], params: string[], intensity: string[]): ModelPlayer => ({
  lists,
  intensity: new Set(intensity),
  standing: lists.map(() => null),
  level: lists.map(() => 1),
  speed: lists.map(() => 1),
  contributions: new Map(params.map((p) => [p, []])),
  stamp: 0,
  black: lists.map(() => []),
  lastGo: lists.map(() => 0),
});

export const order = (list: Contribution[]) => [...list].sort((a, b) => a.priority - b.priority || a.stamp - b.stamp);
/** Whether nothing of another list with its priority or a lower one lies above a list's value. */
export const hasTheStage = (model: ModelPlayer, list: number, param: string, mine: Contribution): boolean => {
  const all = order(model.contributions.get(param)!);
  return (
    isHighest(model, list, param) ||
    !all
      .slice(all.indexOf(mine) + 1)
      .some((c) => c.list !== list && c.priority <= model.lists[list]!.priority && !isHighest(model, c.list, param))
  );
};
const isHighest = (model: ModelPlayer, list: number, param: string) =>
  model.lists[list]!.htp && model.intensity.has(param);
const levelOf = (model: ModelPlayer, list: number, param: string) =>
  model.intensity.has(param) ? model.level[list]! : 1;

const rangeOf = (model: ModelPlayer, param: string): [number, number] =>
  model.intensity.has(param) ? [0, 100] : [-270, 270];

/** A contribution laid over a value. */
function over(model: ModelPlayer, param: string, t: number, c: Contribution, value: number): number {
  const level = levelOf(model, c.list, param);
  const own = c.plays ? modelWave(c.plays, c.cycles!(t), value, level, rangeOf(model, param)) : c.own(t) * level;
  return value + (own - value) * c.weight(t);
}

/** What a list gives where the highest counts, its level left out. */
function highest(model: ModelPlayer, param: string, t: number, list: number): number {
  let value = 0;
  const mine = order(model.contributions.get(param)!).filter((c) => c.list === list);
  for (const c of mine) if (!c.plays) value = c.own(t) * c.weight(t);
  for (const c of mine)
    if (c.plays) value += (modelWave(c.plays, c.cycles!(t), value, 1, rangeOf(model, param)) - value) * c.weight(t);
  return value;
}

/** Latest takes precedence, up to and including one contribution. */
function latest(model: ModelPlayer, param: string, t: number, upTo?: Contribution, below?: number): number {
  let value = 0;
  for (const c of order(model.contributions.get(param)!)) {
    if (isHighest(model, c.list, param)) continue;
    if (below !== undefined && c.priority > below) break;
    value = over(model, param, t, c, value);
    if (c === upTo) break;
  }
  return value;
}

/** What lies below a contribution: those of other lists that come before it. */
function underneath(model: ModelPlayer, param: string, t: number, mine: Contribution): number {
  let value = 0;
  for (const c of order(model.contributions.get(param)!)) {
    if (c === mine) break;
    if (c.list !== mine.list && !isHighest(model, c.list, param)) value = over(model, param, t, c, value);
  }
  return value;
}

/** What is on stage. */
export function modelValue(model: ModelPlayer, param: string, t: number): number {
  let value = latest(model, param, t);
  for (const c of model.contributions.get(param)!)
    if (isHighest(model, c.list, param))
      value = Math.max(value, highest(model, param, t, c.list) * levelOf(model, c.list, param));
  return value;
}

/** A mix that is complete replaces the list's former output. */
export function tidy(model: ModelPlayer, t: number): void {
  for (const [param, all] of model.contributions) {
    const sorted = order(all);
    model.contributions.set(
      param,
      sorted.filter((c, i) => {
        if (c.leaving && c.weight(t) <= 0) return false;
        return !sorted
          .slice(i + 1)
          .some(
            (x) =>
              x.list === c.list &&
              !x.plays === !c.plays &&
              !x.leaving &&
              !x.hushed &&
              x.weight(t) >= 1 &&
              !(c.leaving && x.plays?.around),
          );
      }),
    );
  }
}

/** Arrives in a cue: `all` = everything in force moves. */
export function modelArrive(
  model: ModelPlayer,
  list: number,
  to: number,
  t: number,
  all: boolean,
  fade?: number,
): void {
  tidy(model, t);
  const { cues, priority } = model.lists[list]!;
  const from = model.standing[list]!;
  model.stamp += 1;
  const cue = cues[to]!;
  const { passed, ready, late, moves: planned } = judgeModel(model, list, to, t);
  for (const param of model.contributions.keys()) {
    moveValue(param);
    moveEffect(param);
  }
  model.standing[list] = to;
  model.black[list] = planned;
  model.lastGo[list] = model.stamp;
  restart(model, list, t);
  watchModel(model, t);

  function moveEffect(param: string): void {
    const wanted = effectInForce(model.lists[list]!, to, param, model.intensity.has(param));
    const all2 = () => order(model.contributions.get(param)!);
    const runs = all2()
      .filter((c) => c.list === list && c.plays)
      .at(-1);
    const running = runs && (!runs.leaving || runs.hushed) ? runs : undefined;
    const goesOn = running && wanted && JSON.stringify(running.plays) === JSON.stringify(wanted.effect);
    const stamped = all || from === null || all2().some((c) => c.list === list && !c.plays && c.stamp === model.stamp);
    const has = (c: Contribution) =>
      isHighest(model, list, param) ||
      !all2()
        .slice(all2().indexOf(c) + 1)
        .some((x) => x.list !== list && x.priority <= priority && !isHighest(model, x.list, param));
    /** It lies above what had that stamp before. */
    const restamp = (c: Contribution) => {
      c.stamp = model.stamp;
      model.contributions.set(param, [...model.contributions.get(param)!.filter((x) => x !== c), c]);
    };
    const isReady = !model.intensity.has(param) && ready.includes(Number(param[1]));
    const away = isReady ? 0 : (fade ?? (model.intensity.has(param) ? cue.down : cue.up));
    const coming = isReady ? 0 : (fade ?? cue.up);
    const turn = (c: Contribution, down: boolean) => {
      const w = c.weight(t);
      const r = ramp(t, down ? away : coming);
      c.weight = down ? (s) => w * (1 - r(s)) : (s) => w + (1 - w) * r(s);
    };
    if (running && !goesOn && stamped && has(running)) restamp(running);
    if (running && goesOn) {
      if (wanted.hushed !== (running.hushed ?? false)) {
        turn(running, wanted.hushed);
        running.hushed = wanted.hushed;
      }
      if (running.hushed || !stamped) return;
      if (has(running)) restamp(running);
      else {
        const r = ramp(t, coming);
        model.contributions.get(param)!.push({ ...running, stamp: model.stamp, weight: r });
      }
      return;
    }
    for (const c of all2())
      if (running && c.list === list && c.plays && !(c.leaving && !c.hushed)) {
        turn(c, true);
        c.leaving = true;
        c.hushed = false;
      }
    if (!wanted || wanted.hushed) return;
    const { effect } = wanted;
    const speed = effect.bpm / 60;
    let [at, run] = [t, 0];
    let rate = model.speed[list]!;
    model.contributions.get(param)!.push({
      list,
      priority,
      stamp: model.stamp,
      own: () => 0,
      weight: ramp(t, coming),
      leaving: false,
      plays: effect,
      // Cycles run are an integral: what ran at the former speed stays run.
      cycles: (s) => {
        if (rate !== model.speed[list]!) [run, at, rate] = [run + (s - at) * speed * rate, s, model.speed[list]!];
        return run + (s - at) * speed * rate;
      },
    });
  }

  function moveValue(param: string): void {
    const contributions = model.contributions.get(param)!;
    const target = modelInForce(model.lists[list]!, to, param);
    const before = from === null ? undefined : modelInForce(model.lists[list]!, from, param);
    const mine = order(contributions)
      .filter((c) => c.list === list && !c.plays)
      .at(-1);
    const moves = all || from === null || late.includes(param) || target?.at !== before?.at || target?.at === to;
    const level = levelOf(model, list, param);
    const time = (falling: boolean) =>
      !model.intensity.has(param) && ready.includes(Number(param[1]))
        ? 0
        : (fade ?? (model.intensity.has(param) && falling ? cue.down : cue.up));
    if (passed.includes(param)) {
      // It goes straight to where it will next be lit: its go only stamps it.
      if (!all && from !== null && !(target && moves)) return;
      if (mine && hasTheStage(model, list, param, mine)) mine.stamp = model.stamp;
      else planned.find((m) => m.param === param)!.onTop = true;
      if (mine && mine.stamp === model.stamp)
        model.contributions.set(param, [...model.contributions.get(param)!.filter((x) => x !== mine), mine]);
      return;
    }
    const meant = planned.find((m) => m.param === param && m.after === t);
    if (meant && (target ? moves : mine && !mine.leaving)) meant.after = t + time(false);
    if (!target) {
      if (!mine || mine.leaving) return;
      // What was never in force was moved in black: it stays until a jump.
      if (!all && from !== null && !before) return;
      // The highest goes from its own output to nothing; the latest to what lies below it.
      const took = time(
        isHighest(model, list, param)
          ? mine.own(t) * mine.weight(t) * level > 0
          : underneath(model, param, t, mine) < latest(model, param, t, mine),
      );
      for (const c of contributions.filter((x) => x.list === list && !x.leaving && !x.plays)) {
        const w = c.weight(t);
        const r = ramp(t, took);
        c.weight = (s) => w * (1 - r(s));
        c.leaving = true;
      }
      return;
    }
    if (!moves) return;
    const isHigh = isHighest(model, list, param);
    const above = mine ? order(contributions).slice(order(contributions).indexOf(mine) + 1) : [];
    const has =
      mine &&
      (isHigh || !above.some((c) => c.list !== list && c.priority <= priority && !isHighest(model, c.list, param)));
    if (mine && has) {
      const now = isHigh ? mine.own(t) * mine.weight(t) * level : latest(model, param, t, mine);
      const start = isHigh
        ? mine.own(t) * mine.weight(t)
        : mine.weight(t) >= 1 || level <= 0
          ? mine.own(t)
          : now / level;
      const r = ramp(t, time(target.value * level < now));
      model.contributions.set(param, [
        ...contributions.filter((c) => c.list !== list || c.plays),
        {
          list,
          priority,
          stamp: model.stamp,
          own: (s) => start + (target.value - start) * r(s),
          weight: () => 1,
          leaving: false,
        },
      ]);
      return;
    }
    const under = isHigh ? 0 : latest(model, param, t, undefined, priority);
    const r = ramp(t, time(target.value * level < under));
    contributions.push({
      list,
      priority,
      stamp: model.stamp,
      own: isHigh ? (s) => target.value * r(s) : () => target.value,
      weight: isHigh ? () => 1 : r,
      leaving: false,
    });
  }
}

/** Sets the cycles of a list's effects to 0. */
export function modelResync(model: ModelPlayer, list: number, t: number): void {
  for (const contributions of model.contributions.values())
    for (const c of contributions) {
      const { cycles } = c;
      if (c.list !== list || !cycles) continue;
      const run = cycles(t);
      c.cycles = (s) => cycles(s) - run;
    }
}

/** Another speed of a list's effects, from now on. */
export function modelSpeed(model: ModelPlayer, list: number, t: number, speed: number): void {
  const all = [...model.contributions.values()].flat().filter((c) => c.list === list && c.cycles);
  for (const c of all) c.cycles!(t);
  model.speed[list] = speed;
  for (const c of all) c.cycles!(t);
}

export function modelRelease(model: ModelPlayer, list: number, t: number): void {
  tidy(model, t);
  if (model.standing[list] === null) return;
  for (const contributions of model.contributions.values()) {
    for (const c of contributions) {
      if (c.list !== list) continue;
      const w = c.weight(t);
      const r = ramp(t, model.lists[list]!.releaseTime);
      c.weight = (s) => w * (1 - r(s));
      c.leaving = true;
      c.hushed = false;
    }
  }
  model.standing[list] = null;
  model.black[list] = [];
}
