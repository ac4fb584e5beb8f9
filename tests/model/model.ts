/**
 * A second player, slow and plain: it keeps the story of what was done and works every value out from
 * the words of the semantics. No arrays, no caches, no layers shared between events: each contribution
 * is a closure over time. Intensity and one smooth attribute only, which is what arbitration is about.
 */
export interface ModelEntry {
  value: number | "release";
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
}

export interface ModelList {
  cues: ModelCue[];
  priority: number;
  htp: boolean;
  backTime: number;
  releaseTime: number;
}

/** In force by the words: scan back, the first entry that covers; a fresh start ends the scan. */
export function modelInForce(list: ModelList, index: number, param: string): { value: number; at: number } | undefined {
  for (let j = index; j >= 0; j--) {
    const cue = list.cues[j]!;
    const entry = cue.entries[param];
    const covers = cue.reach === undefined || j === index || list.cues[index]!.number <= cue.reach;
    if (entry && covers) return entry.value === "release" ? undefined : { value: entry.value, at: j };
    if (cue.fresh) return undefined;
  }
  return undefined;
}

type OverTime = (t: number) => number;
const clamp = (v: number) => Math.min(1, Math.max(0, v));
const ramp =
  (at: number, fade: number): OverTime =>
  (t) =>
    fade <= 0 ? (t >= at ? 1 : 0) : clamp((t - at) / fade);

interface Contribution {
  list: number;
  priority: number;
  stamp: number;
  own: OverTime;
  weight: OverTime;
  leaving: boolean;
}

export interface ModelPlayer {
  lists: ModelList[];
  intensity: Set<string>;
  standing: (number | null)[];
  level: number[];
  contributions: Map<string, Contribution[]>;
  stamp: number;
}

export const newModel = (lists: ModelList[], params: string[], intensity: string[]): ModelPlayer => ({
  lists,
  intensity: new Set(intensity),
  standing: lists.map(() => null),
  level: lists.map(() => 1),
  contributions: new Map(params.map((p) => [p, []])),
  stamp: 0,
});

const order = (list: Contribution[]) => [...list].sort((a, b) => a.priority - b.priority || a.stamp - b.stamp);
const isHighest = (model: ModelPlayer, list: number, param: string) =>
  model.lists[list]!.htp && model.intensity.has(param);
const levelOf = (model: ModelPlayer, list: number, param: string) =>
  model.intensity.has(param) ? model.level[list]! : 1;

/** Latest takes precedence, up to and including one contribution. */
function latest(model: ModelPlayer, param: string, t: number, upTo?: Contribution, below?: number): number {
  let value = 0;
  for (const c of order(model.contributions.get(param)!)) {
    if (isHighest(model, c.list, param)) continue;
    if (below !== undefined && c.priority > below) break;
    value += (c.own(t) * levelOf(model, c.list, param) - value) * c.weight(t);
    if (c === upTo) break;
  }
  return value;
}

/** What lies below a contribution: those of other lists that come before it. */
function underneath(model: ModelPlayer, param: string, t: number, mine: Contribution): number {
  let value = 0;
  for (const c of order(model.contributions.get(param)!)) {
    if (c === mine) break;
    if (c.list !== mine.list && !isHighest(model, c.list, param))
      value += (c.own(t) * levelOf(model, c.list, param) - value) * c.weight(t);
  }
  return value;
}

/** What is on stage. */
export function modelValue(model: ModelPlayer, param: string, t: number): number {
  let value = latest(model, param, t);
  for (const c of model.contributions.get(param)!) {
    if (isHighest(model, c.list, param))
      value = Math.max(value, c.own(t) * c.weight(t) * levelOf(model, c.list, param));
  }
  return value;
}

/** A mix that is complete replaces the list's former output. */
function tidy(model: ModelPlayer, t: number): void {
  for (const [param, all] of model.contributions) {
    const sorted = order(all);
    model.contributions.set(
      param,
      sorted.filter((c, i) => {
        if (c.leaving && c.weight(t) <= 0) return false;
        return !sorted.slice(i + 1).some((later) => later.list === c.list && !later.leaving && later.weight(t) >= 1);
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
  for (const [param, contributions] of model.contributions) {
    const target = modelInForce(model.lists[list]!, to, param);
    const before = from === null ? undefined : modelInForce(model.lists[list]!, from, param);
    const mine = order(contributions)
      .filter((c) => c.list === list)
      .at(-1);
    const moves = all || from === null || target?.at !== before?.at || target?.at === to;
    const level = levelOf(model, list, param);
    const time = (falling: boolean) => fade ?? (model.intensity.has(param) && falling ? cue.down : cue.up);
    if (!target) {
      if (!mine || mine.leaving) continue;
      // The highest goes from its own output to nothing; the latest to what lies below it.
      const took = time(
        isHighest(model, list, param)
          ? mine.own(t) * mine.weight(t) * level > 0
          : underneath(model, param, t, mine) < latest(model, param, t, mine),
      );
      for (const c of contributions.filter((x) => x.list === list && !x.leaving)) {
        const w = c.weight(t);
        const r = ramp(t, took);
        c.weight = (s) => w * (1 - r(s));
        c.leaving = true;
      }
      continue;
    }
    if (!moves) continue;
    const highest = isHighest(model, list, param);
    const above = mine ? order(contributions).slice(order(contributions).indexOf(mine) + 1) : [];
    const has =
      mine &&
      (highest || !above.some((c) => c.list !== list && c.priority <= priority && !isHighest(model, c.list, param)));
    if (mine && has) {
      const now = highest ? mine.own(t) * mine.weight(t) * level : latest(model, param, t, mine);
      const start = highest
        ? mine.own(t) * mine.weight(t)
        : mine.weight(t) >= 1 || level <= 0
          ? mine.own(t)
          : now / level;
      const r = ramp(t, time(target.value * level < now));
      model.contributions.set(param, [
        ...contributions.filter((c) => c.list !== list),
        {
          list,
          priority,
          stamp: model.stamp,
          own: (s) => start + (target.value - start) * r(s),
          weight: () => 1,
          leaving: false,
        },
      ]);
      continue;
    }
    const under = highest ? 0 : latest(model, param, t, undefined, priority);
    const r = ramp(t, time(target.value * level < under));
    contributions.push({
      list,
      priority,
      stamp: model.stamp,
      own: highest ? (s) => target.value * r(s) : () => target.value,
      weight: highest ? () => 1 : r,
      leaving: false,
    });
  }
  model.standing[list] = to;
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
    }
  }
  model.standing[list] = null;
}
