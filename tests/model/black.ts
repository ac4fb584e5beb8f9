/** Moves in black in the slow, plain player: by the words of sections 8 and 9, looked at whenever anything begins or ends. */
import {
  effectInForce,
  hasTheStage,
  modelInForce,
  modelValue,
  order,
  ramp,
  tidy,
  turns,
  type ModelPlayer,
} from "./model";

export interface ModelMove {
  fixture: number;
  param: string;
  target: number;
  /** Place of the cue it is stored in. */
  from: number;
  left: number;
  since: number | null;
  /** It does not begin before. */
  after: number;
  begun: boolean;
  done: boolean;
  /** It was stamped while another list had the stage: it comes on top. */
  onTop: boolean;
}

const FIXTURES = [1, 2];
const JUST_AFTER = 2e-6;

const isLitOnPaper = (model: ModelPlayer, list: number, at: number, fixture: number): boolean => {
  const of = model.lists[list]!;
  const value = modelInForce(of, at, `d${fixture}`);
  const effect = effectInForce(of, at, `d${fixture}`, true);
  return (value !== undefined && value.value > 0) || (effect !== undefined && !effect.hushed);
};

/** 0 from every list, and under no effect. */
function isDark(model: ModelPlayer, fixture: number, t: number): boolean {
  const param = `d${fixture}`;
  const played = model.contributions
    .get(param)!
    .some((c) => c.plays && !c.hushed && (!c.leaving || c.weight(t + JUST_AFTER) > 0));
  return !played && modelValue(model, param, t + JUST_AFTER) <= 0;
}

/** What an arrival means for the dark, judged before anything of it moves. */
export function judgeModel(model: ModelPlayer, list: number, to: number, t: number) {
  const of = model.lists[list]!;
  const passed: string[] = [];
  const moves = FIXTURES.flatMap((fixture): ModelMove[] => {
    if (!of.black || isLitOnPaper(model, list, to, fixture)) return [];
    const lights = of.cues.findIndex((_, i) => i > to && isLitOnPaper(model, list, i, fixture));
    const target = lights < 0 ? undefined : modelInForce(of, lights, `p${fixture}`);
    if (!target) return [];
    const param = `p${fixture}`;
    const old = model.black[list]!.find(
      (m) => m.fixture === fixture && m.target === target.value && m.from === target.at,
    );
    const meant = of.cues[to]!.meant?.includes(fixture) ?? false;
    const fresh = {
      fixture,
      param,
      target: target.value,
      from: target.at,
      left: of.blackTime!,
      since: null,
      begun: false,
      done: false,
    };
    if (isDark(model, fixture, t) && !meant) {
      passed.push(param);
      return [old ? { ...old, onTop: false } : { ...fresh, after: -Infinity, onTop: false }];
    }
    const again = !old || old.done || meant;
    return [again ? { ...fresh, after: meant ? t : -Infinity, onTop: false } : { ...old, onTop: false }];
  });
  const ready = of.ready ? FIXTURES.filter((f) => isLitOnPaper(model, list, to, f) && isDark(model, f, t)) : [];
  // What is still on its way when its fixture lights goes on over that cue's time.
  const late = model.black[list]!.filter((m) => m.begun && !m.done && !moves.some((x) => x.fixture === m.fixture)).map(
    (m) => m.param,
  );
  return { passed, moves, ready, late };
}

/** Begins, holds and ends moves as their fixtures are dark or lit now. */
export function watchModel(model: ModelPlayer, t: number): void {
  model.black.forEach((moves, list) => {
    if (model.standing[list] === null) return;
    for (const move of moves) {
      if (move.done) continue;
      if (move.since !== null && t >= move.since + move.left - 1e-9) {
        move.done = true;
        continue;
      }
      if (!isDark(model, move.fixture, t)) hold(model, list, move, t);
      else if (move.since === null && t >= move.after - 1e-9) begin(model, list, move, t);
    }
  });
}

const mineOf = (model: ModelPlayer, list: number, param: string) =>
  order(model.contributions.get(param)!)
    .filter((c) => c.list === list && !c.plays)
    .at(-1);

function begin(model: ModelPlayer, list: number, move: ModelMove, t: number): void {
  const { param, target, left } = move;
  tidy(model, t);
  const mine = mineOf(model, list, param);
  const r = ramp(t, left);
  if (!mine || (move.onTop && !hasTheStage(model, list, param, mine)))
    model.contributions.get(param)!.push({
      list,
      priority: model.lists[list]!.priority,
      stamp: model.lastGo[list]!,
      own: () => target,
      weight: r,
      leaving: false,
    });
  else {
    const [own, weight] = [mine.own(t), mine.weight(t)];
    mine.own = (s) => own + (target - own) * r(s);
    mine.weight = weight >= 1 ? () => 1 : (s) => weight + (1 - weight) * r(s);
    mine.leaving = false;
  }
  move.since = t;
  move.begun = true;
  move.onTop = false;
}

function hold(model: ModelPlayer, list: number, move: ModelMove, t: number): void {
  if (move.since === null) return;
  move.left = Math.max(0, move.left - (t - move.since));
  move.since = null;
  const mine = mineOf(model, list, move.param);
  if (!mine) return;
  const [own, weight] = [mine.own(t), mine.weight(t)];
  mine.own = () => own;
  mine.weight = () => weight;
}

/** Another list took the stage while a move had begun: it comes on top anew, in the time it has left. */
export function restart(model: ModelPlayer, list: number, t: number): void {
  for (const move of model.black[list]!) {
    if (!move.onTop || !move.begun) continue;
    move.left = move.done
      ? model.lists[list]!.blackTime!
      : Math.max(0, move.left - (move.since === null ? 0 : t - move.since));
    move.since = null;
    move.done = false;
  }
}

/** Lets everything happen that is due between two times, at its exact time. */
export function advanceModel(model: ModelPlayer, from: number, to: number): void {
  watchModel(model, from);
  for (let at = from; ;) {
    const ends = model.black.flat().flatMap((m) => (m.since === null ? [m.after] : [m.since + m.left]));
    const next = Math.min(...[...turns, ...ends].filter((t) => t > at + 1e-9));
    if (!(next <= to + 1e-9)) return;
    watchModel(model, next);
    at = next;
  }
}
